/** Live changes: a cheap poll of the class's cursor. What changed on the board is patched; what else was touched loads anew. */
import { useQueryClient } from "@tanstack/react-query";
import type { QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { boardQuery } from "../api/queries";
import { freshSession } from "../api/session";
import { patched } from "./board";
import { touches } from "./touches";

const EVERY = 3000;
/** Milliseconds between polls: a change shows within 5 s, and 30 open boards cost the server 10 cheap requests a second. */

/** Ask what came after a cursor (undefined: for the cursor alone) and bring it into what is held; returns the new cursor. */
async function follow(queries: QueryClient, groupId: number, cursor: number | undefined): Promise<number> {
  const board = boardQuery(groupId).queryKey;
  const held = cursor !== undefined && queries.getQueryData(board) !== undefined;
  const query = cursor === undefined ? {} : { after: cursor, board: held };
  const found = await data(client.GET("/api/groups/{group_id}/changes", { params: { path: { group_id: groupId }, query } }));
  if (cursor === undefined || found.cursor === cursor) return found.cursor;
  if (!found.board_anew && found.rows.length > 0) queries.setQueryData(board, (old) => old && patched(old, found));
  // What one may do here is known before anything is asked for anew.
  if (found.kinds.includes("staff")) await freshSession(queries);
  await queries.invalidateQueries({ predicate: (one) => touches(queries, groupId, found, one.queryKey) });
  return found.cursor;
}

/** From where each class is followed. The page names it for its own class, as it was before anything was read. */
const cursors = new Map<number, number>();
const named = /^(\d+):(\d+)$/.exec(document.querySelector<HTMLMetaElement>("meta[name=cursor]")?.content ?? "");
if (named) cursors.set(Number(named[1]), Number(named[2]));

/** What is being asked for now, and the classes whose changes are not asked for: they are being taken away or left, or are gone. */
const asked = new Map<number, Promise<void>>();
const resting = new Set<number>();

/** Take a class away, or leave it, while nothing asks for its changes: a poll that came after it would find nothing there. Where it stays, it is followed again. */
export async function unfollowed<T>(groupId: number, deed: () => Promise<T>): Promise<T> {
  resting.add(groupId);
  try {
    await asked.get(groupId);
    return await deed();
  } catch (error) {
    resting.delete(groupId);
    throw error;
  }
}

/** One poll of a class. Where somebody took it away, what this person has left is asked for, and the class no more. */
async function poll(queries: QueryClient, groupId: number): Promise<void> {
  try {
    cursors.set(groupId, await follow(queries, groupId, cursors.get(groupId)));
  } catch (error) {
    // A lost connection: its own store shows it, and the next poll finds out.
    if (!(error instanceof Problem) || error.status !== 404) return;
    resting.add(groupId);
    await freshSession(queries);
  }
}

/** The day it is, from a minute and a half after midnight on: the server's clock may be a little behind. */
function theDay(): string {
  return new Date(Date.now() - 90_000).toDateString();
}

/** Follow a class while a view of it is open. Hidden tabs rest and catch up when they are looked at again. */
export function useLive(groupId: number | null): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (groupId === null) return;
    // Theirs again, where they were taken out and are back.
    resting.delete(groupId);
    let over = false;
    let day = theDay();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = async () => {
      clearTimeout(timer);
      // A tab that stays open overnight: weeks, days and "today" are those of the server's new day.
      if (day !== theDay()) {
        day = theDay();
        void queries.invalidateQueries();
      }
      if (!resting.has(groupId)) {
        const now = poll(queries, groupId);
        asked.set(groupId, now);
        await now;
      }
      if (!over && !document.hidden) timer = setTimeout(() => void ask(), EVERY);
    };
    const look = () => {
      if (!document.hidden) void ask();
    };
    document.addEventListener("visibilitychange", look);
    void ask();
    return () => {
      over = true;
      clearTimeout(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, [groupId, queries]);
}
