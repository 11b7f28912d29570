/**
 * Days as people write them, in English and in the language of the page. The day stands before the month; a day without
 * a year is the one nearest to today.
 */
import { LOCALE } from "../../language/chosen";
import { DATES } from "../texts";

/** The names of twelve months or seven days, from January and Sunday on, in lower case: each in a few ways. */
function names(part: "month" | "weekday", count: number): string[][] {
  const asked = ["en", LOCALE].flatMap((locale) => (["long", "short"] as const).map((length) => new Intl.DateTimeFormat(locale, { [part]: length, day: "numeric", timeZone: "UTC" })));
  const first = part === "month" ? (at: number) => Date.UTC(2023, at, 1) : (at: number) => Date.UTC(2023, 0, 1 + at);
  return Array.from({ length: count }, (_, at) =>
    asked.map((format) => (format.formatToParts(first(at)).find((one) => one.type === part)?.value ?? "").toLocaleLowerCase(LOCALE)),
  );
}

const MONTHS = names("month", 12);
const WEEKDAYS = names("weekday", 7);
const ISO = /^(\d{4})-(\d{1,2})-(\d{1,2})$/;
const BY_NUMBERS = /^(\d{1,2})[./\- ](\d{1,2})(?:[./\- ](\d{2}|\d{4})?)?$/;
const DAY_MONTH = /^(\d{1,2})(?:st|nd|rd|th|\.)?(?: of)? ?(\p{L}{3,12})\.?,?(?: (\d{2}|\d{4}))?$/u;
const MONTH_DAY = /^(\p{L}{3,12})\.? (\d{1,2})(?:st|nd|rd|th)?,?(?: (\d{2}|\d{4}))?$/u;

/** Whether a text is a day as it goes to the server (``2026-11-05``). */
export function isDay(text: string): boolean {
  const found = ISO.exec(text);
  return found !== null && dayOf(Number(found[1]), Number(found[2]), Number(found[3])) === text;
}

/** ``2026-11-05`` of what somebody typed; null where it is no day, or its weekday is not the day's. */
export function parseDay(text: string, today: string): string | null {
  const plain = text.trim().toLocaleLowerCase(LOCALE).replace(/\s+/g, " ");
  const near = byWord(plain, today);
  if (near) return near;
  const [, weekday, rest] = /^(?:(\p{L}{3,12})\.?,? )?(.+)$/u.exec(plain) ?? [];
  const named = weekday === undefined ? -1 : indexOf(WEEKDAYS, weekday);
  // What stands before the day can be its weekday, or the month.
  const found = read(named >= 0 ? (rest ?? "") : plain, today);
  return found && named >= 0 && weekdayOf(found) !== named ? null : found;
}

function byWord(plain: string, today: string): string | null {
  if (plain === "today" || plain === DATES.today) return today;
  if (plain === "tomorrow" || plain === DATES.tomorrow) return shifted(today, 1);
  const wanted = indexOf(WEEKDAYS, plain.replace(/^next /, ""));
  if (wanted < 0) return null;
  return shifted(today, (wanted - weekdayOf(today) + 7) % 7 || 7);
}

function read(plain: string, today: string): string | null {
  let found = ISO.exec(plain);
  if (found) return dayOf(Number(found[1]), Number(found[2]), Number(found[3]));
  found = BY_NUMBERS.exec(plain);
  if (found) {
    const [one, other] = [Number(found[1]), Number(found[2])];
    // With strokes some write the month first: read so where nothing else makes a day. The weekday beside it tells.
    return inYear(found[3], other, one, today) ?? (plain.includes("/") ? inYear(found[3], one, other, today) : null);
  }
  found = DAY_MONTH.exec(plain);
  if (found) return inYear(found[3], indexOf(MONTHS, found[2] ?? "") + 1, Number(found[1]), today);
  found = MONTH_DAY.exec(plain);
  return found ? inYear(found[3], indexOf(MONTHS, found[1] ?? "") + 1, Number(found[2]), today) : null;
}

function indexOf(named: string[][], word: string): number {
  const begun = word === "sept" ? "sep" : word;
  return word.length < 3 ? -1 : named.findIndex((ways) => ways.some((one) => one.startsWith(begun)));
}

/** The day in the year that was typed, or else in the one that brings it nearest to today. */
function inYear(year: string | undefined, month: number, day: number, today: string): string | null {
  if (year) return dayOf(Number(year) < 100 ? 2000 + Number(year) : Number(year), month, day);
  const now = Number(today.slice(0, 4));
  const possible = [now - 1, now, now + 1].map((one) => dayOf(one, month, day)).filter((one) => one !== null);
  return possible.sort((one, other) => Math.abs(between(one, today)) - Math.abs(between(other, today)))[0] ?? null;
}

function dayOf(year: number, month: number, day: number): string | null {
  const made = new Date(Date.UTC(year, month - 1, day));
  const real = made.getUTCFullYear() === year && made.getUTCMonth() === month - 1 && made.getUTCDate() === day;
  return real ? made.toISOString().slice(0, 10) : null;
}

function between(one: string, other: string): number {
  return Date.parse(one) - Date.parse(other);
}

function weekdayOf(day: string): number {
  return new Date(`${day}T12:00:00Z`).getUTCDay();
}

function shifted(day: string, days: number): string {
  return new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);
}
