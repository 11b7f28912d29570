/** Live changes: a cheap poll of the class's cursor; news make the class's views load anew. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { client, data } from "./client";

const EVERY = 3000;
/** Milliseconds between polls: a change shows within 5 s, and 30 open boards cost the server 10 cheap requests a second. */

/** Follow a class while a view of it is open. Hidden tabs rest and catch up when they are looked at again. */
export function useLive(groupId: number | null): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (groupId === null) return;
    let cursor: number | undefined;
    let over = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = async () => {
      clearTimeout(timer);
      try {
        const query = cursor === undefined ? {} : { after: cursor };
        const found = await data(
          client.GET("/api/groups/{group_id}/changes", { params: { path: { group_id: groupId }, query } }),
        );
        if (over) return;
        const first = cursor === undefined;
        cursor = found.cursor;
        if (!first && (found.all_changed || found.changes.length > 0)) {
          await queries.invalidateQueries({ queryKey: ["group", groupId] });
        }
      } catch {
        // The connection's own store shows it; the next poll finds out.
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
