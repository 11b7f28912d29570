/** The grid of the board: sticky head and names, one stop for the tab key, arrow keys inside, drawn by need. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { Fragment, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { FocusEvent, KeyboardEvent } from "react";
import { ChevronDown } from "lucide-react";
import { useNavigate } from "react-router";
import { Button } from "../ui/Button";
import { CoatShapes } from "../ui/Coat";
import { useLetterKeys } from "../ui/keys";
import { OnFirstUse } from "../ui/OnFirstUse";
import { BoardHead } from "./BoardHead";
import { BoardRow } from "./BoardRow";
import { leftOf, placesOf, spanOf, tracks } from "./columns";
import type { Figures } from "./figures";
import { groupsOf } from "../filtering/filters";
import type { Board, Row } from "../filtering/filters";
import { placeOf } from "./picking";
import { useRationed } from "./rationing";
import type { Picking, Place } from "./picking";
import { Totals } from "./Totals";
import { ORDERS } from "../filtering/texts";
import { TEXTS } from "./texts";
import type { Order } from "../filtering/texts";

const ROW = 32;
/** Pixels: fourteen rows and more fit at 1280 × 800. */
const NAME = 196;
/** The least width of the names in pixels. */
const HEAD = 42;
/** The head's height in pixels. */
const BAND = 15;
/** The same of a line for the bands above it. */
const MANY = 20;
/** Hand-ins beyond which only those in view are drawn, each as wide as the next. */

interface Props {
  board: Board;
  rows: Row[];
  handin: number | null;
  student: number | null;
  groupId: number;
  onOpen: (student: number, handin: number) => void;
  onColumn: (handin: number) => void;
  onClear: () => void;
  /** A number for each peg; undefined where coats are shown. */
  figures: Figures;
  picking: Picking;
  /** So many of the first columns stay beside the names. */
  pins: number;
  /** Whether the columns stand in bands by section. */
  banded: boolean;
  order: Order;
  onOrder: (order: string) => void;
}

/** Where a key leads from a peg; undefined where it leads nowhere. */
function stepOf(event: KeyboardEvent, { row, column }: Place, last: Place): Place | undefined {
  const steps: Record<string, Place> = {
    ArrowDown: { row: row + 1, column },
    ArrowUp: { row: row - 1, column },
    ArrowRight: { row, column: column + 1 },
    ArrowLeft: { row, column: column - 1 },
    PageDown: { row: row + 12, column },
    PageUp: { row: row - 12, column },
    Home: { row: event.ctrlKey ? 0 : row, column: 0 },
    End: { row: event.ctrlKey ? last.row : row, column: last.column },
  };
  return steps[event.key];
}

export function BoardTable(props: Props) {
  const { board, rows, handin, student, groupId, onOpen, onColumn, picking, pins, banded, order, onOrder } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const { handins, counting } = board;
  const columns = handins.length;
  const few = columns <= MANY;
  const [at, setAt] = useState({ row: 0, column: 0 });
  /** Where a key led last. */
  const [moved, setMoved] = useState<Place | null>(null);
  /** The peg that the keyboard is on, or on its way to: a peg that is not drawn takes the focus as soon as it is. */
  const held = useRef<Place | null>(null);
  /** Whether the focus is still on its way there: what it passes meanwhile, as keys are pressed quickly, is no place to go on from. */
  const going = useRef(false);
  const letters = useLetterKeys();
  // Rows and head grow with the text, where somebody has set it larger in their browser.
  const [larger] = useState(textScale);
  const high = Math.round(ROW * larger);
  const head = Math.round(headHeight(banded) * larger);
  // The row before the first is the head.
  const row = Math.min(at.row, rows.length - 1);
  const column = Math.min(at.column, Math.max(columns - 1, 0));
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are used in this render only
  const virtual = useVirtualizer({
    count: rows.length,
    useFlushSync: false,
    getScrollElement: () => scroller.current,
    estimateSize: () => high,
    overscan: 4,
    scrollPaddingStart: head,
  });

  const down = virtual.getVirtualItems();
  const full = useRationed(down.flatMap((item) => rows[item.index]?.id ?? []), virtual.isScrolling);
  const beside = useMemo(() => besideNames(board, order), [board, order]);
  const period = periodWidth(beside.all) * larger;
  const [name, filled, peg, sum, last] = [NAME * larger, 118 * larger, 56 * larger, 46 * larger, 58 * larger];
  const across = useVirtualizer({
    horizontal: true,
    enabled: !few,
    useFlushSync: false,
    count: columns - pins,
    getScrollElement: () => scroller.current,
    estimateSize: () => peg,
    overscan: 1,
    paddingStart: name + period + filled + pins * peg,
    paddingEnd: sum + last,
    scrollPaddingStart: name + pins * peg,
  });
  const inView = across.getVirtualItems();
  const drawn = few ? { from: pins, to: columns } : spanOf(inView, pins);
  const shown = useMemo(() => placesOf(pins, drawn.from, drawn.to), [pins, drawn.from, drawn.to]);

  const reach = useCallback(
    (to: Place) => {
      if (to.row >= 0) virtual.scrollToIndex(to.row);
      if (!few && to.column >= pins) across.scrollToIndex(to.column - pins);
    },
    [virtual, across, few, pins],
  );
  useEffect(() => {
    if (moved) reach(moved);
  }, [moved, reach]);
  // What opens beside a wide board makes it narrower, and may take the peg that has the focus out of view.
  const width = across.scrollRect?.width;
  useEffect(() => {
    if (held.current) reach(held.current);
  }, [width, reach]);
  // After everything that is drawn: a peg that was out of view and is drawn again has the focus again, however long that took.
  useLayoutEffect(() => {
    const lost = document.activeElement === document.body;
    if (!held.current || !(going.current || lost)) return;
    grid.current?.querySelector<HTMLElement>(`[data-cell="${held.current.row} ${held.current.column}"]`)?.focus();
  });

  // Whatever led the focus to a peg, the next key is meant for it.
  const follow = (event: FocusEvent) => {
    const to = placeOf(event);
    if (!to) return;
    if (!going.current) {
      held.current = to;
      setAt(to);
    } else if (held.current?.row === to.row && held.current.column === to.column) going.current = false;
  };
  // A peg that goes out of view is not left: nobody led the focus elsewhere.
  const leave = (event: FocusEvent) => {
    if (event.relatedTarget instanceof Element && event.relatedTarget.closest("[data-cell]")) return;
    held.current = null;
    going.current = false;
  };
  const go = (to: { row: number; column: number }) => {
    const place = {
      row: Math.max(-1, Math.min(rows.length - 1, to.row)),
      column: Math.max(0, Math.min(columns - 1, to.column)),
    };
    held.current = place;
    going.current = true;
    setAt(place);
    setMoved(place);
  };
  // The same from one key to the next: only the rows that the keyboard leaves and reaches are drawn anew.
  const open = useCallback(
    (index: number, id: number, place: number) => {
      going.current = false;
      setAt({ row: index, column: place });
      const of = handins[place];
      if (of) onOpen(id, of.id);
    },
    [handins, onOpen],
  );
  const keys = (event: KeyboardEvent) => {
    // The peg that the key is pressed on, wherever the board was sorted to meanwhile.
    const from = going.current ? { row, column } : (placeOf(event) ?? { row, column });
    const step = stepOf(event, from, { row: rows.length - 1, column: columns - 1 });
    const here = rows[from.row];
    const one = board.handins[from.column];
    if (picking.key(event, from, step ?? null)) {
      event.preventDefault();
      return;
    }
    if (step) go(step);
    else if (event.key === "m" && letters && here && one) {
      void navigate(`/g/${groupId}/pile?student=${here.id}&handin=${one.id}`);
    } else return;
    event.preventDefault();
  };

  const widths = { name, period, filled, peg, sum, last };
  const template = tracks(widths, columns, pins, few ? null : drawn);
  const least = name + period + filled + sum + last + columns * peg;
  return (
    // Nothing that has the focus lies under the head or the names.
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto" style={{ scrollPaddingTop: head, scrollPaddingLeft: name + pins * peg }}>
      <CoatShapes />
      {/* eslint-disable-next-line jsx-a11y/interactive-supports-focus -- the cells take the focus */}
      <div
        ref={grid}
        role="grid"
        aria-label={TEXTS.pegsStudentsByHandIns}
        aria-rowcount={rows.length + 1}
        aria-colcount={columns + 5}
        aria-multiselectable
        onFocus={follow}
        onBlur={leave}
        onKeyDown={(event) => (onPeg(event) ? keys(event) : undefined)}
        {...picking.mouse}
        style={{ minWidth: least }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 grid border-b border-edge bg-ground"
          style={{ gridTemplateColumns: template, height: head }}
        >
          <div role="columnheader" className="sticky left-0 z-10 flex items-center gap-1 bg-ground pl-3 font-bold">
            {TEXTS.student}
            <OnFirstUse
              kind="Choices"
              face={{ label: TEXTS.orderIs({ order: ORDERS[order] }), className: "flex min-h-6 min-w-0 items-center gap-0.5 rounded-sm px-1 text-xs font-normal text-ink-soft hover:bg-today", content: <><span className="truncate">{ORDERS[order]}</span><ChevronDown aria-hidden size={13} className="shrink-0" /></> }}
              value={order}
              options={(Object.keys(ORDERS) as Order[]).map((one) => ({ value: one, shown: ORDERS[one] }))}
              onChange={onOrder}
            />
          </div>
          <div role="columnheader" className="self-center text-xs font-bold">
            {beside.head}
          </div>
          <div role="columnheader" className="self-center font-bold">
            {TEXTS.filled}
          </div>
          {!few && pins === 0 && <span role="presentation" />}
          {shown.map((place) => (
            <Fragment key={handins[place]?.id}>
              <BoardHead
                handins={handins}
                place={place}
                left={leftOf(place, pins, name, peg)}
                banded={banded}
                first={place === drawn.from}
                chosen={handins[place]?.id === handin}
                stop={row === -1 && column === place}
                onPress={() => {
                  setAt({ row: -1, column: place });
                  const one = handins[place];
                  if (one) onColumn(one.id);
                }}
              />
              {!few && place === pins - 1 && <span role="presentation" />}
            </Fragment>
          ))}
          {!few && <span role="presentation" />}
          <div role="columnheader" aria-colindex={columns + 4} className="self-center text-center text-xs font-bold">
            {TEXTS.inHead}
          </div>
          <div role="columnheader" aria-colindex={columns + 5} className="self-center pr-2 text-right text-xs leading-4 font-bold">
            {TEXTS.last}
          </div>
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {down.map((item) => {
            const one = rows[item.index];
            if (!one) return null;
            return (
              <div key={one.id} className="absolute inset-x-0 contain-layout contain-style" style={{ transform: `translateY(${item.start}px)`, height: high }} role="presentation">
                <BoardRow
                  row={one}
                  belongs={beside.of(one)}
                  index={item.index}
                  handins={board.handins}
                  today={board.today}
                  template={template}
                  shown={shown}
                  pins={pins}
                  beside={name}
                  wide={peg}
                  part={!few}
                  counting={counting}
                  figures={props.figures}
                  handin={handin}
                  chosen={one.id === student}
                  stop={item.index === row ? column : null}
                  onOpen={open}
                  full={full(one.id)}
                  picked={picking.inRow(one)}
                  onPick={picking.on ? picking.pickRow : null}
                />
              </div>
            );
          })}
        </div>
      </div>
      {rows.length > 1 && columns > 0 && <Totals board={board} rows={rows} template={template} shown={shown} pins={pins} beside={name} wide={peg} part={!few} least={least} />}
      {rows.length === 0 && <Nobody any={board.students.length > 0} onClear={props.onClear} />}
    </div>
  );
}

/** What stands beside the names: the period, or the groups where the rows stand by these. */
function besideNames(board: Board, order: Order): { head: string; all: string[]; of: (row: Row) => string } {
  if (order === "group") return { head: TEXTS.group, all: board.students.map(groupsOf), of: groupsOf };
  return { head: TEXTS.period, all: board.periods, of: (row) => row.period };
}

function headHeight(banded: boolean): number {
  return banded ? HEAD + BAND : HEAD;
}

/** Whether a key is for the pegs: the order's button and the rows' boxes have keys of their own. */
function onPeg(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest("[data-cell]") !== null;
}

/** How much larger than usual the text of this browser is. */
function textScale(): number {
  return Math.max(1, (parseFloat(getComputedStyle(document.documentElement).fontSize) || 16) / 16);
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
