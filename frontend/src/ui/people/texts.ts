/** How names are written. */
import { catalogue, message } from "../../language/catalogue";

export const WRITTEN = catalogue("people.written", {
  familyFirst: "Family name first",
  familyFirstHint: "as in Nguyễn Thị Minh Khai",
  familyFirstIn: message<{ name: string }>("{name}: family name first"),
  order: "order of the name:",
  from: message<{ name: string }>("from {name}"),
});
