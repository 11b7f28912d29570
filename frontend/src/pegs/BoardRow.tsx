/** One student on the board. */
import { memo } from "react";
import { Coat } from "../ui/Coat";
import { daysAgo } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { inWords, listed } from "../ui/words";
import type { Board, Row } from "./filters";
import { TEXTS } from "./texts";

interface Props {
  row: Row;
  index: number;
  handins: Board["handins"];
  today: string;
  template: string;
  handin: number | null;
  chosen: boolean;
  /** The column that the tab key stops at, where this is the row. */
  stop: number | null;
  onOpen: (index: number, student: number, column: number) => void;
}

function Bar({ row }: { row: Row }) {
  if (!row.wanted) return <span className="text-xs text-quiet">{TEXTS.nothingWanted}</span>;
  const share = Math.round((100 * row.met) / row.wanted);
  return (
    <span className="flex items-center gap-2" title={TEXTS.metOfWantedWantedSo({ met: row.met, wanted: row.wanted })}>
      <span aria-hidden className="meter h-1.5 w-14 overflow-hidden rounded-full bg-line">
        <span className="block h-full bg-ink-soft" style={{ width: `${share}%` }} />
      </span>
      <span className="figures text-ink-soft">{share}%</span>
    </span>
  );
}

export const BoardRow = memo(function BoardRow({ row, index, handins, today, template, handin, chosen, stop, onOpen }: Props) {
  const ground = chosen ? "bg-today" : "bg-paper";
  const name = listed(row);
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={`grid h-full items-center border-b border-line ${ground}`}
      style={{ gridTemplateColumns: template }}
    >
      <div role="rowheader" className={`sticky left-0 z-10 flex h-full items-center gap-2 overflow-hidden pr-2 pl-3 ${ground}`}>
        <PegPicture picture={row.picture} tint={row.tint} size={24} />
        <span className="truncate" title={name}>
          <ListedName person={row} />
          {row.left && <span className="text-quiet">{" "}{TEXTS.left}</span>}
        </span>
      </div>
      <div role="gridcell" title={row.period} className="truncate pr-1 text-xs text-ink-soft">
        {row.period}
      </div>
      <div role="gridcell">
        <Bar row={row} />
      </div>
      {row.cells.map((cell, column) => {
        const one = handins[column];
        if (!one) return null;
        const open = chosen && one.id === handin;
        return (
          <div key={one.id} role="gridcell" aria-selected={open} className={`h-full ${one.id === handin ? "bg-today" : ""}`}>
            {cell.status === "not_asked" ? (
              <button
                type="button"
                data-cell={`${index} ${column}`}
                tabIndex={stop === column ? 0 : -1}
                aria-label={TEXTS.nameTitleNotAsked({ name, title: one.title })}
                className="size-full"
                onClick={() => onOpen(index, row.id, column)}
              />
            ) : (
              <button
                type="button"
                data-cell={`${index} ${column}`}
                tabIndex={stop === column ? 0 : -1}
                aria-label={TEXTS.cellIs({ name, title: one.title, state: inWords(cell) })}
                onClick={() => onOpen(index, row.id, column)}
                className={`flex size-full items-center justify-center ${open ? "outline-2 -outline-offset-2 outline-copper" : "hover:bg-today"}`}
              >
                <span key={cell.status + String(cell.count)} className={cell.count ? "hung" : ""}>
                  <Coat state={cell} />
                </span>
              </button>
            )}
          </div>
        );
      })}
      <div role="gridcell" className="figures pr-2 text-right text-xs text-ink-soft">
        {row.last_work ? daysAgo(row.last_work, today) : "–"}
      </div>
    </div>
  );
});
