/** Drawing all groups of a set: what comes out is seen first, drawn again as often as wanted, then formed. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { fullName } from "./fullName";
import { GROUPS } from "./groupTexts";
import { useUndoList } from "./undo";

type Mixing = Schema["DrawIn"]["mixing"];
const USUAL = 4;

interface Props {
  groupId: number;
  of: Schema["GroupSetShape"];
  all: Schema["GroupSetsShape"];
  onClose: () => void;
}

export function DrawDialog({ groupId, of, all, onClose }: Props) {
  const periods = new Set(all.students.map((one) => one.period)).size;
  const [size, setSize] = useState(String(usualSize(of)));
  const [mixing, setMixing] = useState<Mixing>("within");
  const [round, setRound] = useState(0);
  const asked = useSettled(JSON.stringify({ size: Number(size), mixing, round }));
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndoList(groupId);
  const path = { params: { path: { set_id: of.id } } };
  const drawn = useQuery({
    queryKey: ["draw", of.id, asked],
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
    queryFn: () => {
      const body = JSON.parse(asked) as { size: number; mixing: Mixing };
      return data(client.POST("/api/sets/{set_id}/draw", { ...path, body: { size: body.size, mixing: body.mixing } })).then((found) => ({ ...found, ...body }));
    },
  });
  const form = useMutation({
    mutationFn: (found: NonNullable<typeof drawn.data>) =>
      data(client.POST("/api/sets/{set_id}/form", { ...path, body: { size: found.size, mixing: found.mixing, seed: found.seed, seen: found.seen } })),
    onSuccess: async ({ change }, found) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      onClose();
      say(GROUPS.formed({ count: found.groups.length }), () => undo(change));
    },
  });
  const error = form.error ?? drawn.error;
  return (
    <Modal wide title={GROUPS.drawTitle({ name: of.name })} onClose={onClose}>
      <div className="flex flex-wrap items-end gap-4">
        <label className="font-bold">
          {GROUPS.size}
          <input value={size} inputMode="numeric" autoComplete="off" onChange={(event) => setSize(event.target.value)} className="figures mt-1 block min-h-9 w-24 rounded-md border border-control bg-paper px-2 font-normal" />
        </label>
        {periods > 1 && (
          <label className="font-bold">
            {GROUPS.mixing}
            <select value={mixing} onChange={(event) => setMixing(event.target.value as Mixing)} className="mt-1 flex min-h-9 items-center rounded-md border border-control bg-paper px-2 font-normal">
              <option value="within">{GROUPS.within}</option>
              <option value="across">{GROUPS.across}</option>
            </select>
          </label>
        )}
        <Button className="min-h-9" disabled={drawn.isFetching} onClick={() => setRound(round + 1)}>
          {GROUPS.again}
        </Button>
      </div>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      {drawn.data && (
        <>
          <p role="status">
            <strong>{GROUPS.drawn({ groups: drawn.data.groups.length, students: all.students.length })}</strong> {GROUPS.heeds({ count: of.apart.length + of.together.length })}
          </p>
          <Groups drawn={drawn.data.groups} all={all} />
        </>
      )}
      <div className="flex flex-wrap items-center justify-end gap-2">
        <span className="mr-auto text-ink-soft">{GROUPS.formHint}</span>
        <Button big onClick={onClose}>
          {GROUPS.cancel}
        </Button>
        <Button big look="main" disabled={!drawn.data || drawn.isFetching || form.isPending} onClick={() => drawn.data && form.mutate(drawn.data)}>
          {GROUPS.form}
        </Button>
      </div>
    </Modal>
  );
}

/** As large as the groups are now, else as is usual. */
function usualSize(of: Schema["GroupSetShape"]): number {
  const sizes = of.groups.map((one) => one.members.length).filter(Boolean);
  return sizes.length > 0 ? Math.max(1, Math.round(sizes.reduce((sum, one) => sum + one, 0) / sizes.length)) : USUAL;
}

function Groups({ drawn, all }: { drawn: Schema["DrawnGroup"][]; all: Schema["GroupSetsShape"] }) {
  const students = new Map(all.students.map((one) => [one.id, one]));
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] items-start gap-2">
      {drawn.map((one) => (
        <li key={one.name} className="rounded-md border border-edge px-3 py-2">
          <strong className="break-words">{one.name}</strong>
          <ul>
            {one.members.flatMap((id) => students.get(id) ?? []).map((member) => (
              <li key={member.id} className="break-words">
                {fullName(member)} {member.period && <span className="text-sm text-quiet">{member.period}</span>}
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}
