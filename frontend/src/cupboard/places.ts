/** Where else an open item can be laid: what a view that lies beside the cupboard offers. */
import { useEffect, useSyncExternalStore } from "react";

interface Place {
  /** What it is called. */
  name: string;
  lay: (item: number) => void;
}

let offered: Place | null = null;
const listeners = new Set<() => void>();

function offer(place: Place | null): void {
  offered = place;
  for (const tell of listeners) tell();
}

/** Offer a place as long as this is shown. */
export function useOfferedPlace(place: Place | null): void {
  const { name, lay } = place ?? { name: "", lay: null };
  useEffect(() => {
    if (lay) offer({ name, lay });
    return () => offer(null);
  }, [name, lay]);
}

export function useItemPlace(): Place | null {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => offered,
  );
}
