/** What a class that has just begun still wants. */
import { catalogue } from "../language/catalogue";

export const STEPS = catalogue("pegs.steps", {
  title: "To begin with",
  list: "Bring in the class list",
  template: "Lay out the portfolio",
  handin: "Set the first hand-in",
  staff: "Add colleagues",
  done: "(done)",
});
