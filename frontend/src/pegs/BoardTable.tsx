/** The grid of the board: sticky head and names, one stop for the tab key, arrow keys inside, drawn by need. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import { useNavigate } from "react-router";
import { shortDay } from "../ui/dates";
import { Button } from "../ui/Button";
import { useLetterKeys } from "../ui/keys";
import { BoardRow } from "./BoardRow";
import type { Board, Row } from "./filters";
import { TEXTS } from "./texts";

const ROW = 32;
/** Pixels: fourteen rows and more fit at 1280 × 800. */
const NAME = 196;
/** The least width of the names in pixels. */
const HEAD = 42;
/** The head's height in pixels. */

interface Props {
  board: Board;
  rows: Row[];
  handin: number | null;
  student: number | null;
  groupId: number;
  onOpen: (student: number, handin: number) => void;
  onColumn: (handin: number) => void;
  onClear: () => void;
}

export function BoardTable(props: Props) {
  const { board, rows, handin, student, groupId, onOpen, onColumn } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const columns = board.handins.length;
  const [at, setAt] = useState({ row: 0, column: 0 });
  const moved = useRef(false);
  const letters = useLetterKeys();
  // The row before the first is the head.
  const row = Math.min(at.row, rows.length - 1);
  const column = Math.min(at.column, Math.max(columns - 1, 0));
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are used in this render only
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: HEAD,
  });

  useEffect(() => {
    if (!moved.current) return;
    moved.current = false;
    if (row >= 0) virtual.scrollToIndex(row);
    requestAnimationFrame(() => {
      grid.current?.querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`)?.focus({ preventScroll: false });
    });
  }, [row, column, virtual]);

  const go = (to: { row: number; column: number }) => {
    moved.current = true;
    setAt({
      row: Math.max(-1, Math.min(rows.length - 1, to.row)),
      column: Math.max(0, Math.min(columns - 1, to.column)),
    });
  };
  // The same from one key to the next: only the rows that the keyboard leaves and reaches are drawn anew.
  const { handins } = board;
  const open = useCallback(
    (index: number, id: number, place: number) => {
      setAt({ row: index, column: place });
      const of = handins[place];
      if (of) onOpen(id, of.id);
    },
    [handins, onOpen],
  );
  const keys = (event: KeyboardEvent) => {
    const steps: Record<string, { row: number; column: number }> = {
      ArrowDown: { row: row + 1, column },
      ArrowUp: { row: row - 1, column },
      ArrowRight: { row, column: column + 1 },
      ArrowLeft: { row, column: column - 1 },
      PageDown: { row: row + 12, column },
      PageUp: { row: row - 12, column },
      Home: { row: event.ctrlKey ? 0 : row, column: 0 },
      End: { row: event.ctrlKey ? rows.length - 1 : row, column: columns - 1 },
    };
    const step = steps[event.key];
    const here = rows[row];
    const one = board.handins[column];
    if (step) go(step);
    else if (event.key === "m" && letters && here && one) {
      void navigate(`/g/${groupId}/pile?student=${here.id}&handin=${one.id}`);
    } else return;
    event.preventDefault();
  };

  const period = periodWidth(board.periods);
  // With few hand-ins the columns keep together at the left: the last track takes what is over.
  const template = `minmax(${NAME}px, 20rem) ${period}px 118px repeat(${columns}, minmax(56px, 7rem)) 58px minmax(0, 1fr)`;
  const least = NAME + period + 118 + 58 + columns * 56;
  return (
    // Nothing that has the focus lies under the head or the names.
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto" style={{ scrollPaddingTop: HEAD, scrollPaddingLeft: NAME }}>
      {/* eslint-disable-next-line jsx-a11y/interactive-supports-focus -- the cells take the focus */}
      <div
        ref={grid}
        role="grid"
        aria-label={TEXTS.pegsStudentsByHandIns}
        aria-rowcount={rows.length + 1}
        aria-colcount={columns + 4}
        onKeyDown={keys}
        style={{ minWidth: least }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 grid border-b border-edge bg-ground"
          style={{ gridTemplateColumns: template, height: HEAD }}
        >
          <div role="columnheader" className="sticky left-0 z-10 flex items-center gap-1 bg-ground pl-3 font-bold">
            {TEXTS.student} <span className="text-xs font-normal text-quiet">{TEXTS.bySurname}</span>
          </div>
          <div role="columnheader" className="self-center text-xs font-bold">
            {TEXTS.period}
          </div>
          <div role="columnheader" className="self-center font-bold">
            {TEXTS.filled}
          </div>
          {board.handins.map((one, place) => (
            <div key={one.id} role="columnheader" className={one.id === handin ? "bg-today" : ""}>
              <button
                type="button"
                data-cell={`-1 ${place}`}
                tabIndex={row === -1 && column === place ? 0 : -1}
                aria-pressed={one.id === handin}
                onClick={() => {
                  setAt({ row: -1, column: place });
                  onColumn(one.id);
                }}
                title={one.title}
                className="flex size-full flex-col items-center justify-center px-0.5 text-xs leading-[13px]"
              >
                <span className="line-clamp-2 max-w-full font-bold break-words">{one.title}</span>
                <span className="figures whitespace-nowrap text-quiet">{one.due ? shortDay(one.due) : TEXTS.noDue}</span>
              </button>
            </div>
          ))}
          <div role="columnheader" className="self-center pr-2 text-right text-xs leading-4 font-bold">
            {TEXTS.last}
          </div>
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const one = rows[item.index];
            if (!one) return null;
            return (
              <div key={one.id} className="absolute inset-x-0" style={{ transform: `translateY(${item.start}px)`, height: ROW }} role="presentation">
                <BoardRow
                  row={one}
                  index={item.index}
                  handins={board.handins}
                  today={board.today}
                  template={template}
                  handin={handin}
                  chosen={one.id === student}
                  stop={item.index === row ? column : null}
                  onOpen={open}
                />
              </div>
            );
          })}
        </div>
      </div>
      {rows.length === 0 && <Nobody any={board.students.length > 0} onClear={props.onClear} />}
    </div>
  );
}

/** Room for the longest name of a period on one line, within bounds (pixels). */
function periodWidth(periods: string[]): number {
  const longest = Math.max(0, ...periods.map((one) => one.length));
  return Math.min(Math.max(38, longest * 7 + 10), 132);
}

function Nobody({ any, onClear }: { any: boolean; onClear: () => void }) {
  return (
    <div className="flex flex-col items-center gap-2 p-10 text-center">
      <p className="text-base font-semibold">{any ? TEXTS.noMatch : TEXTS.noStudents}</p>
      {any ? <Button onClick={onClear}>{TEXTS.clear}</Button> : <p className="text-quiet">{TEXTS.noStudentsHint}</p>}
    </div>
  );
}
