/** The words of a mark while it is typed. */
import { catalogue, message } from "../language/catalogue";

export const MARK = catalogue("submission.mark", {
  typedIsNotANumber: message<{ typed: string }>("“{typed}” is not a number."),
  giveToPoints: message<{ points: number }>("Give 0 to {points, number}."),
});
