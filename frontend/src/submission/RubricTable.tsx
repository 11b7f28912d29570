/** A rubric to be read: each criterion with its levels; after release the one that the work reached stands out. */
import { Check } from "lucide-react";
import type { Schema } from "../api/client";
import { RUBRIC } from "./rubricTexts";

type Rubric = Schema["RubricShape"];
/** By criterion: the level, the two that it lies between, or nothing where it is not judged; ``=7.5``: the points in a range. */
export type Judged = Record<string, string[]>;

/** The points of a level: "8", or "5–8" of a range. */
export function pointsOf({ points, low }: Rubric["levels"][number]): string {
  return low === null || low === undefined ? RUBRIC.number({ of: points }) : RUBRIC.range({ low, points });
}

/** The points that were said within a range, as they are kept; undefined where none were. */
export function exactIn(chosen: string[] | undefined): string | undefined {
  const said = chosen?.[1];
  return said?.startsWith("=") ? said.slice(1) : undefined;
}

interface Props {
  rubric: Rubric;
  /** What was judged; none before. */
  levels?: Judged;
  /** How the student judged themselves, and what that is called here. */
  own?: Judged;
  ownIs?: string;
}

export function RubricTable({ rubric, levels, own, ownIs = RUBRIC.mine }: Props) {
  const weighted = new Set(rubric.criteria.map((one) => one.weight)).size > 1;
  return (
    <ul className="flex flex-col gap-3">
      {rubric.criteria.map((one) => (
        <li key={one.key}>
          <h3 className="text-base font-bold break-words">
            {one.title}
            {weighted && <span className="font-normal text-quiet"> · {RUBRIC.weightIs({ weight: one.weight })}</span>}
          </h3>
          {levels && <p className="text-ink-soft">{reached(rubric, levels[one.key])}</p>}
          <ol className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(8.5rem,1fr))] gap-2">
            {rubric.levels.map((level, at) => (
              <Reached key={level.key} level={level} says={one.says[at] ?? ""} lit={levels?.[one.key]?.includes(level.key) ?? false} ownIs={own?.[one.key]?.includes(level.key) ? ownIs : null} />
            ))}
          </ol>
        </li>
      ))}
    </ul>
  );
}

/** A level; it stands out where the work reached it. */
function Reached({ level, says, lit, ownIs }: { level: Rubric["levels"][number]; says: string; lit: boolean; ownIs: string | null }) {
  return (
    <li className={`min-w-0 rounded-md border p-2 break-words ${lit ? "border-2 border-in bg-in-soft" : "border-edge bg-paper"}`}>
      <p className="flex flex-wrap items-center gap-x-1.5 font-semibold">
        {lit && <Check aria-hidden size={15} className="shrink-0 text-in" />}
        {level.title}
        <span className="figures font-normal text-quiet">{pointsOf(level)}</span>
        {lit && <span className="sr-only">{RUBRIC.lit}</span>}
        {ownIs && <OwnTag is={ownIs} />}
      </p>
      {says && <p className="text-sm">{says}</p>}
    </li>
  );
}

/** Marks the level that a student chose for themselves. */
export function OwnTag({ is }: { is: string }) {
  return <span className="rounded-sm border border-edge bg-paper px-1 text-xs font-normal text-ink">{is}</span>;
}

/** What a criterion reached, in words. */
function reached({ levels }: Rubric, chosen: string[] | undefined): string {
  if (chosen === undefined) return RUBRIC.open;
  const [one, other] = levels.filter((level) => chosen.includes(level.key)).map((level) => level.title);
  if (one === undefined) return RUBRIC.notJudged;
  const exact = exactIn(chosen);
  if (exact !== undefined) return RUBRIC.exactly({ one, points: Number(exact) });
  return other === undefined ? one : RUBRIC.between({ one, other });
}

interface DetailsProps extends Omit<Props, "rubric"> {
  /** None: nothing is judged by one. */
  rubric: Rubric | null | undefined;
  open?: boolean;
  className?: string;
}

/** The same where it can be put away. */
export function RubricDetails({ rubric, levels, own, ownIs, open = false, className = "" }: DetailsProps) {
  if (!rubric) return null;
  return (
    <details open={open || undefined} className={`rounded-lg border border-edge bg-paper p-3 text-ink ${className}`}>
      <summary className="min-h-8 cursor-pointer text-base font-bold">{RUBRIC.title}</summary>
      <div className="mt-2">
        <RubricTable rubric={rubric} levels={levels} own={own} ownIs={ownIs} />
      </div>
    </details>
  );
}
