/** The words of a note to the class. */
import { catalogue, message } from "../language/catalogue";

export const CLASS_NOTE = catalogue("pile.classNote", {
  open: "A note to the class …",
  title: message<{ handin: string }>("A note to the class on {handin}"),
  hint: "Everybody of whom this is asked reads it with their feedback, and is told on the bell. It begins with what you said to several students; it names nobody.",
  words: "What all of them should hear",
  begin: "Many of you heard this from me:",
  tell: "Tell the class",
  cancel: "Cancel",
  told: "The class is told.",
  before: "Told before",
  takeBack: message<{ text: string }>("Take back “{text}”"),
  takenBack: "The note is taken back.",
  isBack: "The note is there again.",
  byAt: message<{ who: string; at: string }>("{who}, {at}"),
});
