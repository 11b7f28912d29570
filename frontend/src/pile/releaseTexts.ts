/** The words of accepting all that is drafted. */
import { catalogue, message } from "../language/catalogue";

export const RELEASE = catalogue("pile.release", {
  open: "Accept all I have drafted …",
  title: message<{ title: string }>("Accept all drafted: {title}"),
  means: message<{ count: number }>("{count, plural, =0 {No draft of yours for it is complete.} one {# draft of yours is complete: it is accepted, and its student sees it at once.} other {# drafts of yours are complete: they are accepted, and their students see them at the same moment.}}"),
  incomplete: message<{ count: number; names: string }>("{count, plural, one {# is} other {# are}} not complete and stays on the pile: {names}"),
  accept: message<{ count: number }>("Accept {count, number}"),
  cancel: "Cancel",
  done: message<{ count: number; title: string }>("{title}: {count, plural, one {# accepted} other {# accepted}}."),
  undone: "They wait again, with their drafts.",
});
