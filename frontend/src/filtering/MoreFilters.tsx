/** The button of the further filters, with how many are on. */
import { SlidersHorizontal } from "lucide-react";
import { patiently } from "../api/patiently";
import { Later } from "../ui/OnFirstUse";
import { PILL } from "./Filters";
import { filtersOn, further } from "./filters";
import type { Board, Chosen, Filtered } from "./filters";
import { TEXTS } from "./texts";

export interface Props {
  /** The whole board, with every hand-in. */
  board: Board;
  chosen: Chosen;
  shown: Filtered;
  onChange: (changes: Record<string, string | string[] | null>) => void;
  onClear: () => void;
  /** There is no bar of filters beside it: periods and every status stand here, and nothing that arranges columns. */
  whole?: boolean;
}

const load = () => patiently(() => import("./FilterPanel")).then((found) => found.FilterPanel);

export function MoreFilters(props: Props) {
  const on = props.whole ? filtersOn(props.chosen) : further(props.chosen);
  const face = {
    label: on > 0 ? TEXTS.moreFiltersOn({ count: on }) : TEXTS.moreFilters,
    className: `${PILL} ${on > 0 ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`,
    content: (
      <>
        <SlidersHorizontal aria-hidden size={15} />
        {on > 0 && <span className="figures font-bold">{on}</span>}
      </>
    ),
  };
  return <Later kind="Panel" load={load} face={face} {...props} />;
}
