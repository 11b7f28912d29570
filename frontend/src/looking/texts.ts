/** The words of looking in over a class. */
import { catalogue, message } from "../language/catalogue";

export const LOOKING = catalogue("looking.looking", {
  title: "Look in",
  pocket: "Pocket",
  order: "Order",
  byName: "by name",
  byWork: "newest work first",
  empty: "Nothing yet",
  noPocket: "There is no pocket in this class yet",
  noPocketHint: "Lay one out in the template, and everybody's shows here.",
  noStudent: "There is nobody in this class yet.",
});

export const TEXTS = catalogue("looking", {
  begunOfAll: message<{ begun: number; count: number; full: number }>("{begun, number} of {count, number} have begun, {full, number} have everything"),
  metOfWanted: message<{ met: number; wanted: number }>("{met, number} of {wanted, number}"),
});
