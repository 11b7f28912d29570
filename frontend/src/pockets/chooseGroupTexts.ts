/** The words of choosing one's group. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("pockets.chooseGroup", {
  title: message<{ set: string }>("Choose your group: {set}"),
  hint: message<{ day: string; most: number }>("At most {most, number} in a group. You can change until {day}."),
  places: message<{ count: number }>("{count, plural, =0 {full} one {# place left} other {# places left}}"),
  you: "You are in this group",
  join: message<{ name: string }>("Join {name}"),
  leave: message<{ name: string }>("Leave {name}"),
  nobody: "Nobody yet",
  done: "Done",
});
