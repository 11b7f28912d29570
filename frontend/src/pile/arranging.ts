/** Which of the pile is shown, and in which order: it stands in the address, and stays from one submission to the next. */
import type { Schema } from "../api/client";
import { listed } from "../ui/words";

type Waiting = Schema["Waiting"];

const BY = new Intl.Collator("und", { numeric: true });

export const ORDERS = ["oldest", "student", "handin", "period"] as const;
export type Order = (typeof ORDERS)[number];

export interface Arranged {
  /** The one hand-in that is shown; null for all. */
  of: number | null;
  order: Order;
}

export function arrangedBy(address: URLSearchParams): Arranged {
  const of = Number(address.get("of"));
  return { of: Number.isInteger(of) && of > 0 ? of : null, order: ORDERS.find((one) => one === address.get("order")) ?? "oldest" };
}

/** For the address, with its question mark; empty where all are shown, the oldest first. */
export function searchOf({ of, order }: Arranged): string {
  const address = new URLSearchParams();
  if (of !== null) address.set("of", String(of));
  if (order !== "oldest") address.set("order", order);
  const search = address.toString();
  return search && `?${search}`;
}

/** Those of a hand-in (or all) in an order; alike ones stay the oldest first. */
export function inOrder(waiting: Waiting[], { of, order }: Arranged): Waiting[] {
  const shown = waiting.filter((one) => of === null || one.handin.id === of);
  const by: Record<Order, ((one: Waiting) => string) | null> = {
    oldest: null,
    student: (one) => listed(one.student),
    handin: (one) => one.handin.title,
    period: (one) => one.student.period,
  };
  const text = by[order];
  return text ? shown.toSorted((one, other) => BY.compare(text(one), text(other))) : shown;
}

/** The hand-ins of which something waits, with how much, by their titles. */
export function handinsOf(waiting: Waiting[]): { id: number; title: string; count: number }[] {
  const found = new Map<number, { id: number; title: string; count: number }>();
  for (const { handin } of waiting) {
    const one = found.get(handin.id) ?? { ...handin, count: 0 };
    found.set(handin.id, { ...one, count: one.count + 1 });
  }
  return [...found.values()].toSorted((one, other) => BY.compare(one.title, other.title));
}
