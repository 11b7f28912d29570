/** The words of looking in over a class. */
import { catalogue, message } from "../language/catalogue";
export const LOOKING = catalogue("looking.looking", {
  title: "Look in",
  pocket: "Pocket",
  begun: "have begun",
  full: "have everything",
  order: "Order",
  byName: "by name",
  byWork: "newest work first",
  empty: "Nothing yet",
  noPocket: "There is no pocket in this class yet",
  noPocketHint: "Lay one out in the template, and everybody's shows here.",
  noStudent: "There is nobody in this class yet.",
});

export const TEXTS = catalogue("looking", {
  begunOfCountBegunFull: message<{ begun: number; count: number; begun2: string; full: number; full2: string }>("{begun} of {count} {begun2}, {full} {full2}"),
  metOfWanted: message<{ met: number; wanted: number }>("{met} of {wanted}"),
});
