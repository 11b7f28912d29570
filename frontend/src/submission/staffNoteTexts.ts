/** The words of notes that staff keep for themselves. */
import { catalogue, message } from "../language/catalogue";

export const NOTES = catalogue("submission.staffNotes", {
  title: "Staff notes",
  hint: "Only staff see these.",
  write: "Note something",
  field: "Note for the staff",
  keep: "Keep it",
  cancel: "Cancel",
  takeAway: "Take back",
  takeAwayNamed: message<{ text: string }>("Take back: {text}"),
  gone: "Taken back.",
  whoAt: message<{ who: string; at: string }>("{who}, {at}"),
});
