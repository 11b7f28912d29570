/** The levels of a rubric to choose from while marking: by the mouse, by arrows, or by the digits, one criterion after the other. */
import { useId, useLayoutEffect, useRef, useState } from "react";
import type { Schema } from "../api/client";
import { isTyped, useLetterKeys } from "../ui/keys";
import { exactIn, OwnTag } from "../submission/RubricTable";
import type { Judged } from "../submission/RubricTable";
import { LEVELS } from "./levelTexts";

type Rubric = Schema["RubricShape"];

interface Props {
  rubric: Rubric;
  levels: Judged;
  /** How the student judged themselves, and what that is called. */
  own?: Judged;
  ownIs?: string;
  /** The score that they make, as the server has worked it out; null while a criterion is open. */
  score: number | null;
  points: number | null;
  onChange: (levels: Judged) => void;
}

interface Choice {
  keys: string[];
  title: string;
  points: number | null;
  /** The fewest points of a level that is a range. */
  low?: number | null;
  says: string;
  /** The digit that chooses it; none of what lies between. */
  digit?: string;
}

export function RubricLevels({ rubric, levels, own, ownIs, score, points, onChange }: Props) {
  const open = rubric.criteria.filter((one) => !(one.key in levels)).length;
  const section = useRef<HTMLElement>(null);
  const letters = useLetterKeys();
  useLayoutEffect(() => {
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
        <Criterion key={one.key} rubric={rubric} of={one} chosen={levels[one.key]} own={own?.[one.key]} ownIs={ownIs} onChoose={(keys) => onChange({ ...levels, [one.key]: keys })} />
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
    const own = { keys: [level.key], title: level.title, points: level.points, low: level.low, says: says[at] ?? "", digit: String(at + 1) };
    const next = levels[at + 1];
    if (!halves || !next) return [own];
    return [own, { keys: [level.key, next.key], title: LEVELS.between({ one: level.title, other: next.title }), points: (level.points + next.points) / 2, says: "" }];
  });
  return [...all, { keys: [], title: LEVELS.notJudged, points: null, says: "", digit: "0" }];
}

interface CriterionProps {
  rubric: Rubric;
  of: Rubric["criteria"][number];
  chosen: string[] | undefined;
  own: string[] | undefined;
  ownIs: string | undefined;
  onChoose: (keys: string[]) => void;
}

function Criterion({ rubric, of, chosen, own, ownIs, onChoose }: CriterionProps) {
  const name = useId();
  const choices = choicesOf(rubric, of.says);
  const is = (one: Choice) => chosen !== undefined && isOf(chosen, one);
  return (
    <fieldset className="rounded-lg border border-edge p-2">
      <legend className="px-1 font-semibold break-words">{of.title}</legend>
      {choices.map((one) => (
        <Option key={one.keys.join("/")} name={name} of={one} on={is(one)} said={exactIn(chosen)} ownIs={ownIs && own && isOf(own, one) ? ownIs : null} onChoose={onChoose} />
      ))}
    </fieldset>
  );
}

/** Whether a judgement is this choice, whichever points of its range were said. */
function isOf(judged: string[], { keys }: Choice): boolean {
  const levels = judged.filter((one) => !one.startsWith("="));
  return keys.length === levels.length && keys.every((one) => levels.includes(one));
}

interface OptionProps {
  name: string;
  of: Choice;
  on: boolean;
  /** The points that are said of it, where it is a range. */
  said: string | undefined;
  /** What it is called where the student chose it for themselves. */
  ownIs: string | null;
  onChoose: (keys: string[]) => void;
}

function Option({ name, of, on, said, ownIs, onChoose }: OptionProps) {
  const isRange = typeof of.low === "number";
  return (
    <div className={`rounded-md px-1.5 py-1 ${on ? "bg-in-soft" : ""}`}>
      <label className="flex items-start gap-2">
        <input type="radio" name={name} className="mt-0.5 size-4 shrink-0 accent-in" checked={on} onChange={() => onChoose(of.keys)} />
        <span className="min-w-0 flex-1 break-words">
          <span className="flex items-baseline justify-between gap-2">
            <span className={on ? "font-semibold text-in" : ""}>
              <Digit of={of.digit} />
              {of.title} {ownIs && <OwnTag is={ownIs} />}
            </span>
            {of.points !== null && <span className="figures shrink-0 text-sm text-quiet">{pointsIn(of)}</span>}
          </span>
          {of.says && <span className="block text-sm text-ink-soft">{of.says}</span>}
        </span>
      </label>
      {on && isRange && <Exact low={of.low ?? 0} points={of.points ?? 0} said={said} onSay={(exact) => onChoose(exact === null ? of.keys : [...of.keys, `=${exact}`])} />}
    </div>
  );
}

function Digit({ of }: { of: string | undefined }) {
  if (!of) return null;
  return (
    <kbd aria-hidden className="figures mr-1.5 inline-block min-w-5 rounded-sm border border-edge px-1 text-center font-sans text-xs font-normal text-quiet">
      {of}
    </kbd>
  );
}

function pointsIn({ points, low }: Choice): string {
  return typeof low === "number" ? LEVELS.range({ low, points: points ?? 0 }) : LEVELS.points({ points: points ?? 0 });
}

/** Which points of a range: what does not lie in it yet is not taken, and stays to be seen. */
function Exact({ low, points, said, onSay }: { low: number; points: number; said: string | undefined; onSay: (exact: string | null) => void }) {
  const [typed, setTyped] = useState(said ?? "");
  const say = (next: string) => {
    setTyped(next);
    const plain = next.trim().replace(",", ".");
    const fits = /^\d{1,4}(\.\d{1,2})?$/.test(plain) && Number(plain) >= low && Number(plain) <= points;
    if (fits || plain === "") onSay(plain || null);
  };
  const off = typed.trim() !== "" && typed.trim().replace(",", ".") !== said;
  return (
    <label className="mt-1 flex flex-wrap items-center gap-2 pl-6 text-sm">
      {LEVELS.exact({ low, points })}
      <input value={typed} inputMode="decimal" autoComplete="off" aria-invalid={off || undefined} className={`figures min-h-8 w-16 rounded-md border bg-paper px-2 text-right ${off ? "border-overdue" : "border-control"}`} onChange={(event) => say(event.target.value)} />
    </label>
  );
}
