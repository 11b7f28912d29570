/** The words of worklist. */
import { catalogue, message } from "../language/catalogue";
export const TEXTS = catalogue("worklist", {
  back: "Back",
  titleSubmissionNumber: message<{ title: string; number: number }>("{title}, submission {number}"),
  handedInAtOtherReceipt: message<{ at: string; one: string; lateIs: boolean }>("Handed in {at}{lateIs, select, true {, {one}} other {}} · receipt"),
  takenBackVoidedAtIt: message<{ voided_at: string }>("Taken back {voided_at}; it no longer counts."),
  toHandIn: "To hand in",
  nothingIsWaitingForYou: "Nothing is waiting for you.",
  inAlreadyOrOpensLater: "In already, or opens later",
  sentBack: "Sent back. ",
  extraDaysForYou: message<{ extra_days: number }>(" ({extra_days, plural, one {# extra day} other {# extra days}} for you)"),
  everythingWantedIsThere: "Everything wanted is there",
  stillWanted: "Still wanted",
  rowsNotFinishedColumns: message<{ rows: number; columns: string }>("{rows, plural, one {# row} other {# rows}} not finished: {columns}"),
  feedback: "Feedback",
  nothingHasComeBackYet: "Nothing has come back yet. What your teacher writes shows here.",
  readWhatYouHandedIn: "Read what you handed in",
  openThePocket: "Open the pocket",
  opensOpens: message<{ opens: string }>("opens {opens}"),
});
