/** What several handed in together: marked for all of them, or for one alone with the reason. */
import { useState } from "react";
import type { Schema } from "../api/client";
import { useDraft } from "../writing/useDraft";
import { FOR_ALL } from "./forAllTexts";

interface ForAllFields {
  forAll: boolean;
  apart: string;
}

const USUALLY: ForAllFields = { forAll: true, apart: "" };

/** What is chosen for a submission, kept in the browser until it is decided or another one is open. */
export function useForAll(submission: number): [ForAllFields, (fields: ForAllFields) => void] {
  const [chosen, setChosen] = useState({ of: submission, fields: USUALLY });
  const fields = chosen.of === submission ? chosen.fields : USUALLY;
  useDraft(`apart/${submission}`, fields, 0, fields !== USUALLY, (kept) => setChosen({ of: submission, fields: kept }));
  return [fields, (fresh) => setChosen({ of: submission, fields: fresh })];
}

interface Props {
  desk: Schema["Desk"];
  fields: ForAllFields;
  onChange: (fields: ForAllFields) => void;
}

export function ForAll({ desk, fields, onChange }: Props) {
  const together = desk.with_it;
  if (!together) return null;
  const { waiting, decided, names } = together;
  const alone = decided > 0 || !fields.forAll;
  return (
    <fieldset className="rounded-md bg-today px-3 py-2">
      <legend className="sr-only">{FOR_ALL.title}</legend>
      {waiting > 0 && (
        <label className="flex min-h-8 items-start gap-2">
          <input type="checkbox" className="mt-1 size-4 shrink-0 accent-ink" checked={fields.forAll} onChange={(event) => onChange({ ...fields, forAll: event.target.checked })} />
          <span className="min-w-0 break-words">
            <strong>{FOR_ALL.forAll({ count: waiting + 1 })}</strong> {names.length > 0 && FOR_ALL.withThem({ names: names.join(", ") })}
          </span>
        </label>
      )}
      {waiting === 0 && <p className="break-words">{names.length > 0 ? FOR_ALL.decided({ names: names.join(", ") }) : FOR_ALL.decidedHidden({ count: decided })}</p>}
      {alone && (
        <label className="mt-1 block font-bold">
          {FOR_ALL.why} <span className="font-normal text-quiet">{FOR_ALL.read}</span>
          <input value={fields.apart} maxLength={500} autoComplete="off" onChange={(event) => onChange({ ...fields, apart: event.target.value })} className="mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal" />
        </label>
      )}
    </fieldset>
  );
}
