/** Letting students choose their group themselves: until when, and how many fit into one. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { DateField } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { GROUPS } from "./groupTexts";

export function LetChoose({ groupId, of, students, onClose }: { groupId: number; of: Schema["GroupSetShape"]; students: number; onClose: () => void }) {
  const [until, setUntil] = useState(of.chosen_until ?? "");
  const [most, setMost] = useState(String(of.most ?? (Math.ceil(students / Math.max(1, of.groups.length)) || 1)));
  const queries = useQueryClient();
  const say = useSay();
  const open = useMutation({
    mutationFn: () => data(client.PUT("/api/sets/{set_id}/choice", { params: { path: { set_id: of.id } }, body: { until, most: Number(most) || 0 } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      onClose();
      say(GROUPS.begun);
    },
  });
  const places = of.groups.length * (Number(most) || 0);
  return (
    <Modal narrow title={GROUPS.letTitle({ name: of.name })} onClose={onClose}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          open.mutate();
        }}
      >
        <DateField label={GROUPS.until} value={until} onChange={setUntil} />
        <label className="font-bold">
          {GROUPS.most}
          <input value={most} inputMode="numeric" autoComplete="off" onChange={(event) => setMost(event.target.value)} className="figures mt-1 block min-h-9 w-24 rounded-md border border-control bg-paper px-2 font-normal" />
        </label>
        <p role="status">
          {GROUPS.places({ places, students })} {places < students && GROUPS.tooFew({ missing: students - places })}
        </p>
        {open.error instanceof Problem && <Notice title={open.error.title} fix={open.error.fix} />}
        <div className="flex justify-end gap-2">
          <Button big onClick={onClose}>
            {GROUPS.cancel}
          </Button>
          <Button big look="main" type="submit" disabled={!until || open.isPending}>
            {GROUPS.begin}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
