/** Under the pegs: of those shown, how many are in of each hand-in and over all. */
import { useMemo } from "react";
import { inOf } from "./filters";
import type { Board, Row } from "./filters";
import { TEXTS } from "./texts";

interface Props {
  board: Board;
  rows: Row[];
  template: string;
  drawn: { from: number; to: number };
  part: boolean;
  least: number;
}

export function Totals({ board, rows, template, drawn, part, least }: Props) {
  const { handins, counting } = board;
  const sums = useMemo(() => handins.map((_, place) => inOf(rows.flatMap((row) => row.cells[place] ?? []), counting)), [handins, rows, counting]);
  const count = sums.reduce((all, one) => all + one.count, 0);
  const of = sums.reduce((all, one) => all + one.of, 0);
  return (
    <div className="sticky bottom-0 z-20 grid min-h-7 items-center border-t border-edge bg-ground text-xs font-bold" style={{ gridTemplateColumns: template, minWidth: least }}>
      <span className="sticky left-0 z-10 flex h-full items-center bg-ground pl-3">{TEXTS.ofShown({ count: rows.length })}</span>
      <span />
      <span />
      {part && <span />}
      {sums.slice(drawn.from, drawn.to).map((one, shown) => (
        <span key={handins[drawn.from + shown]?.id} className="figures text-center" title={TEXTS.inOfAsked(one)}>
          {one.of > 0 && TEXTS.inOf(one)}
        </span>
      ))}
      {part && <span />}
      <span className="figures text-center" title={TEXTS.inOfAsked({ count, of })}>
        {of > 0 && TEXTS.inOf({ count, of })}
      </span>
      <span />
    </div>
  );
}
