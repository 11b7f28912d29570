/** The scores of those shown together: students × hand-ins with points, a total for each, how each hand-in came out. */
import { useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { patiently } from "../api/patiently";
import { may, useGroup, useGroupId } from "../api/session";
import { CoatShapes, SharedCoat } from "../ui/Coat";
import { Later } from "../ui/OnFirstUse";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import type { Board, Row } from "../filtering/filters";
import { scoreCoat, sheetQuery, typedOf, useTried } from "./sheet";
import type { Sheet as Shape, Typed } from "./sheet";
import { SheetRule } from "./SheetRule";
import { SHEET } from "./sheetTexts";

type Column = Shape["handins"][number];
type Line = Shape["rows"][number];

const ROW = 34;

export function Sheet({ board, rows }: { board: Board; rows: Row[] }) {
  const groupId = useGroupId();
  const mayWeigh = may(useGroup(), "set_handin");
  const found = useQuery(sheetQuery(groupId));
  const [typed, setTyped] = useState<Typed | null>(null);
  const tried = useTried(groupId, typed);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  if (found.data.handins.length === 0) return <None title={SHEET.none} hint={SHEET.noneHint} />;
  const shown = new Set(board.handins.map((one) => one.id));
  const columns = found.data.handins.flatMap((one, place) => (shown.has(one.id) ? [{ one, place }] : []));
  const after = typed === null ? undefined : tried.data;
  return (
    <>
      <SheetRule groupId={groupId} sheet={found.data} tried={after} problem={typed === null ? null : tried.error} typed={typed} onType={setTyped} onWeigh={mayWeigh ? () => setTyped(typedOf(found.data)) : null} />
      {rows.length === 0 ? (
        <None title={SHEET.nobody} />
      ) : (
        <Table groupId={groupId} sheet={found.data} after={after} rows={rows} columns={columns} typed={typed} onType={setTyped} />
      )}
    </>
  );
}

function None({ title, hint }: { title: string; hint?: string }) {
  return (
    <div className="flex flex-col items-center gap-2 p-10 text-center">
      <p className="text-base font-semibold">{title}</p>
      {hint && <p className="text-quiet">{hint}</p>}
    </div>
  );
}

interface TableProps {
  groupId: number;
  sheet: Shape;
  /** Under the weights that are tried. */
  after: Shape | undefined;
  rows: Row[];
  columns: { one: Column; place: number }[];
  typed: Typed | null;
  onType: (typed: Typed) => void;
}

function Table({ groupId, sheet, after, rows, columns, typed, onType }: TableProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const lines = new Map(sheet.rows.map((one) => [one.id, one]));
  const others = new Map(after?.rows.map((one) => [one.id, one]));
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are used in this render only
  const virtual = useVirtualizer({ count: rows.length, useFlushSync: false, getScrollElement: () => scroller.current, estimateSize: () => ROW, overscan: 6 });
  const inView = virtual.getVirtualItems();
  const before = inView[0]?.start ?? 0;
  const behind = virtual.getTotalSize() - (inView.at(-1)?.end ?? 0);
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard
    <div ref={scroller} tabIndex={0} role="region" aria-label={SHEET.title} className="relative min-h-0 flex-1 overflow-auto">
      <CoatShapes />
      <table className="border-separate border-spacing-0" aria-rowcount={rows.length + 1}>
        <thead>
          <tr className="align-top">
            <th scope="col" className="sticky top-0 left-0 z-20 min-w-52 border-b border-edge bg-ground px-3 py-2 text-left max-sm:min-w-36">
              {SHEET.student}
            </th>
            {columns.map(({ one }) => (
              <Head key={one.id} one={one} typed={typed} onType={onType} />
            ))}
            <th scope="col" className="sticky top-0 right-0 z-20 min-w-24 border-b border-l border-edge bg-ground px-3 py-2 text-right">
              {SHEET.total}
            </th>
          </tr>
        </thead>
        <tbody>
          {before > 0 && <Gap height={before} columns={columns.length} />}
          {inView.map((item) => {
            const row = rows[item.index];
            const line = row && lines.get(row.id);
            return row && line && <Student key={row.id} groupId={groupId} row={row} line={line} other={others.get(row.id)} columns={columns} at={item.index} />;
          })}
          {behind > 0 && <Gap height={behind} columns={columns.length} />}
        </tbody>
      </table>
    </div>
  );
}

/** Where rows are that are not drawn. */
function Gap({ height, columns }: { height: number; columns: number }) {
  return (
    <tr aria-hidden>
      <td colSpan={columns + 2} style={{ height }} />
    </tr>
  );
}

const criteria = () => patiently(() => import("./CriteriaPanel")).then((found) => found.CriteriaPanel);

function Head({ one, typed, onType }: { one: Column; typed: Typed | null; onType: (typed: Typed) => void }) {
  return (
    <th scope="col" className="sticky top-0 z-10 w-28 min-w-24 border-b border-edge bg-ground px-2 py-2 text-center font-normal">
      <span className="line-clamp-2 font-bold break-words" title={one.title}>
        {one.title}
      </span>
      <span className="figures block text-xs text-quiet">{SHEET.of({ points: one.points })}</span>
      <Spread one={one} />
      {one.criteria.length > 0 && <Later kind="Panel" load={criteria} face={{ label: SHEET.criteriaOf(one), className: "mx-auto min-h-7 rounded-sm px-1 text-xs text-in underline", content: SHEET.criteria }} one={one} />}
      {typed && (
        <input
          aria-label={SHEET.weightOf(one)}
          inputMode="decimal"
          autoComplete="off"
          placeholder={String(one.points)}
          value={typed.weights[String(one.id)] ?? ""}
          onChange={(event) => onType({ ...typed, weights: { ...typed.weights, [String(one.id)]: event.target.value } })}
          className="figures mx-auto mt-1 block min-h-8 w-16 rounded-md border border-control bg-paper px-2 text-center"
        />
      )}
    </th>
  );
}

/** How the scores of a hand-in are spread: a bar for each tenth of the points, and the median. */
function Spread({ one }: { one: Column }) {
  if (one.middle === null || one.low === null || one.high === null) return <span className="mt-1 flex min-h-8 items-center justify-center text-xs text-quiet">{SHEET.noScore}</span>;
  const most = Math.max(1, ...one.bars);
  const [low, middle, high] = [one.low, one.middle, one.high].map(Math.round) as [number, number, number];
  return (
    <>
      <svg viewBox="0 0 60 16" width="60" height="16" role="img" aria-label={SHEET.spread({ title: one.title, scored: one.scored, low, middle, high })} className="mx-auto mt-1 block">
        <path d="M0,15.5H60" className="fill-none stroke-line" />
        {one.bars.map((count, place) => {
          const tall = (14 * count) / most;
          // The bars have no identity of their own; their order is their place.
          return <rect key={place} x={place * 6 + 0.5} y={15 - tall} width={5} height={tall} className="fill-in" />;
        })}
      </svg>
      <span aria-hidden className="figures block text-xs text-quiet">
        {SHEET.median({ middle })}
      </span>
    </>
  );
}

interface StudentProps {
  groupId: number;
  row: Row;
  line: Line;
  other: Line | undefined;
  columns: TableProps["columns"];
  at: number;
}

function Student({ groupId, row, line, other, columns, at }: StudentProps) {
  const counted = (other ?? line).counted;
  return (
    <tr aria-rowindex={at + 2} style={{ height: ROW }}>
      <th scope="row" className="sticky left-0 z-10 border-b border-line bg-paper px-3 text-left font-normal">
        <span className="flex max-w-56 items-center gap-2">
          <PegPicture picture={row.picture} tint={row.tint} size={24} />
          <span className="min-w-0 truncate">
            <ListedName person={row} />
          </span>
        </span>
      </th>
      {columns.map(({ one, place }) => (
        <td key={one.id} className="border-b border-line text-center">
          <Place one={one} kind={line.kinds[place] ?? "not_asked"} score={line.scores[place] ?? null} counted={counted[place] ?? false} to={`/g/${groupId}/pile?student=${row.id}&handin=${one.id}`} />
        </td>
      ))}
      <td className="figures sticky right-0 border-b border-l border-line bg-paper px-3 text-right font-semibold whitespace-nowrap">
        <Total line={line} other={other} />
      </td>
    </tr>
  );
}

function Total({ line, other }: { line: Line; other: Line | undefined }) {
  const said = (total: number | null | undefined) => (typeof total === "number" ? SHEET.totalIs({ total }) : SHEET.noTotal);
  if (!other || other.total === line.total) return said(line.total);
  return <span className="text-copper">{SHEET.totalTo({ before: said(line.total), after: said(other.total) })}</span>;
}

function Place({ one, kind, score, counted, to }: { one: Column; kind: Line["kinds"][number]; score: number | null; counted: boolean; to: string }) {
  const link = "inline-flex min-h-7 min-w-10 items-center justify-center rounded-sm hover:bg-today";
  if (kind === "scored" && score !== null) {
    return (
      <Link to={to} aria-label={SHEET.score({ title: one.title, score, points: one.points, counted })} className={`figures ${link} ${counted ? "" : "text-quiet line-through"}`}>
        {score}
      </Link>
    );
  }
  if (kind === "scored" || kind === "not_asked") return <span className="sr-only">{SHEET.kinds.not_asked}</span>;
  const says = SHEET.stands({ title: one.title, state: SHEET.kinds[kind] });
  const coat = <SharedCoat state={scoreCoat(kind)} />;
  if (kind === "not_marked" || kind === "sent_back") {
    return (
      <Link to={to} aria-label={says} title={SHEET.kinds[kind]} className={link}>
        {coat}
      </Link>
    );
  }
  return (
    <span role="img" aria-label={says} title={SHEET.kinds[kind]} className="inline-flex min-h-7 items-center">
      {coat}
    </span>
  );
}
