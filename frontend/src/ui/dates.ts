/** Dates and times in words, always in the school's zone, always with the weekday. */

let zone = "UTC";

/** Set once from the session. */
export function setZone(name: string): void {
  zone = name;
}

function parts(value: Date, timeZone: string): Record<string, string> {
  const format = new Intl.DateTimeFormat("en-GB", {
    timeZone,
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  });
  return Object.fromEntries(format.formatToParts(value).map((part) => [part.type, part.value]));
}

/** ``Thu 5 Nov`` of a local date (``2026-11-05``). */
export function day(date: string): string {
  const of = parts(new Date(`${date}T12:00:00Z`), "UTC");
  return `${of.weekday ?? ""} ${of.day ?? ""} ${short(of.month)}`;
}

/** ``Thu 5 Nov 2026`` of a local date. */
export function fullDay(date: string): string {
  return `${day(date)} ${date.slice(0, 4)}`;
}

/** The local date at school now. */
export function today(): string {
  return new Intl.DateTimeFormat("en-CA", { timeZone: zone, year: "numeric", month: "2-digit", day: "2-digit" }).format(new Date());
}

/** ``5 Nov`` of a local date. */
export function shortDay(date: string): string {
  const of = parts(new Date(`${date}T12:00:00Z`), "UTC");
  return `${of.day ?? ""} ${short(of.month)}`;
}

function short(month: string | undefined): string {
  return (month ?? "").slice(0, 3);
}

/** ``Thu 5 Nov, 14:02`` of a moment. */
export function moment(at: string): string {
  const of = parts(new Date(at), zone);
  return `${of.weekday ?? ""} ${of.day ?? ""} ${short(of.month)}, ${of.hour ?? ""}:${of.minute ?? ""}`;
}

/** ``Thu 5 Nov`` of a moment. */
export function dayOf(at: string): string {
  return moment(at).split(",")[0] ?? "";
}

/** ``14:02`` of a moment. */
export function clock(at: string | Date): string {
  const of = parts(typeof at === "string" ? new Date(at) : at, zone);
  return `${of.hour ?? ""}:${of.minute ?? ""}`;
}

/** ``Thu 5 Nov`` or ``Thu 5 Nov, 16:00`` of a due date with an optional time. */
export function due(date: string, time: string | null): string {
  return time ? `${day(date)}, ${time.slice(0, 5)}` : day(date);
}

/** How long ago in days, for a narrow column: ``today``, ``3 d``. */
export function daysAgo(at: string, today: string): string {
  const local = new Intl.DateTimeFormat("en-CA", { timeZone: zone }).format(new Date(at));
  const days = Math.round((Date.parse(today) - Date.parse(local)) / 86_400_000);
  return days <= 0 ? "today" : `${days} d`;
}

/** A duration in words: ``20 minutes``, ``3 hours``, ``2 days``. */
export function duration(seconds: number): string {
  const [size, name] = seconds < 5400 ? [60, "minute"] : seconds < 129_600 ? [3600, "hour"] : [86_400, "day"];
  return plural(Math.max(1, Math.round(seconds / size)), name);
}

/** ``1 day``, ``3 days``. */
export function plural(number: number, word: string, words = `${word}s`): string {
  return `${number} ${number === 1 ? word : words}`;
}
