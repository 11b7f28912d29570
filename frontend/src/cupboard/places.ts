/** Where else an open item can be laid: what a view that lies beside the cupboard offers. */
import { useEffect, useSyncExternalStore } from "react";

export interface Place {
  /** What it is called. */
  name: string;
  lay: (item: number) => void;
  /** It is a log: columns are laid with it too. */
  columns?: boolean;
}

/** A pocket, with which something lies; a section, in which a pocket is laid out. */
type Kind = "pocket" | "section";

const offered: Record<Kind, Place | null> = { pocket: null, section: null };
const listeners = new Set<() => void>();

function offer(kind: Kind, place: Place | null): void {
  offered[kind] = place;
  for (const tell of listeners) tell();
}

/** Offer a place as long as this is shown. */
export function useOfferedPlace(kind: Kind, place: Place | null): void {
  const { name, lay, columns } = place ?? { name: "", lay: null, columns: false };
  useEffect(() => {
    if (lay) offer(kind, { name, lay, ...(columns && { columns }) });
    return () => offer(kind, null);
  }, [kind, name, lay, columns]);
}

export function useItemPlace(kind: Kind): Place | null {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => offered[kind],
  );
}
