/** The words of a rubric where it is read. */
import { catalogue, message } from "../language/catalogue";

export const RUBRIC = catalogue("submission.rubric", {
  title: "Rubric: what it is judged by",
  weightIs: message<{ weight: number }>("weight {weight, number}"),
  lit: "reached",
  notJudged: "not judged",
  open: "not judged yet",
  between: message<{ one: string; other: string }>("between {one} and {other}"),
});
