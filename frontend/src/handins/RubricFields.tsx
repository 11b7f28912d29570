/** The rubric of a hand-in while it is set: levels with points, criteria with weights, and what each level means. */
import { Plus, Trash2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import { Button } from "../ui/Button";
import { newKey } from "../ui/newKey";
import { rubricFields } from "./rubric";
import type { RubricForm } from "./rubric";
import { RUBRIC } from "./rubricTexts";

const RubricFrom = lazy(() => patiently(() => import("./RubricFrom")).then((view) => ({ default: view.RubricFrom })));

interface Props {
  rubric: RubricForm | null;
  onChange: (rubric: RubricForm | null) => void;
}

const FIELD = "min-h-9 min-w-0 rounded-md border border-control bg-paper px-2";
const MOST_LEVELS = 8;
const MOST_CRITERIA = 30;

export function RubricFields({ rubric, onChange }: Props) {
  // One that is there already is put away: it is long, and mostly stays as it is.
  const [fresh] = useState(rubric === null);
  if (rubric === null) {
    return (
      <div>
        <p className="font-bold">
          {RUBRIC.title}{" "}<span className="font-normal text-quiet">{RUBRIC.mayStayAway}</span>
        </p>
        <div className="mt-1 flex flex-wrap items-start gap-2">
          <Button icon={<Plus aria-hidden size={16} />} onClick={() => onChange(firstRubric())}>
            {RUBRIC.add}
          </Button>
          <Suspense>
            <RubricFrom onTake={(rubric) => onChange(rubricFields(rubric))} />
          </Suspense>
        </div>
      </div>
    );
  }
  return (
    <details open={fresh || undefined} className="rounded-lg border border-edge p-3">
      <summary className="cursor-pointer font-bold">
        {RUBRIC.title}{" "}<span className="font-normal text-quiet">{RUBRIC.count({ count: rubric.criteria.length })}</span>
      </summary>
      <div className="mt-2 flex flex-col gap-3">
        <p className="text-quiet">{RUBRIC.hint}</p>
        <Levels rubric={rubric} onChange={onChange} />
        <Criteria rubric={rubric} onChange={onChange} />
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" checked={rubric.halves} disabled={rubric.levels.some((one) => one.low)} onChange={(event) => onChange({ ...rubric, halves: event.target.checked })} />
          {RUBRIC.halves}
        </label>
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" checked={rubric.by_student} onChange={(event) => onChange({ ...rubric, by_student: event.target.checked })} />
          {RUBRIC.byStudent}
        </label>
        <Button className="self-start" icon={<Trash2 aria-hidden size={16} />} onClick={() => onChange(null)}>
          {RUBRIC.takeAway}
        </Button>
      </div>
    </details>
  );
}

interface Part {
  rubric: RubricForm;
  onChange: (rubric: RubricForm) => void;
}

function Levels({ rubric, onChange }: Part) {
  const put = (at: number, next: Partial<RubricForm["levels"][number]>) => onChange({ ...rubric, levels: rubric.levels.map((one, place) => (place === at ? { ...one, ...next } : one)) });
  const without = (at: number) =>
    onChange({
      ...rubric,
      levels: rubric.levels.toSpliced(at, 1),
      criteria: rubric.criteria.map((one) => ({ ...one, says: one.says.toSpliced(at, 1) })),
    });
  const add = () =>
    onChange({
      ...rubric,
      levels: [...rubric.levels, { key: newKey(), title: "", points: "", low: "" }],
      criteria: rubric.criteria.map((one) => ({ ...one, says: [...one.says, ""] })),
    });
  const [ranges, setRanges] = useState(rubric.levels.some((one) => one.low));
  return (
    <div role="group" aria-label={RUBRIC.levels} className="flex flex-col gap-2">
      <p className="font-semibold">
        {RUBRIC.levels}{" "}<span className="font-normal text-quiet">{RUBRIC.levelsHint}</span>
      </p>
      {rubric.levels.map((one, at) => (
        <div key={one.key} className="flex gap-2">
          <input aria-label={RUBRIC.levelAt({ at: at + 1 })} value={one.title} autoComplete="off" className={`${FIELD} flex-1`} onChange={(event) => put(at, { title: event.target.value })} />
          <input aria-label={RUBRIC.pointsOf({ at: at + 1 })} value={one.points} inputMode="decimal" autoComplete="off" className={`${FIELD} figures order-2 w-16 text-right`} onChange={(event) => put(at, { points: event.target.value })} />
          {ranges && <input aria-label={RUBRIC.lowOf({ at: at + 1 })} value={one.low} placeholder={RUBRIC.low} inputMode="decimal" autoComplete="off" className={`${FIELD} figures order-1 w-16 text-right`} onChange={(event) => put(at, { low: event.target.value })} />}
          {rubric.levels.length > 2 && <Away label={RUBRIC.withoutLevel({ at: at + 1 })} onClick={() => without(at)} />}
        </div>
      ))}
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          className="mt-0.5 size-4 accent-ink"
          checked={ranges}
          onChange={(event) => {
            setRanges(event.target.checked);
            // Any points of a range can be given: there are no half levels beside them.
            onChange({ ...rubric, halves: rubric.halves && !event.target.checked, levels: rubric.levels.map((one) => ({ ...one, low: event.target.checked ? one.low : "" })) });
          }}
        />
        {RUBRIC.ranges}
      </label>
      {rubric.levels.length < MOST_LEVELS && (
        <Button className="self-start" icon={<Plus aria-hidden size={16} />} onClick={add}>
          {RUBRIC.level}
        </Button>
      )}
    </div>
  );
}

function Criteria({ rubric, onChange }: Part) {
  const put = (at: number, next: Partial<RubricForm["criteria"][number]>) => onChange({ ...rubric, criteria: rubric.criteria.map((one, place) => (place === at ? { ...one, ...next } : one)) });
  const add = () => onChange({ ...rubric, criteria: [...rubric.criteria, newCriterion(rubric.levels.length)] });
  return (
    <div role="group" aria-label={RUBRIC.criteria} className="flex flex-col gap-3">
      <p className="font-semibold">
        {RUBRIC.criteria}{" "}<span className="font-normal text-quiet">{RUBRIC.criteriaHint}</span>
      </p>
      {rubric.criteria.map((one, at) => (
        <div key={one.key} className="flex flex-col gap-1.5 border-t border-line pt-3">
          <div className="flex gap-2">
            <input aria-label={RUBRIC.criterionAt({ at: at + 1 })} value={one.title} autoComplete="off" className={`${FIELD} flex-1 font-semibold`} onChange={(event) => put(at, { title: event.target.value })} />
            <input aria-label={RUBRIC.weightOf({ at: at + 1 })} value={one.weight} inputMode="decimal" autoComplete="off" className={`${FIELD} figures w-16 text-right`} onChange={(event) => put(at, { weight: event.target.value })} />
            {rubric.criteria.length > 1 && <Away label={RUBRIC.withoutCriterion({ at: at + 1 })} onClick={() => onChange({ ...rubric, criteria: rubric.criteria.toSpliced(at, 1) })} />}
          </div>
          {rubric.levels.map((level, place) => (
            <label key={level.key} className="flex items-baseline gap-2 pl-3">
              <span className="w-24 shrink-0 truncate text-quiet">{level.title || RUBRIC.levelAt({ at: place + 1 })}</span>
              <input
                value={one.says[place] ?? ""}
                placeholder={RUBRIC.says}
                autoComplete="off"
                className={`${FIELD} flex-1`}
                onChange={(event) => put(at, { says: one.says.with(place, event.target.value) })}
              />
            </label>
          ))}
        </div>
      ))}
      {rubric.criteria.length < MOST_CRITERIA && (
        <Button className="self-start" icon={<Plus aria-hidden size={16} />} onClick={add}>
          {RUBRIC.criterion}
        </Button>
      )}
    </div>
  );
}

function Away({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button type="button" aria-label={label} onClick={onClick} className="order-3 flex size-9 shrink-0 items-center justify-center rounded-sm text-ink-soft hover:bg-ground">
      <Trash2 aria-hidden size={15} />
    </button>
  );
}

function newCriterion(levels: number): RubricForm["criteria"][number] {
  return { key: newKey(), title: "", weight: "1", says: Array.from({ length: levels }, () => "") };
}

/** What stands there at first: four levels that fit most things, one criterion to be named. */
function firstRubric(): RubricForm {
  const levels = RUBRIC.firstLevels.map((title, at) => ({ key: newKey(), title, points: String(at), low: "" }));
  return { levels, criteria: [newCriterion(levels.length)], halves: false, by_student: false };
}
