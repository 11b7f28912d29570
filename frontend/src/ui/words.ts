/** Statuses in words: the same on the board, in panels and in labels. */
import { catalogue } from "../language/catalogue";
import { dayOf, day, plural } from "./dates";
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
  late_seconds: number;
  at?: string | null;
  due?: string | null;
}

/** How late, in school days, or by the clock where no school day passed. */
export function lateness(one: { late_days: number; late_seconds: number }): string {
  return one.late_days > 0 ? `${plural(one.late_days, "school day")} late` : "late";
}

/** A cell in words: ``handed in Thu 5 Nov, 1 school day late``. */
export function inWords(one: Judged): string {
  const said = STATUS[one.status].toLowerCase();
  const came = one.at && one.status !== "excused" ? dayOf(one.at) : "";
  const parts = [one.status === "handed_in" && came ? `${said} ${came}` : said];
  if (came && one.status !== "handed_in") parts.push(`handed in ${came}`);
  if (one.late) parts.push(lateness(one));
  if (one.overdue) parts.push(one.due ? `overdue since ${day(one.due)}` : "overdue");
  return parts.join(", ");
}

/** A person as lists show them. */
export function listed(person: { family_name: string; given_name: string }): string {
  return person.family_name ? `${person.family_name}, ${person.given_name}` : person.given_name;
}

/** ``Soil test, Crop log and Menu`` */
export function together(titles: string[]): string {
  return titles.length < 2 ? titles.join("") : `${titles.slice(0, -1).join(", ")} and ${titles.at(-1) ?? ""}`;
}
