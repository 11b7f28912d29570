/** The words of a rubric where it is read. */
import { catalogue, message } from "../language/catalogue";

export const RUBRIC = catalogue("submission.rubric", {
  title: "Rubric: what it is judged by",
  weightIs: message<{ weight: number }>("weight {weight, number}"),
  lit: "reached",
  notJudged: "not judged",
  open: "not judged yet",
  mine: "your own",
  theirs: message<{ name: string }>("{name}’s own"),
  judgeYourself: "How far is it, by your own eye?",
  judgeHint: "You may leave it open. Your teacher sees it beside what they find.",
  judgedSoFar: message<{ done: number; count: number }>("{done, number} of {count, number}"),
  number: message<{ of: number }>("{of, number}"),
  range: message<{ low: number; points: number }>("{low, number}–{points, number}"),
  exactly: message<{ one: string; points: number }>("{one}: {points, plural, one {# point} other {# points}}"),
  between: message<{ one: string; other: string }>("between {one} and {other}"),
});
