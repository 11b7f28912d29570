/** Whether the server answers, and whether we are signed in: one small store that every request feeds. */
import { useSyncExternalStore } from "react";

export type Connection = "there" | "away" | "signed-out";

let state: Connection = "there";
const listeners = new Set<() => void>();

/** Tell what a request found. */
export function setConnection(next: Connection): void {
  if (next === state) return;
  state = next;
  listeners.forEach((listener) => listener());
}

/** The state as it is now. */
export function connection(): Connection {
  return state;
}

/** Be told of each change; returns how to stop. */
export function onConnection(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The state, for components. */
export function useConnection(): Connection {
  return useSyncExternalStore(onConnection, connection);
}
