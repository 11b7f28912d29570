/** Under the pegs: of those shown, how many are in of each hand-in and over all. */
import { Fragment, useMemo } from "react";
import { leftOf } from "./columns";
import { inOf } from "../filtering/filters";
import type { Board, Row } from "../filtering/filters";
import { TEXTS } from "./texts";

interface Props {
  board: Board;
  rows: Row[];
  template: string;
  /** The places of the hand-ins that are drawn, as in a row. */
  shown: number[];
  pins: number;
  beside: number;
  wide: number;
  part: boolean;
  least: number;
}

export function Totals({ board, rows, template, shown, pins, beside, wide, part, least }: Props) {
  const { handins, counting } = board;
  const sums = useMemo(() => handins.map((_, place) => inOf(rows.flatMap((row) => row.cells[place] ?? []), counting)), [handins, rows, counting]);
  const count = sums.reduce((all, one) => all + one.count, 0);
  const of = sums.reduce((all, one) => all + one.of, 0);
  return (
    <div className="sticky bottom-0 z-20 grid min-h-7 items-center border-t border-edge bg-ground text-xs font-bold" style={{ gridTemplateColumns: template, minWidth: least }}>
      <span className="sticky left-0 z-10 flex h-full items-center bg-ground pl-3">{TEXTS.ofShown({ count: rows.length })}</span>
      <span />
      <span />
      {part && pins === 0 && <span />}
      {shown.map((place) => {
        const one = sums[place];
        if (!one) return null;
        const left = leftOf(place, pins, beside, wide);
        return (
          <Fragment key={handins[place]?.id}>
            <span className={`figures text-center ${left !== null ? "sticky z-10 flex h-full items-center justify-center bg-ground" : ""}`} style={left === null ? undefined : { left }} title={TEXTS.inOfAsked(one)}>
              {one.of > 0 && TEXTS.inOf(one)}
            </span>
            {part && place === pins - 1 && <span />}
          </Fragment>
        );
      })}
      {part && <span />}
      <span className="figures text-center" title={TEXTS.inOfAsked({ count, of })}>
        {of > 0 && TEXTS.inOf({ count, of })}
      </span>
      <span />
    </div>
  );
}
