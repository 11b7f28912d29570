/** What staff should look at in what came in. Asked for as soon as somebody filters by it. */
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { client, data } from "../api/client";
import { FLAGS, pegOf } from "./filters";
import type { Flagged } from "./filters";

export function useFlagged(groupId: number, enabled: boolean): Flagged | undefined {
  const { data: found } = useQuery({
    queryKey: ["group", groupId, "flags"],
    enabled,
    queryFn: () => data(client.GET("/api/groups/{group_id}/pegs/flags", { params: { path: { group_id: groupId } } })),
  });
  return useMemo(
    () => found && (Object.fromEntries(FLAGS.map((flag) => [flag, new Set(found.filter((one) => one.flags.includes(flag)).map((one) => pegOf(one.enrolment, one.handin)))])) as Flagged),
    [found],
  );
}
