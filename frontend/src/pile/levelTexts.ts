/** The words of a rubric where work is judged by it. */
import { catalogue, message } from "../language/catalogue";

export const LEVELS = catalogue("pile.levels", {
  title: "Rubric",
  hint: "Press a digit for the level of one criterion after the other; 0: not judged.",
  points: message<{ points: number }>("{points, plural, one {# point} other {# points}}"),
  range: message<{ low: number; points: number }>("{low, number}–{points, number} points"),
  exact: message<{ low: number; points: number }>("Points ({low, number} to {points, number})"),
  open: message<{ count: number }>("{count, plural, one {# criterion} other {# criteria}} open"),
  score: message<{ score: number; points: number }>("{score, number} of {points, number}"),
  between: message<{ one: string; other: string }>("between {one} and {other}"),
  notJudged: "not judged",
});
