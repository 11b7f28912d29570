/** A rubric to be read: each criterion with its levels; after release the one that the work reached stands out. */
import { Check } from "lucide-react";
import type { Schema } from "../api/client";
import { RUBRIC } from "./rubricTexts";

type Rubric = Schema["RubricShape"];
/** By criterion: the level, the two that it lies between, or nothing where it is not judged. */
export type Judged = Record<string, string[]>;

interface Props {
  rubric: Rubric;
  /** What was judged; none before. */
  levels?: Judged;
}

export function RubricTable({ rubric, levels }: Props) {
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
            {rubric.levels.map((level, at) => {
              const lit = levels?.[one.key]?.includes(level.key) ?? false;
              return (
                <li key={level.key} className={`min-w-0 rounded-md border p-2 break-words ${lit ? "border-2 border-in bg-in-soft" : "border-edge bg-paper"}`}>
                  <p className="flex flex-wrap items-center gap-x-1.5 font-semibold">
                    {lit && <Check aria-hidden size={15} className="shrink-0 text-in" />}
                    {level.title}
                    <span className="figures font-normal text-quiet">{level.points}</span>
                    {lit && <span className="sr-only">{RUBRIC.lit}</span>}
                  </p>
                  {one.says[at] && <p className="text-sm">{one.says[at]}</p>}
                </li>
              );
            })}
          </ol>
        </li>
      ))}
    </ul>
  );
}

/** What a criterion reached, in words. */
function reached({ levels }: Rubric, chosen: string[] | undefined): string {
  if (chosen === undefined) return RUBRIC.open;
  const [one, other] = levels.filter((level) => chosen.includes(level.key)).map((level) => level.title);
  if (one === undefined) return RUBRIC.notJudged;
  return other === undefined ? one : RUBRIC.between({ one, other });
}

interface DetailsProps extends Omit<Props, "rubric"> {
  /** None: nothing is judged by one. */
  rubric: Rubric | null | undefined;
  open?: boolean;
  className?: string;
}

/** The same where it can be put away. */
export function RubricDetails({ rubric, levels, open = false, className = "" }: DetailsProps) {
  if (!rubric) return null;
  return (
    <details open={open || undefined} className={`rounded-lg border border-edge bg-paper p-3 text-ink ${className}`}>
      <summary className="min-h-8 cursor-pointer text-base font-bold">{RUBRIC.title}</summary>
      <div className="mt-2">
        <RubricTable rubric={rubric} levels={levels} />
      </div>
    </details>
  );
}
