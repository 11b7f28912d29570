/** Whether the cupboard stands open, and on what: kept while this tab is open, in every view. */
import { useSyncExternalStore } from "react";

interface Drawer {
  open: boolean;
  /** The item that is looked at; null for all of them. */
  item: number | null;
}

const KEY = "coat-peg-cupboard";
const listeners = new Set<() => void>();

function kept(): Drawer {
  try {
    const found = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as Partial<Drawer> | null;
    return { open: found?.open === true, item: typeof found?.item === "number" ? found.item : null };
  } catch {
    return { open: false, item: null };
  }
}

let drawer = kept();

export function setDrawer(change: Partial<Drawer>): void {
  drawer = { ...drawer, ...change };
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
