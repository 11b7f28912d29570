/** The session, and the class that the address names. */
import { useSuspenseQuery } from "@tanstack/react-query";
import type { QueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Schema } from "./client";
import { sessionQuery } from "./queries";

export type Session = Schema["SessionShape"];
export type Group = Schema["GroupLine"];

/** The session; the frame has loaded it before any view shows. */
export function useSession(): Session {
  return useSuspenseQuery(sessionQuery).data;
}

/** The signed-in person; views stand behind the sign-in. */
export function usePersonId(): number {
  return useSession().person?.id ?? 0;
}

/** The class of the address, or null. */
export function useGroup(): Group | null {
  const { group } = useParams();
  return useSession().groups.find((one) => one.id === Number(group)) ?? null;
}

/** The id of the class of the address. */
export function useGroupId(): number {
  return Number(useParams().group);
}

/** Where a person lands in a class. */
export function landing(group: Group): string {
  return group.landing ?? "/";
}

/** Whether the server lets this person do something in a class. No role is asked here. */
export function may(group: Group | null | undefined, action: Group["may"][number]): boolean {
  return group?.may.includes(action) ?? false;
}

/** Forget everything that was read for a person; the session itself stays, since the frame watches it. */
export function forgetPeople(queries: QueryClient): void {
  queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
}

/** Ask who this is and what they may do, and let the page take it in: what is not allowed any more is then asked for no more. */
export async function freshSession(queries: QueryClient): Promise<void> {
  await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
  await new Promise((done) => setTimeout(done));
}
