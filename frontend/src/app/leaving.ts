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
    await queries.query({ ...sessionQuery, staleTime: 0, retry: false }).catch(() => null);
    queries.setQueryData(sessionQuery.queryKey, (old) => {
      const groups = old?.groups.filter((one) => one.id !== groupId) ?? [];
      return old && groups.length !== old.groups.length ? { ...old, home: null, groups } : old;
    });
    await navigate("/");
    queries.removeQueries({ queryKey: ["group", groupId] });
  };
}

/** Whether an address names a class that is not this person's: nothing of it is shown, and nothing asked for. */
export function useNobodys(pathname: string, mine: boolean): boolean {
  const now = useSyncExternalStore(listen, () => leaving);
  const named = /^\/g\/(\d+)\//.exec(pathname)?.[1];
  const left = now !== null && Number(named) === now;
  useEffect(() => {
    if (!left) setLeaving(null);
  }, [left]);
  return named !== undefined && !mine && !left;
}
