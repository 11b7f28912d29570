/** The cupboard as students see it: what staff look at before they show it. */
import type { Schema } from "../api/client";
import { CUPBOARD } from "./texts";
import type { Item } from "./queries";

/** Whose eyes: staff's own, or those of a student in a period or group (``all``: of one who is in none). */
export type Eyes = "staff" | "all" | `periods ${number}` | `groups ${number}`;

/** The eyes there are to choose from, in a class with these periods and groups. */
export function eyesOf(cupboard: Schema["CupboardShape"]): { value: Eyes; shown: string }[] {
  const of = (name: "periods" | "groups") => cupboard[name].map((one) => ({ value: `${name} ${one.id}` as Eyes, shown: CUPBOARD.eyes.of({ place: one.title }) }));
  const some = [...of("periods"), ...of("groups")];
  return [{ value: "staff", shown: CUPBOARD.eyes.staff }, { value: "all", shown: some.length > 0 ? CUPBOARD.eyes.all : CUPBOARD.eyes.any }, ...some];
}

/** What is shown to them today, by the rules that the server shows it by (``core/cupboard/items.py``). */
export function seenBy(items: Item[], eyes: Eyes): Item[] {
  if (eyes === "staff") return items;
  const [name, id] = eyes.split(" ");
  return items.filter((one) => {
    if (one.staff_only || one.waits) return false;
    if (one.periods.length + one.groups.length === 0) return true;
    return (name === "periods" || name === "groups") && one[name].includes(Number(id));
  });
}
