/** The words of giving pictures and files with something. */
import { catalogue, message } from "../language/catalogue";

export const FIELD = catalogue("viewer.giving", {
  takeAway: message<{ title: string }>("Take away {title}"),
  choose: message<{ title: string }>("{title}: choose a file"),
  onItsWay: "On its way …",
  add: "Add a picture or file",
});
