/** The words of laying something beside the work. */
import { catalogue, message } from "../language/catalogue";

export const BESIDE = catalogue("pile.beside", {
  open: "Lay beside",
  nothing: "Nothing beside it",
  submission: message<{ number: number }>("Submission {number, number}"),
  given: "What they began with",
  ofStudent: message<{ name: string; number: number }>("{name}, submission {number, number}"),
});
