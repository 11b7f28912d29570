/** A student judges themselves by the rubric before they hand in, where the hand-in asks; they may leave it. */
import { useId } from "react";
import type { Schema } from "../api/client";
import type { Judged } from "./RubricTable";
import { RUBRIC } from "./rubricTexts";

type Rubric = Schema["RubricShape"];

interface Props {
  rubric: Rubric;
  judged: Judged;
  onChange: (judged: Judged) => void;
}

export function JudgeYourself({ rubric, judged, onChange }: Props) {
  const done = rubric.criteria.filter((one) => one.key in judged).length;
  return (
    <details open={done > 0 || undefined} className="rounded-lg border border-edge bg-paper p-3">
      <summary className="min-h-11 cursor-pointer content-center text-base font-bold">
        {RUBRIC.judgeYourself} <span className="figures font-normal text-quiet">{RUBRIC.judgedSoFar({ done, count: rubric.criteria.length })}</span>
      </summary>
      <p className="text-ink-soft">{RUBRIC.judgeHint}</p>
      {rubric.criteria.map((one) => (
        <Criterion key={one.key} rubric={rubric} of={one} chosen={judged[one.key]?.[0]} onChoose={(level) => onChange({ ...judged, [one.key]: [level] })} />
      ))}
    </details>
  );
}

function Criterion({ rubric, of, chosen, onChoose }: { rubric: Rubric; of: Rubric["criteria"][number]; chosen: string | undefined; onChoose: (level: string) => void }) {
  const name = useId();
  return (
    <fieldset className="mt-3">
      <legend className="text-base font-semibold break-words">{of.title}</legend>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(8.5rem,1fr))] gap-2">
        {rubric.levels.map((level, at) => (
          <label key={level.key} className={`flex min-h-11 min-w-0 items-start gap-2 rounded-md border p-2 break-words ${level.key === chosen ? "border-2 border-in bg-in-soft" : "border-edge"}`}>
            <input type="radio" name={name} className="mt-1 size-4 shrink-0 accent-in" checked={level.key === chosen} onChange={() => onChoose(level.key)} />
            <span className="min-w-0">
              <span className="block font-semibold">{level.title}</span>
              {of.says[at] && <span className="block text-sm">{of.says[at]}</span>}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
