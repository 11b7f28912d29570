/** The levels of a rubric to choose from while marking: by the mouse, by arrows, or by the digits, one criterion after the other. */
import { useEffect, useId, useRef } from "react";
import type { Schema } from "../api/client";
import { isTyped, useLetterKeys } from "../ui/keys";
import type { Judged } from "../submission/RubricTable";
import { LEVELS } from "./levelTexts";

type Rubric = Schema["RubricShape"];

interface Props {
  rubric: Rubric;
  levels: Judged;
  /** The score that they make, as the server has worked it out; null while a criterion is open. */
  score: number | null;
  points: number | null;
  onChange: (levels: Judged) => void;
}

interface Choice {
  keys: string[];
  title: string;
  points: number | null;
  says: string;
  /** The digit that chooses it; none of what lies between. */
  digit?: string;
}

export function RubricLevels({ rubric, levels, score, points, onChange }: Props) {
  const open = rubric.criteria.filter((one) => !(one.key in levels)).length;
  const section = useRef<HTMLElement>(null);
  const letters = useLetterKeys();
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const parts = [...(section.current?.querySelectorAll("fieldset") ?? [])];
      const at = parts.findIndex((one) => one.contains(event.target as Node | null));
      // A digit is for the criterion that has the focus; where nothing is typed, for the first that is open.
      const first = letters && !isTyped(event) ? rubric.criteria.find((one) => !(one.key in levels)) : undefined;
      const one = rubric.criteria[at] ?? first;
      const found = one && pressed(event, rubric, one.says);
      if (!found) return;
      event.preventDefault();
      onChange({ ...levels, [one.key]: found.keys });
      if (at >= 0) into(parts[at + 1]);
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters, levels, onChange, rubric]);
  return (
    <section ref={section} aria-label={LEVELS.title} className="flex flex-col gap-3">
      <p className="flex flex-wrap items-baseline justify-between gap-2">
        <span className="font-bold">{LEVELS.title}</span>
        <span role="status" className="figures text-quiet">
          {open > 0 ? LEVELS.open({ count: open }) : points !== null && score !== null ? LEVELS.score({ score, points }) : ""}
        </span>
      </p>
      <p className="text-sm text-quiet">{LEVELS.hint}</p>
      {rubric.criteria.map((one) => (
        <Criterion key={one.key} rubric={rubric} of={one} chosen={levels[one.key]} onChoose={(keys) => onChange({ ...levels, [one.key]: keys })} />
      ))}
    </section>
  );
}

/** What a digit chooses. */
function pressed(event: KeyboardEvent, rubric: Rubric, says: string[]): Choice | undefined {
  if (event.ctrlKey || event.altKey || event.metaKey) return undefined;
  return choicesOf(rubric, says).find((choice) => choice.digit === event.key);
}

/** Put the keyboard on what is chosen in a criterion, or on its first level. */
function into(criterion: Element | undefined): void {
  (criterion?.querySelector<HTMLInputElement>("input:checked") ?? criterion?.querySelector("input"))?.focus();
}

/** What a criterion can be: each level, what lies between where that is allowed, or not judged. */
function choicesOf({ levels, halves }: Rubric, says: string[]): Choice[] {
  const all = levels.flatMap((level, at): Choice[] => {
    const own = { keys: [level.key], title: level.title, points: level.points, says: says[at] ?? "", digit: String(at + 1) };
    const next = levels[at + 1];
    if (!halves || !next) return [own];
    return [own, { keys: [level.key, next.key], title: LEVELS.between({ one: level.title, other: next.title }), points: (level.points + next.points) / 2, says: "" }];
  });
  return [...all, { keys: [], title: LEVELS.notJudged, points: null, says: "", digit: "0" }];
}

function Criterion({ rubric, of, chosen, onChoose }: { rubric: Rubric; of: Rubric["criteria"][number]; chosen: string[] | undefined; onChoose: (keys: string[]) => void }) {
  const name = useId();
  const choices = choicesOf(rubric, of.says);
  const is = ({ keys }: Choice) => chosen !== undefined && keys.length === chosen.length && keys.every((one) => chosen.includes(one));
  return (
    <fieldset className="rounded-lg border border-edge p-2">
      <legend className="px-1 font-semibold break-words">{of.title}</legend>
      {choices.map((one) => (
        <label key={one.keys.join("/")} className={`flex items-start gap-2 rounded-md px-1.5 py-1 ${is(one) ? "bg-in-soft" : ""}`}>
          <input type="radio" name={name} className="mt-0.5 size-4 shrink-0 accent-in" checked={is(one)} onChange={() => onChoose(one.keys)} />
          <span className="min-w-0 flex-1 break-words">
            <span className="flex items-baseline justify-between gap-2">
              <span className={is(one) ? "font-semibold text-in" : ""}>
                {one.digit && (
                  <kbd aria-hidden className="figures mr-1.5 inline-block min-w-5 rounded-sm border border-edge px-1 text-center font-sans text-xs font-normal text-quiet">
                    {one.digit}
                  </kbd>
                )}
                {one.title}
              </span>
              {one.points !== null && <span className="figures shrink-0 text-sm text-quiet">{LEVELS.points({ points: one.points })}</span>}
            </span>
            {one.says && <span className="block text-sm text-ink-soft">{one.says}</span>}
          </span>
        </label>
      ))}
    </fieldset>
  );
}
