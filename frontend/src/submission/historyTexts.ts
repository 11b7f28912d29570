/** The words of a hand-in's whole history. */
import { catalogue, message } from "../language/catalogue";
import type { Schema } from "../api/client";

type What = Schema["HistoryEntry"]["what"];

export const HISTORY = catalogue("submission.history", {
  open: "History",
  title: message<{ title: string }>("All that happened: {title}"),
  hint: "From the record, in order. Nothing in it can be changed.",
  none: "Nothing has happened yet.",
  line: message<{ what: string; number: number }>("{what}{number, plural, =0 {} other { (submission {number, number})}}"),
  score: message<{ score: number; points: number }>("{score, number} of {points, number} points"),
});

/** What happened, by the verb of the record. */
export const HAPPENED: Record<What, string> = catalogue("submission.happened", {
  handed_in: "handed in",
  taken_back: "taken back",
  accepted: "accepted",
  sent_back: "sent back",
  reopened: "reopened",
  excused: "excused",
  unexcused: "no longer excused",
  mark_released: "mark released",
  feedback_read: "feedback read",
  annotations_shown: "more comments shown",
  annotation_removed: "a comment taken back",
  annotation_restored: "a comment fetched back",
  annotation_ticked: "a comment ticked off, or not any more",
  answered: "a comment answered",
  answer_removed: "an answer taken back",
  answer_restored: "an answer fetched back",
  thread_settled: "a comment settled",
  thread_reopened: "a comment taken up again",
  wording_chosen: "a suggested wording taken or left",
  own_due_set: "a date of the student’s own set",
  mark_done: "one of two independent marks done, or taken up again",
  reminded: "reminded",
  handin_set: "hand-in set",
  handin_changed: "hand-in changed",
  handin_closed: "hand-in closed",
  handin_came_due: "hand-in came due",
  handin_taken_away: "hand-in taken away",
  handin_brought_back: "hand-in brought back",
});
