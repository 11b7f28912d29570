/** Taking what was given out back from everybody who has not begun, with its undo. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";
import { GIVING } from "./texts";

export function useTakeBack(groupId: number): (given: number) => void {
  const queries = useQueryClient();
  const say = useSay();
  return useCallback(
    (given: number) => {
      const path = { params: { path: { given_id: given } } };
      const fresh = () => void queries.invalidateQueries({ queryKey: ["group", groupId] });
      const fail = (error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : String(error));
      const again = () => {
        data(client.POST("/api/given/{given_id}/restore", path))
          .then(() => say(GIVING.again))
          .catch(fail)
          .finally(fresh);
      };
      data(client.DELETE("/api/given/{given_id}", path))
        .then((kept) => say(GIVING.takenBack({ count: kept.length }), again))
        .catch(fail)
        .finally(fresh);
    },
    [groupId, queries, say],
  );
}
