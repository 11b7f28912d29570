/** The words of having read what came back. */
import { catalogue, message } from "../language/catalogue";

export const READ = catalogue("submission.read", {
  say: "I have read this",
  mine: message<{ at: string }>("You have read this ({at})."),
  theirs: message<{ name: string; at: string }>("{name} has read this ({at})."),
  notYet: message<{ name: string }>("{name} has not said yet that this is read."),
});
