/** The words of a caseload and of adjustments. */
import { catalogue, message } from "../language/catalogue";
import type { Schema } from "../api/client";
import { shortDay } from "../ui/dates";
import { together } from "../ui/words";

export type Adjustment = Schema["AdjustmentShape"];
export type Kind = Adjustment["without"][number];

export const KINDS: Record<Kind, string> = catalogue("caseload.kinds", { evidence: "evidence", page: "pages", links: "links", log: "logs" });

export const TEXTS = catalogue("caseload", {
  caseload: "Caseload",
  find: "Find a student",
  nobody: "Nobody is in this caseload yet",
  nobodyHint: "Bring in a list of names: students of the school are known again, and their work in all their classes shows here.",
  choose: "Choose a student to see what is agreed and to change it.",
  none: "Nothing is agreed.",
  agree: "Agree something new",
  reason: "Reason (seen by you and the leads of their classes only)",
  spoken: "A recording may stand in place of a text",
  save: "Keep it",
  changeWhatIsAgreed: "Change what is agreed",
  extraSchoolDays: "Extra school days",
  fewerArtefacts: "Fewer artefacts",
  lengthOfTextsInPercent: "Length of texts, in percent of everybody's",
  excusedFrom: "Excused from",
  from: "From",
  to: "to",
  mayStayOpen: "(may stay open)",
  cancel: "Cancel",
  theChosenStudent: "The chosen student",
  whatIsAgreedCountsIn: "What is agreed counts in every class from its first day.",
  closeThePanel: "Close the panel",
  takeAwayWords: message<{ words: string }>("Take away: {words}"),
  nobodyOfThatNameIs: "Nobody of that name is in this caseload.",
  bringInAList: "Bring in a list",
  whatFilled: message<{ what: number }>("{what, number} % filled"),
  nothingWanted: "nothing wanted",
  countOverdueOverdue: message<{ count: number; overdue: string }>("{count, number} overdue: {overdue}"),
  waitingToHandIn: message<{ waiting: number }>("{waiting, number} to hand in"),
  allHandedIn: "all handed in",
  fullWeek: message<{ count: number; day: string }>("Too much in one week: {count, number} due in the week of {day}"),
  fullWeekDue: message<{ title: string; class_name: string; day: string }>("{title} ({class_name}), {day}"),
  quietForAWeek: "· quiet for a week",
  inNoClass: "in no class",
  agreedItCountsInEvery: "Agreed. It counts in every class of the student.",
  noLongerAgreedOne: message<{ one: string }>("No longer agreed: {one}."),
  changeWords: message<{ words: string }>("Change: {words}"),
});

const AGREED = catalogue("caseload.agreed", {
  days: message<{ count: number }>("{count, plural, one {# school day} other {# school days}} more"),
  artefacts: message<{ count: number }>("{count, plural, one {# artefact} other {# artefacts}} fewer"),
  shorter: message<{ percent: number }>("texts at {percent, number} % of the length"),
  longer: message<{ percent: number }>("longer texts, {percent, number} %"),
  spoken: "may record instead of writing",
  without: message<{ kinds: string }>("excused from {kinds}"),
  from: message<{ first: string }>("from {first}"),
  fromTo: message<{ first: string; last: string }>("{first} to {last}"),
});

/** An adjustment in words: ``2 school days more, 1 artefact fewer``. */
export function adjustmentWords(one: Adjustment): string {
  const { percent } = one;
  const parts = [
    one.extra_days > 0 ? AGREED.days({ count: one.extra_days }) : "",
    one.fewer_artefacts > 0 ? AGREED.artefacts({ count: one.fewer_artefacts }) : "",
    percent === 100 ? "" : percent < 100 ? AGREED.shorter({ percent }) : AGREED.longer({ percent }),
    one.spoken ? AGREED.spoken : "",
    one.without.length > 0 ? AGREED.without({ kinds: together(one.without.map((kind) => KINDS[kind])) }) : "",
  ].filter(Boolean);
  return parts.join(", ");
}

/** ``from 2 Nov`` or ``2 Nov to 18 Dec``. */
export function spanWords(one: { first: string; last: string | null }): string {
  const first = shortDay(one.first);
  return one.last ? AGREED.fromTo({ first, last: shortDay(one.last) }) : AGREED.from({ first });
}

/** Whether an adjustment counts on a day. */
export function holds(one: { first: string; last: string | null }, today: string): boolean {
  return one.first <= today && (one.last === null || today <= one.last);
}
