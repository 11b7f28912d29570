/** The head of a column of the board: a hand-in with its due date, under the band of its section where bands are wanted. */
import { Pin } from "lucide-react";
import { shortDay } from "../ui/dates";
import { bandOf } from "../filtering/filters";
import type { Board } from "../filtering/filters";
import { TEXTS } from "./texts";

interface Props {
  handins: Board["handins"];
  place: number;
  /** Where it stays while the others are scrolled sideways (pixels); null where it goes with them. */
  left: number | null;
  /** Whether the columns stand in bands, and whether this is the first in view of those that are not pinned. */
  banded: boolean;
  first: boolean;
  chosen: boolean;
  stop: boolean;
  onPress: () => void;
}

function groundOf(chosen: boolean, pinned: boolean): string {
  if (chosen) return "bg-today";
  return pinned ? "bg-ground" : "";
}

export function BoardHead({ handins, place, left, banded, first, chosen, stop, onPress }: Props) {
  const one = handins[place];
  if (!one) return null;
  const pinned = left !== null;
  return (
    <div
      role="columnheader"
      aria-colindex={place + 4}
      className={`flex min-w-0 flex-col ${pinned ? "sticky z-10" : "relative"} ${groundOf(chosen, pinned)}`}
      style={pinned ? { left } : undefined}
    >
      {banded && <Band handins={handins} place={place} first={first} pinned={pinned} />}
      <button
        type="button"
        data-cell={`-1 ${place}`}
        tabIndex={stop ? 0 : -1}
        aria-pressed={chosen}
        onClick={onPress}
        title={one.title}
        className="flex min-h-0 w-full flex-1 flex-col items-center justify-center px-0.5 text-xs leading-[13px]"
      >
        <span className="line-clamp-2 max-w-full font-bold break-words">{one.title}</span>
        <span className="figures whitespace-nowrap text-quiet">
          {pinned && <Pin aria-label={TEXTS.pinned} size={10} className="mr-0.5 inline" />}
          {one.due ? shortDay(one.due) : TEXTS.noDue}
        </span>
      </button>
    </div>
  );
}

/** The name of a section over the first column in view that collects from it alone; it runs on over those beside it. */
function Band({ handins, place, first, pinned }: Pick<Props, "handins" | "place" | "first"> & { pinned: boolean }) {
  if (pinned) return <span className="block h-[15px] shrink-0" />;
  const band = bandOf(handins[place]);
  const begins = first || bandOf(handins[place - 1]) !== band;
  return (
    <span className={`relative block h-[15px] shrink-0 border-b border-edge text-[11px] leading-[15px] text-ink-soft ${begins ? "border-l" : ""}`}>
      {begins && <span className="absolute inset-y-0 left-1 z-10 whitespace-nowrap">{band || TEXTS.severalSections}</span>}
    </span>
  );
}
