/** Dates and times in words, always in the school's zone, always with the weekday. */

import { LOCALE } from "../language/chosen";
import { DATES, TIMES } from "./texts";

let zone = "UTC";

/** Set once from the session. */
export function setZone(name: string): void {
  zone = name;
}

/** Of each zone one, made once: a board tells hundreds of dates, and making a format takes longer than all of them. */
function perZone(make: (timeZone: string) => Intl.DateTimeFormat): (timeZone: string) => Intl.DateTimeFormat {
  const formats = new Map<string, Intl.DateTimeFormat>();
  return (timeZone) => {
    const made = formats.get(timeZone) ?? make(timeZone);
    formats.set(timeZone, made);
    return made;
  };
}

const format = perZone(
  (timeZone) => new Intl.DateTimeFormat(LOCALE, { timeZone, weekday: "short", day: "numeric", month: "short", year: "numeric", hour: "2-digit", minute: "2-digit", hourCycle: "h23" }),
);
/** Writes ``2026-11-05``. */
const plain = perZone((timeZone) => new Intl.DateTimeFormat("en-CA", { timeZone, year: "numeric", month: "2-digit", day: "2-digit" }));

/** What a moment is called in a zone; months by three letters, so that columns stand still. */
function parts(value: Date, timeZone: string) {
  const of = Object.fromEntries(format(timeZone).formatToParts(value).map((part) => [part.type, part.value]));
  const { weekday = "", day = "", month = "", year = "", hour = "", minute = "" } = of;
  return { weekday, day, month: month.slice(0, 3), year, clock: `${hour}:${minute}` };
}

/** The middle of a local date, in which no zone is another day. */
function noon(date: string): Date {
  return new Date(`${date}T12:00:00Z`);
}

/** ``Thu 5 Nov`` of a local date (``2026-11-05``). */
export function day(date: string): string {
  return DATES.day(parts(noon(date), "UTC"));
}

/** ``Thu 5 Nov 2026`` of a local date. */
export function fullDay(date: string): string {
  return DATES.fullDay(parts(noon(date), "UTC"));
}

/** The local date at school now. */
export function today(): string {
  return plain(zone).format(new Date());
}

/** The local date at school of a moment. */
export function localDay(at: string): string {
  return plain(zone).format(new Date(at));
}

/** ``5 Nov`` of a local date. */
export function shortDay(date: string): string {
  return DATES.shortDay(parts(noon(date), "UTC"));
}

/** ``Thu 5 Nov, 14:02`` of a moment. */
export function moment(at: string): string {
  return DATES.moment(parts(new Date(at), zone));
}

/** ``Thu 5 Nov`` of a moment. */
export function dayOf(at: string): string {
  return DATES.day(parts(new Date(at), zone));
}

/** ``14:02`` of a moment. */
export function clock(at: string | Date): string {
  return parts(typeof at === "string" ? new Date(at) : at, zone).clock;
}

/** ``Thu 5 Nov`` or ``Thu 5 Nov, 16:00`` of a due date with an optional time. */
export function due(date: string, time: string | null): string {
  return time ? DATES.dayAt({ day: day(date), clock: time.slice(0, 5) }) : day(date);
}

/** How long ago in days, for a narrow column: ``today``, ``3 d``. */
export function daysAgo(at: string, today: string): string {
  const local = localDay(at);
  const days = Math.round((Date.parse(today) - Date.parse(local)) / 86_400_000);
  return days <= 0 ? TIMES.today : TIMES.daysAgo({ count: days });
}

/** A duration in words: ``20 minutes``, ``3 hours``, ``2 days``. */
export function duration(seconds: number): string {
  const [size, said] = seconds < 5400 ? [60, TIMES.minutes] : seconds < 129_600 ? [3600, TIMES.hours] : [86_400, TIMES.days];
  return said({ count: Math.max(1, Math.round(seconds / size)) });
}

/** The Monday of the week of a local date. */
export function mondayOf(date: string): string {
  const at = new Date(`${date}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() - ((at.getUTCDay() + 6) % 7));
  return at.toISOString().slice(0, 10);
}
