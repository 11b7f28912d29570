/** Which of the pile is shown, and in which order: it stands in the address, and stays from one submission to the next. */
import type { Schema } from "../api/client";
import { chosenFrom, filtered, KEYS, pegOf } from "../filtering/filters";
import type { Board, Chosen, Flagged } from "../filtering/filters";
import { listed } from "../ui/words";

type Waiting = Schema["Waiting"];

const BY = new Intl.Collator("und", { numeric: true });

export const ORDERS = ["oldest", "student", "handin", "period"] as const;
export type Order = (typeof ORDERS)[number];

export interface Arranged {
  /** The one hand-in that is shown; null for all. */
  of: number | null;
  order: Order;
  /** Over all classes that one marks in, not this one alone. */
  all: boolean;
  /** The filter of the pegs that is on, as a query string; empty where none is. It is of one class. */
  filter: string;
  /** A sample of what is marked, to look at once more: of which hand-in, how many, by which number; null for what waits. */
  sample: Sample | null;
}

export interface Sample {
  handin: number;
  size: number;
  seed: number;
}

function sampleIn(address: URLSearchParams): Sample | null {
  const found = /^(\d{1,9})\.(\d{1,3})\.(\d{1,9})$/.exec(address.get("sample") ?? "");
  return found ? { handin: Number(found[1]), size: Number(found[2]), seed: Number(found[3]) } : null;
}

/** What filters the pegs and filters the pile as well: it has a hand-in and an order of its own. */
export const FILTER_KEYS = KEYS.filter((key) => !["handin", "order", "pin", "cols"].includes(key));

export function filterIn(address: URLSearchParams): string {
  return new URLSearchParams(FILTER_KEYS.flatMap((key) => address.getAll(key).sort().filter(Boolean).map((value): [string, string] => [key, value]))).toString();
}

export function arrangedBy(address: URLSearchParams): Arranged {
  const of = Number(address.get("of"));
  const all = address.get("all") === "1";
  return {
    of: Number.isInteger(of) && of > 0 ? of : null,
    order: ORDERS.find((one) => one === address.get("order")) ?? "oldest",
    all,
    filter: all ? "" : filterIn(address),
    sample: sampleIn(address),
  };
}

/** For the address, with its question mark; empty where all of the class are shown, the oldest first. */
export function searchOf({ of, order, all, filter, sample }: Arranged): string {
  if (sample) return `?sample=${sample.handin}.${sample.size}.${sample.seed}`;
  const address = new URLSearchParams(all ? "" : filter);
  if (all) address.set("all", "1");
  if (of !== null) address.set("of", String(of));
  if (order !== "oldest") address.set("order", order);
  const search = address.toString();
  return search && `?${search}`;
}

/** Those of a hand-in (or all) in an order; alike ones stay the oldest first. */
export function inOrder(waiting: Waiting[], { of, order }: Pick<Arranged, "of" | "order">): Waiting[] {
  const shown = waiting.filter((one) => of === null || one.handin.id === of);
  const by: Record<Order, ((one: Waiting) => string) | null> = {
    oldest: null,
    student: (one) => listed(one.student),
    handin: (one) => `${one.handin.title} ${one.class_name}`,
    period: (one) => one.student.period,
  };
  const text = by[order];
  return text ? shown.toSorted((one, other) => BY.compare(text(one), text(other))) : shown;
}

/** Whether a filter says anything of students, not of hand-ins alone. */
function asksWho(chosen: Chosen): boolean {
  return [chosen.period, chosen.group, chosen.lately].some(Boolean) || chosen.chips.length + chosen.flags.length + chosen.quiet > 0 || chosen.agreed;
}

/**
 * What a filter of the pegs leaves of the pile: the students and hand-ins that it leaves there, and of these what itself is late
 * or flagged where it asks for that. Whose it is that is marked without a name is not found out by filtering: such work is
 * shown only where hand-ins alone are filtered.
 */
export function through(waiting: Waiting[], filter: string, board: Board | undefined, flagged: Flagged | undefined): Waiting[] | undefined {
  if (!filter) return waiting;
  if (!board) return undefined;
  const chosen = chosenFrom(new URLSearchParams(filter));
  const left = filtered(board, chosen, flagged);
  const students = new Set(left.rows.map((row) => row.id));
  const handins = new Set(left.board.handins.map((one) => one.id));
  const who = asksWho(chosen) || left.rest;
  return waiting.filter((one) => {
    if (!handins.has(one.handin.id)) return false;
    if (one.student.id === NOBODY) return !who;
    const flags = chosen.flags.every((flag) => flagged?.[flag].has(pegOf(one.student.id, one.handin.id)));
    return students.has(one.student.id) && flags && (one.late || !chosen.chips.includes("late"));
  });
}

/** The student of work whose name is hidden. */
const NOBODY = 0;

/** The hand-ins of which something waits, with how much, by their titles. */
export function handinsOf(waiting: Waiting[]): { id: number; title: string; class_name: string; count: number }[] {
  const found = new Map<number, { id: number; title: string; class_name: string; count: number }>();
  for (const { handin, class_name } of waiting) {
    const one = found.get(handin.id) ?? { ...handin, class_name, count: 0 };
    found.set(handin.id, { ...one, count: one.count + 1 });
  }
  return [...found.values()].toSorted((one, other) => BY.compare(one.title, other.title));
}
