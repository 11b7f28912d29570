/** Whether the page is as narrow as a phone: for what has to stand in it once, not twice with one of them hidden. */
import { useSyncExternalStore } from "react";

const PHONE = "(width < 40rem)";
/** Tailwind's ``max-sm``. */

function subscribe(listener: () => void): () => void {
  const query = window.matchMedia(PHONE);
  query.addEventListener("change", listener);
  return () => query.removeEventListener("change", listener);
}

export function useNarrow(): boolean {
  return useSyncExternalStore(subscribe, () => window.matchMedia(PHONE).matches);
}
