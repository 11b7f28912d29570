/** What a pocket wants, as small chips that fill. */
import { Check, CircleDashed } from "lucide-react";
import type { Schema } from "../api/client";
import { WANTED } from "./chipTexts";
import { COUNTED, TEXTS } from "./texts";

type Chip = Schema["ChipShape"];

/** An asked length in words: ``2–3 sentences``. */
export function lengthWords(chip: { measure: string; least: number; most: number | null }): string {
  if (!chip.measure) return "";
  const { least, most } = chip;
  const sentences = chip.measure === "sentences";
  if (most === null) return sentences ? WANTED.sentencesAtLeast({ least }) : WANTED.wordsAtLeast({ least });
  if (least === most) return sentences ? COUNTED.sentences({ count: least }) : COUNTED.words({ count: least });
  return sentences ? WANTED.sentencesFromTo({ least, most }) : WANTED.wordsFromTo({ least, most });
}

/** One chip in a student's words. */
export function plainWords(chip: Chip, page?: string): string {
  return chip.what === "artefacts" ? WANTED.things({ done: chip.done, wanted: chip.wanted }) : chipWords(chip, page);
}

/** One chip in words; ``page`` is what the text of a page is called. */
// eslint-disable-next-line complexity -- one line for each kind of chip
export function chipWords(chip: Chip, page: string = TEXTS.yourText): string {
  const length = lengthWords(chip);
  if (chip.what === "artefacts") return WANTED.artefacts({ done: chip.done, wanted: chip.wanted });
  if (chip.what === "links") return WANTED.links({ done: chip.done, wanted: chip.wanted });
  if (chip.what === "rows") return TEXTS.doneOfRows({ done: chip.done, wanted: chip.wanted });
  if (chip.what === "weekly") return TEXTS.doneOfRowsWeekBy({ done: chip.done, wanted: chip.wanted });
  const on = chip.what === "page" ? page : chip.on ? TEXTS.reflectionOnOn({ on: chip.on }) : WANTED.reflection;
  if (chip.met || !length) return on;
  return chip.count === 0 ? WANTED.withLength({ what: on, length }) : soFar(chip, on);
}

/** How much of an asked length is there: ``your text · 1 sentence of 2–3``. */
function soFar(chip: Chip, what: string): string {
  const { count, least, most } = chip;
  const sentences = chip.measure === "sentences";
  if (most === null) return sentences ? WANTED.countOfSentences({ what, count, least }) : WANTED.countOfWords({ what, count, least });
  const length = least === most ? String(least) : `${least}–${most}`;
  return sentences ? WANTED.sentencesOf({ what, count, length }) : WANTED.wordsOf({ what, count, length });
}

/** In a student's words, as they stand over a pocket. */
export function Chips({ chips, page }: { chips: Chip[]; page?: string | undefined }) {
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
            {plainWords(chip, page)}
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
