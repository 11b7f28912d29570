/** The filters of the pegs over the pile of one class, and those that are kept. */
import { useQuery } from "@tanstack/react-query";
import { SlidersHorizontal } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { boardQuery } from "../api/queries";
import { chosenFrom, filtered } from "../filtering/filters";
import { useFlagged } from "../filtering/flags";
import { PILL } from "../filtering/Filters";
import { KeptFilters } from "../filtering/KeptFilters";
import { MoreFilters } from "../filtering/MoreFilters";
import { TEXTS as FILTERING } from "../filtering/texts";
import { filterIn, searchOf } from "./arranging";
import type { Arranged } from "./arranging";

export function PileFilters({ groupId, arranged }: { groupId: number; arranged: Arranged }) {
  // The board is read once somebody means to filter: nothing of it is needed to mark.
  const [wanted, setWanted] = useState(false);
  const board = useQuery({ ...boardQuery(groupId), enabled: wanted || arranged.filter !== "" });
  const place = useRef<HTMLSpanElement>(null);
  const ready = board.data !== undefined;
  useEffect(() => {
    if (wanted && ready) place.current?.querySelector("button")?.click();
  }, [wanted, ready]);
  const chosen = useMemo(() => chosenFrom(new URLSearchParams(arranged.filter)), [arranged.filter]);
  const flagged = useFlagged(groupId, chosen.flags.length > 0);
  const shown = useMemo(() => board.data && filtered(board.data, chosen, flagged), [board.data, chosen, flagged]);
  const navigate = useNavigate();
  const go = (filter: string) => void navigate({ search: searchOf({ ...arranged, filter }) }, { replace: true });
  if (!board.data || !shown) {
    return (
      <button type="button" aria-label={FILTERING.moreFilters} disabled={wanted && !board.isError} className={`${PILL} my-1 border-edge bg-paper hover:border-control`} onClick={() => setWanted(true)}>
        <SlidersHorizontal aria-hidden size={15} />
      </button>
    );
  }
  const change = (changes: Record<string, string | string[] | null>) => {
    const next = new URLSearchParams(arranged.filter);
    for (const [key, value] of Object.entries(changes)) {
      next.delete(key);
      for (const one of [value ?? []].flat()) if (one) next.append(key, one);
    }
    go(filterIn(next));
  };
  return (
    <span ref={place} className="flex gap-1.5 py-1">
      <MoreFilters board={board.data} chosen={chosen} shown={shown} onChange={change} onClear={() => go("")} whole />
      <KeptFilters board={board.data} groupId={groupId} current={arranged.filter} onOpen={(address) => go(filterIn(new URLSearchParams(address)))} />
    </span>
  );
}
