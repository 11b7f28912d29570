/** Over the pegs: what is shown of them, and what can be done with what is shown. */
import { ChartLine, Grid3x3, List, Plus, Sigma, SquareCheck } from "lucide-react";
import { Link } from "react-router";
import { may, useGroup, useGroupId } from "../api/session";
import { Button } from "../ui/Button";
import { Filters } from "../filtering/Filters";
import { addressOf, goneFrom, WAYS } from "../filtering/filters";
import type { Board, Chosen, Filtered, Way } from "../filtering/filters";
import { KeptFilters } from "../filtering/KeptFilters";
import { MoreFilters } from "../filtering/MoreFilters";
import type { Picking } from "./picking";
import { TakeAlong } from "./TakeAlong";
import { TEXTS } from "./texts";

export type Change = (changes: Record<string, string | string[] | null>, replace?: boolean) => void;

interface Props {
  board: Board;
  chosen: Chosen;
  shown: Filtered;
  address: URLSearchParams;
  picking: Picking;
  mayPick: boolean;
  set: Change;
  onClear: () => void;
  onOpen: (address: string) => void;
}

const ICONS = { pegs: Grid3x3, list: List, scores: Sigma, patterns: ChartLine };

/** Over the scores a new hand-in is not what one is there for: keeping weights is the one main action. */
const MAIN = "bg-copper text-paper hover:bg-copper-deep";
const PLAIN = "border border-edge bg-paper hover:border-control";

/** The same students and hand-ins as pegs, as a list of what came in, as scores together, or as patterns. */
function Ways({ chosen, onChange }: { chosen: Way; onChange: (way: Way) => void }) {
  return (
    <span role="group" aria-label={TEXTS.showAs} className="flex overflow-hidden rounded-full border border-edge">
      {WAYS.map((way) => {
        const Icon = ICONS[way];
        return (
          <button
            key={way}
            type="button"
            aria-pressed={chosen === way}
            title={TEXTS.ways[way]}
            aria-label={TEXTS.ways[way]}
            onClick={() => onChange(way)}
            className={`flex min-h-8 items-center px-2.5 ${chosen === way ? "bg-ink text-paper" : "bg-paper hover:bg-ground"}`}
          >
            <Icon aria-hidden size={16} />
          </button>
        );
      })}
    </span>
  );
}

export function PegsBar({ board, chosen, shown, address, picking, mayPick, set, onClear, onOpen }: Props) {
  const groupId = useGroupId();
  const group = useGroup();
  const gone = goneFrom(board, chosen);
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 px-5 py-2.5 print:hidden">
        <Ways chosen={chosen.as} onChange={(way) => set({ as: way === "pegs" ? null : way, student: null }, false)} />
        <Filters board={board} chosen={chosen} shown={shown} onChange={set} />
        <MoreFilters board={board} chosen={chosen} shown={shown} onChange={set} onClear={onClear} />
        <KeptFilters board={board} groupId={groupId} current={addressOf(address)} onOpen={onOpen} />
        <span className="ml-auto flex">
          <TakeAlong board={shown.board} rows={shown.rows} groupId={groupId} name={group?.name ?? TEXTS.title} scores={chosen.as === "scores"} />
        </span>
        {mayPick && chosen.as === "pegs" && board.handins.length > 0 && (
          <Button
            aria-pressed={picking.on}
            aria-label={TEXTS.choosePegs}
            title={TEXTS.choosePegs}
            onClick={() => picking.setOn(!picking.on)}
          >
            <SquareCheck aria-hidden size={16} />
          </Button>
        )}
        {may(group, "set_handin") && (
          <Link to={`/g/${groupId}/hand-ins?new=1`} className={`inline-flex min-h-8 items-center gap-2 rounded-md px-3 font-semibold ${chosen.as === "scores" ? PLAIN : MAIN}`}>
            <Plus aria-hidden size={16} />
            {TEXTS.newHandIn}
          </Link>
        )}
      </div>
      {gone.length > 0 && (
        <p role="status" className="mx-5 mb-2 flex flex-wrap items-center gap-3 rounded-md border border-edge bg-today px-3 py-1.5">
          {TEXTS.filterNamesGone({ names: gone.join(", ") })}
          <Button
            onClick={() =>
              set({
                section: chosen.sections.filter((one) => !gone.includes(one)),
                ...(gone.includes(chosen.period) ? { period: null } : {}),
                ...(gone.includes(chosen.group) ? { group: null } : {}),
              })
            }
          >
            {TEXTS.leaveOut}
          </Button>
        </p>
      )}
    </>
  );
}
