/** What of a view is open, for the title of the window: a pocket, a student. */
import { useEffect, useSyncExternalStore } from "react";

let detail = "";
const followers = new Set<() => void>();

function set(text: string): void {
  detail = text;
  for (const one of followers) one();
}

/** Name what is open while this view is shown. */
export function useDetail(text: string | undefined): void {
  useEffect(() => {
    set(text ?? "");
    return () => set("");
  }, [text]);
}

/** What is open now. */
export function useOpenDetail(): string {
  return useSyncExternalStore(
    (follow) => {
      followers.add(follow);
      return () => followers.delete(follow);
    },
    () => detail,
  );
}
