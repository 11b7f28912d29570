/** What waits, as it is arranged: of this class or of all, what the filters leave, in its order. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { boardQuery, pileQuery, wholePileQuery } from "../api/queries";
import { chosenFrom } from "../filtering/filters";
import { useFlagged } from "../filtering/flags";
import { inOrder, through } from "./arranging";
import type { Arranged } from "./arranging";

export function usePile(groupId: number, { all, filter, of, order }: Arranged) {
  const here = useQuery({ ...pileQuery(groupId), enabled: !all });
  const everywhere = useQuery({ ...wholePileQuery, enabled: all });
  const pile = all ? everywhere : here;
  const board = useQuery({ ...boardQuery(groupId), enabled: filter !== "" });
  const flagged = useFlagged(groupId, filter !== "" && chosenFrom(new URLSearchParams(filter)).flags.length > 0);
  const waiting = pile.data?.waiting;
  const left = useMemo(() => waiting && through(waiting, filter, board.data, flagged), [waiting, filter, board.data, flagged]);
  const shown = useMemo(() => left && inOrder(left, { of, order }), [left, of, order]);
  return { pile, left, shown };
}

/** Takes a submission off the pile at once, so that "next" never comes back to it. */
export function useOffPile(groupId: number) {
  const queries = useQueryClient();
  return useCallback(
    (submission: number) => {
      queries.setQueryData(pileQuery(groupId).queryKey, (pile) => pile && { ...pile, waiting: pile.waiting.filter((one) => one.submission !== submission) });
      queries.setQueryData(wholePileQuery.queryKey, (pile) => pile && { ...pile, waiting: pile.waiting.filter((one) => one.submission !== submission) });
    },
    [groupId, queries],
  );
}
