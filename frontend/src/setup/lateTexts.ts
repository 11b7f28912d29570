/** The words of the school's late rule. */
import { catalogue, message } from "../language/catalogue";

export const LATE = catalogue("setup.late", {
  title: "What being late costs",
  hint: "Where a hand-in has points, so much of the earned score is taken for every whole school day after a student’s own due date, before the one rounding. It holds for what is released from then on; staff and student see what was taken. A marker can give another score, with a reason.",
  none: "Nothing is taken from a score for being late.",
  takes: "Take for being late",
  perDay: "For each school day late",
  floor: "What is left at least",
  percent: "% of the earned score",
  example: message<{ earned: number; days: number; left: number }>("Of {earned, number} points earned, {left, number} are left {days, plural, one {# school day} other {# school days}} late."),
  save: "Save",
  saved: "The late rule is set.",
  ended: "Nothing is taken from now on.",
  by: message<{ by: string; at: string }>("Set by {by}, {at}"),
  notANumber: message<{ typed: string }>("“{typed}” is not a number of per cent."),
  giveANumber: "Give a number from 0 to 100.",
});
