/** Phrases in the feedback: found by what is typed behind a semicolon, with the student's own filled in. */
import type { Schema } from "../api/client";
import { chipWords } from "../ui/Chips";
import { folded } from "../ui/people/find";
import { PHRASES } from "./phraseTexts";

export type Phrase = Schema["PhraseShape"];

/** What stands for the student's own, as the server knows them (``core.marking.phrases``). */
export const PLACES = { name: "{name}", missing: "{missing}", handin: "{handin}" };

/** At most so many are offered: what was said most often comes first. */
const OFFERED = 6;

interface Asked {
  /** Where the semicolon stands. */
  from: number;
  letters: string;
}

/** What is asked for before the caret: a semicolon at the beginning of a word, and letters; null where nothing is. */
export function askedBefore(text: string, caret: number): Asked | null {
  const letters = /(?:^|\s);([^\s;]*)$/u.exec(text.slice(0, caret))?.[1];
  return letters === undefined ? null : { from: caret - letters.length - 1, letters };
}

/** The phrases with a word that begins with these letters; of none typed yet, all. */
export function fitting(phrases: Phrase[], letters: string): Phrase[] {
  const begins = folded(letters);
  const words = (one: Phrase) => folded(one.text).split(/[^\p{L}\p{N}]+/u);
  return phrases.filter((one) => begins === "" || words(one).some((word) => word.startsWith(begins))).slice(0, OFFERED);
}

/** A phrase as it is said of this submission. */
export function filledIn(text: string, desk: Pick<Schema["Desk"], "student" | "handin" | "pockets">): string {
  const missing = desk.pockets.flatMap((pocket) => {
    const open = [...new Set(pocket.chips.filter((chip) => !chip.met).map((chip) => chipWords(chip)))];
    if (open.length === 0) return [];
    return desk.pockets.length > 1 ? [PHRASES.missingIn({ pocket: pocket.title, what: open.join(", ") })] : [open.join(", ")];
  });
  const said = { name: desk.student.given_name, missing: missing.join("; ") || PHRASES.nothingMissing, handin: desk.handin.title };
  return text.replace(/\{(name|missing|handin)\}/g, (_, place: keyof typeof said) => said[place]);
}

/** A phrase as it is said to all: of nobody alone. */
export function forAll(text: string, handin: string): string {
  const said = { missing: PHRASES.whatIsMissing, handin };
  const unnamed = text.replace(/(^|[.!?]\s+)\{name\}\s*[,:–—-]?\s*/g, "$1").replace(/\s*,?\s*\{name\}/g, "");
  const filled = unnamed.replace(/\{(missing|handin)\}/g, (_, place: "missing" | "handin") => said[place]);
  return filled.replace(/(^|[.!?]\s+)(\p{Ll})/gu, (_, before: string, first: string) => before + first.toUpperCase());
}

/** What was said of one student as a phrase for all: their name becomes a place. */
export function asPhrase(text: string, givenName: string): string {
  return givenName ? text.trim().split(givenName).join(PLACES.name) : text.trim();
}
