/** One student on the board. */
import { Fragment, memo, useState } from "react";
import { SharedCoat } from "../ui/Coat";
import { daysAgo } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { inWords, listed } from "../ui/words";
import { leftOf } from "./columns";
import { inOf } from "../filtering/filters";
import type { Figures } from "./figures";
import type { Board, Row } from "../filtering/filters";
import { TEXTS } from "./texts";

interface Props {
  row: Row;
  /** The period, or the groups where the rows stand by these. */
  belongs: string;
  index: number;
  handins: Board["handins"];
  today: string;
  template: string;
  /** The places of the hand-ins that are drawn; so many of the first are pinned, side by side from this pixel on. */
  shown: number[];
  pins: number;
  beside: number;
  /** How wide a pinned one is (pixels). */
  wide: number;
  /** Whether these are only some: what lies before and after takes a track of its own. */
  part: boolean;
  counting: Board["counting"];
  figures: Figures;
  handin: number | null;
  chosen: boolean;
  /** The column that the tab key stops at, where this is the row. */
  stop: number | null;
  onOpen: (index: number, student: number, column: number) => void;
  /** The chosen columns: ``0,3``. */
  picked: string;
  /** Whether its pegs are drawn; otherwise it is passed by quickly, and its name is all there is to see. */
  full: boolean;
  /** Chooses the whole row, while pegs are chosen. */
  onPick: ((index: number) => void) | null;
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

/** How much of what is asked of a student is in, of the hand-ins that are shown. */
function Sum({ row, counting }: { row: Row; counting: Board["counting"] }) {
  const { count, of } = inOf(row.cells, counting);
  return (
    <div role="gridcell" title={TEXTS.inOfAsked({ count, of })} className="figures text-center text-xs text-ink-soft">
      {of > 0 && TEXTS.inOf({ count, of })}
    </div>
  );
}

export const BoardRow = memo(function BoardRow(props: Props) {
  const { row, belongs, index, handins, template, chosen, full, picked, onPick } = props;
  const ground = groundOf(chosen);
  const name = listed(row);
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={`grid h-full items-center border-b border-line ${ground}`}
      style={{ gridTemplateColumns: template }}
    >
      <div role="rowheader" className={`sticky left-0 z-10 flex h-full items-center gap-2 overflow-hidden pr-2 pl-3 ${ground}`}>
        {onPick && <input type="checkbox" className="size-4 shrink-0 accent-ink" aria-label={TEXTS.chooseAllOf({ name })} checked={columnsOf(picked).length === handins.length} onChange={() => onPick(index)} />}
        <PegPicture picture={row.picture} tint={row.tint} size={24} />
        <span className="truncate" title={name}>
          <ListedName person={row} />
          {row.left && <span className="text-quiet">{" "}{TEXTS.left}</span>}
        </span>
      </div>
      <div role="gridcell" title={belongs} className="truncate pr-1 text-xs text-ink-soft">
        {belongs}
      </div>
      {full && <Pegs {...props} />}
    </div>
  );
});

/** What stands behind the name and the period. */
function Pegs({ row, index, handins, today, shown, pins, beside, wide, part, counting, figures, handin, chosen, stop, onOpen, picked }: Props) {
  const ground = groundOf(chosen);
  const columns = columnsOf(picked);
  const name = listed(row);
  return (
    <>
      <div role="gridcell">
        <Bar row={row} />
      </div>
      {part && pins === 0 && <span role="presentation" />}
      {shown.map((column) => {
        const one = handins[column];
        const cell = row.cells[column];
        if (!one || !cell) return null;
        return (
          <Fragment key={one.id}>
            <Peg
              cell={cell}
              left={leftOf(column, pins, beside, wide)}
              ground={ground}
              figure={figures?.(row, column)}
              title={one.title}
              name={name}
              index={index}
              student={row.id}
              column={column}
              stop={stop === column}
              open={chosen && one.id === handin}
              picked={columns.includes(column)}
              shaded={one.id === handin}
              onOpen={onOpen}
            />
            {part && column === pins - 1 && <span role="presentation" />}
          </Fragment>
        );
      })}
      {part && <span role="presentation" />}
      <Sum row={row} counting={counting} />
      <div role="gridcell" className="figures pr-2 text-right text-xs text-ink-soft">
        {row.last_work ? daysAgo(row.last_work, today) : "–"}
      </div>
    </>
  );
}

function groundOf(chosen: boolean): string {
  return chosen ? "bg-today" : "bg-paper";
}

function columnsOf(picked: string): number[] {
  return picked ? picked.split(",").map(Number) : [];
}

/** In words, once for all cells that stand alike: a year group has some hundreds of them. */
const WORDS = new WeakMap<Row["cells"][number], string>();

function wordsOf(cell: Row["cells"][number]): string {
  const words = WORDS.get(cell) ?? inWords(cell);
  WORDS.set(cell, words);
  return words;
}

function labelOf(cell: Row["cells"][number], name: string, title: string, figure: string | undefined): string {
  if (cell.status === "not_asked") return TEXTS.nameTitleNotAsked({ name, title });
  const is = TEXTS.cellIs({ name, title, state: wordsOf(cell) });
  return figure ? TEXTS.cellSays({ is, figure }) : is;
}

interface PegProps {
  cell: Row["cells"][number];
  /** A number in place of the coat. */
  figure: string | undefined;
  title: string;
  name: string;
  /** The row and the column, counted from nought, and whose row it is. */
  index: number;
  student: number;
  column: number;
  stop: boolean;
  open: boolean;
  /** Where it stays while the others are scrolled sideways (pixels); null where it goes with them. */
  left: number | null;
  ground: string;
  picked: boolean;
  shaded: boolean;
  onOpen: (index: number, student: number, column: number) => void;
}

function pegGround(picked: boolean, shaded: boolean, otherwise: string): string {
  if (picked) return "bg-in-soft outline-2 -outline-offset-2 outline-in";
  return shaded ? "bg-today" : otherwise;
}

const Peg = memo(function Peg({ cell, figure, title, name, index, student, column, stop, open, left, ground: rowGround, picked, shaded, onOpen }: PegProps) {
  const asked = cell.status !== "not_asked";
  const pinned = left === null ? undefined : { left };
  const ground = pegGround(picked, shaded, pinned ? rowGround : "");
  const edge = open ? "outline-2 -outline-offset-2 outline-copper" : "hover:bg-today";
  return (
    <div role="gridcell" aria-colindex={column + 4} aria-selected={open || picked} className={`h-full ${pinned ? "sticky z-10" : ""} ${ground}`} style={pinned}>
      <button
        type="button"
        data-cell={`${index} ${column}`}
        tabIndex={stop ? 0 : -1}
        aria-label={labelOf(cell, name, title, figure)}
        onClick={() => onOpen(index, student, column)}
        className={asked ? `flex size-full items-center justify-center ${edge}` : "size-full"}
      >
        {asked && <What cell={cell} figure={figure} />}
      </button>
    </div>
  );
});

function What({ cell, figure }: Pick<PegProps, "cell" | "figure">) {
  return figure === undefined ? <Hung cell={cell} /> : <span className="figures text-xs">{figure || TEXTS.noFigure}</span>;
}

/** A coat is hung up while one looks, not where it comes into view. */
function Hung({ cell }: { cell: Row["cells"][number] }) {
  const kind = cell.status + String(cell.count);
  const [found] = useState(kind);
  return (
    <SharedCoat key={kind} state={cell} className={cell.count && kind !== found ? "hung" : ""} />
  );
}
