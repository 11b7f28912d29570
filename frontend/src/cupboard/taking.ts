/** A student takes a copy of an item into a pocket, and puts it back. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";
import { CUPBOARD } from "./texts";

/** Resolves with the copy; what stands against it is said, and resolves with null. */
export function useTake(groupId: number, portfolio: number) {
  const queries = useQueryClient();
  const say = useSay();
  return useCallback(
    async (item: number, pocket: number) => {
      const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
      const fail = (error: unknown) => {
        if (!(error instanceof Problem)) throw error;
        say(`${error.title} ${error.fix}`);
        return null;
      };
      try {
        const made = await data(client.POST("/api/portfolios/{portfolio_id}/cupboard/{item_id}", { params: { path: { portfolio_id: portfolio, item_id: item } }, body: { pocket } }));
        await fresh();
        const back = () => {
          data(client.DELETE("/api/copies/{copy_id}", { params: { path: { copy_id: made.id } } }))
            .then(() => say(CUPBOARD.putBack))
            .catch(fail)
            .finally(() => void fresh());
        };
        say(CUPBOARD.copyIn({ pocket: made.pocket.title }), back);
        return made;
      } catch (error) {
        return fail(error);
      }
    },
    [groupId, portfolio, queries, say],
  );
}
