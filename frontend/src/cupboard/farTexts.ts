/** How far those have come who were given something: said on the rail too, which needs no more of the cupboard. */
import { catalogue, message } from "../language/catalogue";

/** In this order. */
export const FAR = ["not_opened", "opened", "begun", "handed_in", "taken_out"] as const;

export const GIVEN = catalogue("cupboard.given", {
  progress: { taken_out: "taken out", not_opened: "not opened", opened: "opened", begun: "begun", handed_in: "handed in" },
  count: message<{ what: string; count: number }>("{count, number} {what}"),
  onRail: message<{ title: string; far: string }>("{title}, given out: {far}"),
  toCome: "to come",
  all: message<{ count: number }>("{count, plural, one {# given out} other {# given out}} this week"),
  more: message<{ count: number }>("{count, plural, one {# more given out} other {# more given out}} this week"),
});
