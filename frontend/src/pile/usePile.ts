/** What waits, as it is arranged: of this class or of all, what the filters leave, in its order. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import type { Schema } from "../api/client";
import { boardQuery, pileQuery, sampleQuery, wholePileQuery } from "../api/queries";
import { chosenFrom } from "../filtering/filters";
import { useFlagged } from "../filtering/flags";
import { inOrder, through } from "./arranging";
import type { Arranged } from "./arranging";

const NO_SAMPLE = { handin: 0, size: 0, seed: 0 };

/** What waits here, over all classes, or the sample. */
function useSource(groupId: number, { all, sample }: Arranged) {
  const here = useQuery({ ...pileQuery(groupId), enabled: !all && !sample });
  const everywhere = useQuery({ ...wholePileQuery, enabled: all && !sample });
  const { handin, size, seed } = sample ?? NO_SAMPLE;
  const sampled = useQuery({ ...sampleQuery(groupId, handin, size, seed), enabled: sample !== null, select: asPile });
  return sample ? sampled : all ? everywhere : here;
}

export function usePile(groupId: number, arranged: Arranged) {
  const { filter, of, order } = arranged;
  const pile = useSource(groupId, arranged);
  const board = useQuery({ ...boardQuery(groupId), enabled: filter !== "" });
  const flagged = useFlagged(groupId, filter !== "" && chosenFrom(new URLSearchParams(filter)).flags.length > 0);
  const waiting = pile.data?.waiting;
  const left = useMemo(() => waiting && through(waiting, filter, board.data, flagged), [waiting, filter, board.data, flagged]);
  const shown = useMemo(() => left && inOrder(left, { of, order }), [left, of, order]);
  return { pile, left, shown };
}

/** A sample in the place of what waits: in the order in which it was drawn. */
function asPile(waiting: Schema["SampledShape"][]): Schema["Pile"] {
  return { waiting: waiting.map((one) => ({ ...one.line, agree: false })), marked_today: 0, pace: null };
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
