/** The words of the line over the pockets that says that a group is chosen. */
import { catalogue, message } from "../language/catalogue";

export const CHOICE = catalogue("pockets.choice", {
  choose: "Choose your group",
  inGroup: message<{ name: string }>("Your group: {name}"),
  until: message<{ set: string; day: string }>("{set}, until {day}"),
});
