/** Whether the cupboard stands open, and on what: kept while this tab is open, in every view. */
import { useSyncExternalStore } from "react";

interface Drawer {
  open: boolean;
  /** The item that is looked at; null for all of them. */
  item: number | null;
  /** It was written to be given out: that is asked next. */
  give: boolean;
}

const KEY = "coat-peg-cupboard";
const listeners = new Set<() => void>();

function kept(): Drawer {
  try {
    const found = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as Partial<Drawer> | null;
    return { open: found?.open === true, item: typeof found?.item === "number" ? found.item : null, give: false };
  } catch {
    return { open: false, item: null, give: false };
  }
}

let drawer = kept();

export function setDrawer(change: Partial<Drawer>): void {
  drawer = { ...drawer, give: false, ...change };
  sessionStorage.setItem(KEY, JSON.stringify(drawer));
  listeners.forEach((tell) => tell());
}

function listen(tell: () => void) {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

export function useDrawer(): Drawer {
  return useSyncExternalStore(listen, () => drawer);
}
