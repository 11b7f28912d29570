/** What goes out of a score: what is taken for being late, or another score of the marker's own, with the reason. */
import { useState } from "react";
import type { Schema } from "../api/client";
import type { Fields } from "../submission/mark";
import { OWN } from "./ownTexts";

interface Props {
  desk: Schema["Desk"];
  fields: Fields;
  onChange: (next: Partial<Fields>) => void;
}

const FIELD = "mt-1 block rounded-md border border-control bg-paper px-3 py-2 text-base font-normal";

export function OwnScore({ desk, fields, onChange }: Props) {
  const { points, rubric } = desk.handin;
  const late = desk.draft?.late_days ?? 0;
  const [open, setOpen] = useState(fields.own !== "" || fields.why !== "");
  // Points that are typed are the marker's own already, unless something is taken from them.
  if (points === null || (!rubric && late === 0 && !open)) return null;
  return (
    <div className="flex flex-col gap-1">
      {fields.own === "" && <TakenForLate draft={desk.draft} />}
      <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="min-h-8 cursor-pointer text-sm font-semibold">{OWN.open}</summary>
        <p className="text-sm text-quiet">{OWN.hint}</p>
        <label className="mt-1 block font-bold">
          {OWN.score} <span className="font-normal text-quiet">{OWN.of({ points })}</span>
          <input value={fields.own} inputMode="decimal" autoComplete="off" onChange={(event) => onChange({ own: event.target.value })} className={`${FIELD} figures max-w-28`} />
        </label>
        <label className="mt-1 block font-bold">
          {OWN.why}
          <input value={fields.why} maxLength={500} autoComplete="off" onChange={(event) => onChange({ why: event.target.value })} className={`${FIELD} w-full`} />
        </label>
      </details>
    </div>
  );
}

/** What the late rule takes of what is drafted. */
function TakenForLate({ draft }: { draft: Schema["Desk"]["draft"] }) {
  if (!draft || draft.late_days === 0 || draft.score === null || draft.goes_out === null) return null;
  return <p className="figures rounded-md bg-today px-2 py-1">{OWN.takes({ days: draft.late_days, earned: draft.score, out: draft.goes_out })}</p>;
}
