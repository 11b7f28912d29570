/** What one student of the class is asked for and what not, each line to be changed. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { askedQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { day } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { STATUS_WITHIN } from "../ui/words";
import { TEXTS } from "./texts";

type Line = Schema["AskedLine"];

interface Props {
  groupId: number;
  enrolment: number;
  may: boolean;
  onClose: () => void;
}

export function AskedPanel({ groupId, enrolment, may, onClose }: Props) {
  const found = useQuery(askedQuery(groupId, enrolment));
  return (
    <aside aria-label={TEXTS.whatTheyAreAskedFor} className="flex w-80 shrink-0 flex-col gap-4 overflow-y-auto border-l border-line bg-paper p-4">
      <div className="flex items-start justify-between gap-2">
        <h2 className="text-base">{found.data?.student.full_name ?? "…"}</h2>
        <button type="button" aria-label={TEXTS.close} onClick={onClose} className="-m-2 p-2">
          <X aria-hidden size={18} />
        </button>
      </div>
      {found.isPending && <Waiting />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && (
        <>
          <p className="text-ink-soft">{TEXTS.inTheClassSinceJoined({ joined: day(found.data.joined) })}</p>
          <Part title={TEXTS.askedFor} lines={found.data.asked} none={TEXTS.nothingYet} groupId={groupId} enrolment={enrolment} may={may} />
          <Part title={TEXTS.notAskedFor} lines={found.data.not_asked} none={TEXTS.nothingIsLeftOut} groupId={groupId} enrolment={enrolment} may={may} />
        </>
      )}
    </aside>
  );
}

interface PartProps {
  title: string;
  lines: Line[];
  none: string;
  groupId: number;
  enrolment: number;
  may: boolean;
}

function Part({ title, lines, none, ...rest }: PartProps) {
  return (
    <section aria-label={title}>
      <h3 className="text-sm font-bold">{title}</h3>
      {lines.length === 0 ? (
        <p className="text-quiet">{none}</p>
      ) : (
        <ul className="mt-1 divide-y divide-line">
          {lines.map((line) => (
            <OneLine key={line.id} line={line} {...rest} />
          ))}
        </ul>
      )}
    </section>
  );
}

// eslint-disable-next-line complexity -- one branch for each thing a question of the class list may be about
function OneLine({ line, groupId, enrolment, may }: { line: Line } & Omit<PartProps, "title" | "lines" | "none">) {
  const [chosen, setChosen] = useState<string | null>(null);
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { handin_id: line.id, enrolment_id: enrolment } } };
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const ask = useMutation({
    mutationFn: (to: string | null) => data(client.PUT("/api/handins/{handin_id}/students/{enrolment_id}/due", { ...path, body: { day: to } })),
    onSuccess: async (_, to) => {
      setChosen(null);
      await fresh();
      if (to) say(TEXTS.titleIsAskedForBy({ title: line.title, to: day(to) }), () => ask.mutate(null));
    },
  });
  const excuse = useMutation({
    mutationFn: (excused: boolean) => data(client.PUT("/api/handins/{handin_id}/students/{enrolment_id}/excused", { ...path, body: { excused } })),
    onSuccess: async (_, excused) => {
      await fresh();
      if (excused) say(TEXTS.excusedFromTitle({ title: line.title }), () => excuse.mutate(false));
    },
  });
  const error = ask.error ?? excuse.error;
  const asked = line.status !== "not_asked";
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 py-2">
      <div className="min-w-0">
        <p className="font-semibold break-words">{line.title}</p>
        <p className="text-ink-soft">
          {line.due ? TEXTS.dueDue({ due: day(line.due) }) : TEXTS.noDueDate}
          {line.own_due && TEXTS.theirOwnDate}
          {asked && ` · ${STATUS_WITHIN[line.status]}`}
        </p>
      </div>
      {may && chosen === null && (
        <div className="flex flex-wrap gap-2">
          {!asked && <Button onClick={() => setChosen("")}>{TEXTS.askAllTheSame}</Button>}
          {asked && line.own_due && <Button onClick={() => ask.mutate(null)}>{TEXTS.asForEverybody}</Button>}
          {asked && (
            <Button disabled={excuse.isPending} onClick={() => excuse.mutate(line.status !== "excused")}>
              {line.status === "excused" ? TEXTS.askAgain : TEXTS.excuse}
            </Button>
          )}
        </div>
      )}
      {chosen !== null && (
        <form
          aria-label={TEXTS.askForTitle({ title: line.title })}
          className="mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (chosen) ask.mutate(chosen);
          }}
        >
          <DateField label={TEXTS.dueOn} value={chosen} onChange={setChosen} />
          <Button type="submit" disabled={!chosen || ask.isPending}>
            {TEXTS.ask}
          </Button>
          <Button look="quiet" onClick={() => setChosen(null)}>
            {TEXTS.cancel}
          </Button>
        </form>
      )}
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
    </li>
  );
}
