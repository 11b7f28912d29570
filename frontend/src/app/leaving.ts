/** Classes that are a person's no more: deleted, left, handed over, or taken from under an open view of them. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { useNavigate } from "react-router";
import { sessionQuery } from "../api/queries";

/** The class that is being left by what was done in it: what stands there stays until where this person goes on is there. */
let leaving: number | null = null;
const listeners = new Set<() => void>();

function setLeaving(now: number | null): void {
  leaving = now;
  listeners.forEach((tell) => tell());
}

function listen(tell: () => void): () => void {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

/** Ask where this person's day begins now, go there, and forget the class: nothing leads to it any more, also where that could not be asked. */
export function useLeaving(groupId: number): () => Promise<void> {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return async () => {
    setLeaving(groupId);
    await queries.query({ ...sessionQuery, staleTime: 0, retry: false }).catch(() => {
      queries.setQueryData(sessionQuery.queryKey, (old) => old && { ...old, home: null, groups: old.groups.filter((one) => one.id !== groupId) });
    });
    await navigate("/");
    queries.removeQueries({ queryKey: ["group", groupId] });
  };
}

/** Whether an address names a class that is not this person's: nothing of it is shown, and nothing asked for. Who may see a portfolio is its own question: a coordinator may, in a class they are not in. */
export function useNobodys(pathname: string, mine: boolean): boolean {
  const now = useSyncExternalStore(listen, () => leaving);
  const named = /^\/g\/(\d+)\/(?!portfolio\/)/.exec(pathname)?.[1];
  const left = now !== null && Number(named) === now;
  useEffect(() => {
    if (!left) setLeaving(null);
  }, [left]);
  return named !== undefined && !mine && !left;
}
