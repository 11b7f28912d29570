/** The words of the phrases. */
import { catalogue, message } from "../language/catalogue";

export const PHRASES = catalogue("pile.phrases", {
  title: "Phrases",
  hint: "Type ; and a few letters to find one of your phrases.",
  found: "Phrases that fit",
  offered: message<{ count: number }>("{count, plural, =0 {No phrase fits.} one {# phrase fits.} other {# phrases fit.}}"),
  missingIn: message<{ pocket: string; what: string }>("{pocket}: {what}"),
  nothingMissing: "nothing",
  whatIsMissing: "what is missing",
  add: "New phrase",
  places: message<{ name: string; missing: string; handin: string }>("{name}, {missing} and {handin} stand for the student’s given name, what is missing and the hand-in."),
  share: "Staff of this class find it too",
  keep: "Keep it",
  none: "No phrases yet. What you say often, you write once, and find by a few letters from then on.",
  own: "Mine, in all my classes",
  shared: "Of co-staff, for this class",
  said: message<{ count: number; handin: string }>("{count, plural, =0 {} one {said to # student in {handin}} other {said to # students in {handin}}}"),
  sharedMark: "shared here",
  by: message<{ name: string }>("by {name}"),
  change: message<{ text: string }>("Change “{text}”"),
  drop: message<{ text: string }>("Drop “{text}”"),
  words: "Words of the phrase",
  save: "Save",
  cancel: "Cancel",
  dropped: "Phrase dropped.",
  back: "The phrase is back.",
});
