/** The words of what a student has to hand in, and what came back. */
import type { ReactNode } from "react";
import { catalogue, message, rich } from "../language/catalogue";

export const TEXTS = catalogue("worklist", {
  back: "Back",
  titleSubmissionNumber: message<{ title: string; number: number }>("{title}, submission {number, number}"),
  handedInWithReceipt: rich<{ at: string; late: boolean; lateness: string; receipt: ReactNode }>("Handed in {at}{late, select, true {, {lateness}} other {}} · receipt {receipt}"),
  takenBackVoidedAtIt: message<{ voided_at: string }>("Taken back {voided_at}; it no longer counts."),
  toHandIn: "To hand in",
  receiptAsPdf: "Receipt as PDF",
  inYourOtherClasses: "In your other classes",
  againUntil: message<{ until: string }>("Can be handed in again{until, select, none {} other { until {until}}}"),
  nothingIsWaitingHere: "Nothing is waiting for you in this class.",
  nothingIsWaitingForYou: "Nothing is waiting for you.",
  inAlreadyOrOpensLater: "In already, or opens later",
  dueWithExtra: message<{ sentBack: boolean; due: string; extra: number }>("{sentBack, select, true {Sent back. {due}} other {{due}}}{extra, plural, =0 {} one { (# extra day for you)} other { (# extra days for you)}}"),
  reminder: "Reminder",
  reminderFrom: message<{ by: string; at: string }>("{by}, {at}"),
  closedTakesNothing: "closed: it takes nothing more",
  everythingWantedIsThere: "Everything wanted is there",
  stillWanted: "Still wanted",
  rowsNotFinishedColumns: message<{ rows: number; columns: string }>("{rows, plural, one {# row} other {# rows}} not finished: {columns}"),
  feedback: "Feedback",
  nothingHasComeBackYet: "Nothing has come back yet. What your teacher writes shows here.",
  toTheClass: "To the class",
  toTheClassBy: message<{ who: string; at: string }>("to the class, by {who} {at}"),
  readWhatYouHandedIn: "Read what you handed in",
  openThePocket: "Open the pocket",
  opensOpens: message<{ opens: string }>("opens {opens}"),

});
