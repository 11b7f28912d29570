/** What other markers have open this moment, told while the pile is looked at. */
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { client, data } from "../api/client";
import { may, useGroup } from "../api/session";

const EVERY = 10_000;

/** By submission who has it open; ``mine`` is told to the others meanwhile. */
export function useDesks(groupId: number, mine: number | null): Map<number, string> {
  const marks = may(useGroup(), "mark");
  const path = { params: { path: { group_id: groupId } } };
  const found = useQuery({
    queryKey: ["desks", groupId, mine],
    queryFn: () => data(client.PUT("/api/groups/{group_id}/desks", { ...path, body: { submission: mine } })),
    enabled: marks,
    refetchInterval: EVERY,
    placeholderData: (before) => before,
    gcTime: 0,
  });
  useEffect(() => {
    if (!marks) return;
    return () => {
      // The pile is left: nothing is open any more.
      void client.PUT("/api/groups/{group_id}/desks", { params: { path: { group_id: groupId } }, body: { submission: null } }).catch(() => undefined);
    };
  }, [groupId, marks]);
  return new Map((found.data ?? []).map((one) => [one.submission, one.who]));
}
