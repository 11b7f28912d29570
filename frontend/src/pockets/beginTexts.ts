/** The words of beginning a page with classmates. */
import { catalogue, message } from "../language/catalogue";

export const BEGIN = catalogue("pockets.begin", {
  title: "A page with others",
  name: "What it is called",
  whom: "Who fills it with you",
  find: "Find a classmate",
  chosen: message<{ count: number }>("{count, plural, =0 {Nobody is chosen yet} one {# is chosen} other {# are chosen}}"),
  hint: "All of you write on it at the same time. Your teacher sees it too.",
  begin: "Begin it",
});
