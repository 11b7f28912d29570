/** Statuses in words: the same on the board, in panels and in labels. */
import { catalogue, message } from "../language/catalogue";
import { LOCALE } from "../language/chosen";
import { dayOf, day } from "./dates";
import type { CoatState, StatusWord } from "./Coat";

export const STATUS: Record<StatusWord, string> = catalogue("ui.status", {
  not_asked: "Not asked",
  excused: "Excused",
  accepted: "Accepted",
  sent_back: "Sent back",
  handed_in: "Handed in",
  not_open: "Opens later",
  working: "Being worked on",
  empty: "Nothing yet",
});

interface Judged extends CoatState {
  late_days: number;
  at?: string | null;
  /** The day of the newest submission, where its moment is not at hand. */
  came?: string | null;
  due?: string | null;
}

/** The same within a sentence. */
export const STATUS_WITHIN: Record<StatusWord, string> = catalogue("ui.statusWithin", {
  not_asked: "not asked",
  excused: "excused",
  accepted: "accepted",
  sent_back: "sent back",
  handed_in: "handed in",
  not_open: "opens later",
  working: "being worked on",
  empty: "nothing yet",
});

const JUDGED = catalogue("ui.judged", {
  late: "late",
  daysLate: message<{ count: number }>("{count, plural, one {# school day} other {# school days}} late"),
  statusOn: message<{ status: string; day: string }>("{status} {day}"),
  handedIn: message<{ day: string }>("handed in {day}"),
  overdue: "overdue",
  overdueSince: message<{ day: string }>("overdue since {day}"),
});

/** How late, in school days, or by the clock where no school day passed. */
export function lateness(one: { late_days: number }): string {
  return one.late_days > 0 ? JUDGED.daysLate({ count: one.late_days }) : JUDGED.late;
}

function cameOn(one: Judged): string {
  if (one.at) return dayOf(one.at);
  return one.came ? day(one.came) : "";
}

/** A cell in words: ``handed in Thu 5 Nov, 1 school day late``. */
export function inWords(one: Judged): string {
  const status = STATUS_WITHIN[one.status];
  const came = one.status === "excused" ? "" : cameOn(one);
  const parts = [one.status === "handed_in" && came ? JUDGED.statusOn({ status, day: came }) : status];
  if (came && one.status !== "handed_in") parts.push(JUDGED.handedIn({ day: came }));
  if (one.late) parts.push(lateness(one));
  if (one.overdue) parts.push(one.due ? JUDGED.overdueSince({ day: day(one.due) }) : JUDGED.overdue);
  return parts.join(", ");
}

/** A person as lists show them. */
export function listed(person: { family_name: string; given_name: string; family_first?: boolean }): string {
  if (person.family_first) return `${person.family_name} ${person.given_name}`.trim();
  return person.family_name ? `${person.family_name}, ${person.given_name}` : person.given_name;
}

let list: Intl.ListFormat | undefined;

/** ``Soil test, Crop log and Menu`` */
export function together(titles: string[]): string {
  // Made on first use: it takes longer than the whole view that it is part of.
  list ??= new Intl.ListFormat(LOCALE, { type: "conjunction" });
  return list.format(titles);
}
