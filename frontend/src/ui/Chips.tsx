/** What a pocket wants, as small chips that fill. */
import { Check, CircleDashed } from "lucide-react";
import type { Schema } from "../api/client";
import { TEXTS } from "./texts";

type Chip = Schema["ChipShape"];

/** An asked length in words: ``2–3 sentences``. */
export function lengthWords(chip: { measure: string; least: number; most: number | null }): string {
  if (!chip.measure) return "";
  if (chip.most === null) return TEXTS.atLeastLeastMeasure({ least: chip.least, measure: chip.measure });
  return chip.least === chip.most ? `${chip.least} ${chip.measure}` : `${chip.least}–${chip.most} ${chip.measure}`;
}

/** One chip in words. */
// eslint-disable-next-line complexity -- one sentence for each thing that may be wanted
export function chipWords(chip: Chip): string {
  const length = lengthWords(chip);
  if (chip.what === "artefacts" || chip.what === "links") {
    const word = chip.wanted === 1 ? chip.what.slice(0, -1) : chip.what;
    return TEXTS.doneOfWantedWord({ done: chip.done, wanted: chip.wanted, word });
  }
  if (chip.what === "rows") return TEXTS.doneOfRows({ done: chip.done, wanted: chip.wanted });
  if (chip.what === "weekly") return TEXTS.doneOfRowsWeekBy({ done: chip.done, wanted: chip.wanted });
  const on = chip.what === "page" ? TEXTS.yourText : chip.on ? TEXTS.reflectionOnOn({ on: chip.on }) : "reflection";
  if (chip.met || !length) return on;
  const unit = chip.measure === "sentences" ? "sentence" : "word";
  const so = chip.count > 0 ? TEXTS.countUnitSOfLength({ count: chip.count, unit, length: length.replace(/ .*$/, "") }) : ` · ${length}`;
  return on + (length.startsWith("at least") && chip.count > 0 ? TEXTS.countOfLeastMeasure({ count: chip.count, least: chip.least, measure: chip.measure }) : so);
}

export function Chips({ chips }: { chips: Chip[] }) {
  if (chips.length === 0) return null;
  return (
    <ul aria-label={TEXTS.stillWanted} className="flex flex-wrap gap-2">
      {chips.map((chip, place) => (
        <li
          // Chips have no identity of their own; their order is their place.
          key={place}
          className={`flex max-w-full items-center gap-2 rounded-md px-3 py-1.5 ${
            chip.met ? "bg-accepted-soft text-accepted" : "border border-dashed border-copper bg-paper text-copper"
          }`}
        >
          {chip.met ? <Check aria-hidden size={16} className="shrink-0" /> : <CircleDashed aria-hidden size={16} className="shrink-0" />}
          <span className="min-w-0 break-words">
            {chipWords(chip)}
            <span className="sr-only">{chip.met ? TEXTS.done : TEXTS.stillWanted2}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The same, plain and small, for staff. */
export function ChipList({ chips }: { chips: Chip[] }) {
  return (
    <ul className="flex flex-col gap-0.5">
      {chips.map((chip, place) => (
        <li key={place} className={`flex gap-2 ${chip.met ? "" : "text-copper"}`}>
          {chip.met ? (
            <Check aria-hidden size={16} className="mt-0.5 shrink-0 text-accepted" />
          ) : (
            <CircleDashed aria-hidden size={16} className="mt-0.5 shrink-0" />
          )}
          <span className="min-w-0 break-words">
            {chipWords(chip)}
            <span className="sr-only">{chip.met ? TEXTS.done : TEXTS.missing}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
