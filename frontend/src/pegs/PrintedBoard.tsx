/** What is shown on paper: every student, the head on each page, a few hand-ins at a time. */
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { createPortal } from "react-dom";
import { useGroupId } from "../api/session";
import { Coat } from "../ui/Coat";
import { shortDay } from "../ui/dates";
import { listed } from "../ui/words";
import type { Board, Row } from "../filtering/filters";
import type { Figures } from "./figures";
import { Coats, CoatWords } from "./Legend";
import { paperTitle } from "./paperTitle";
import type { Titled } from "./paperTitle";
import { scoreCoat, sheetQuery } from "./sheet";
import type { Sheet } from "./sheet";
import { SHEET } from "./sheetTexts";
import { CELLS, TEXTS } from "./texts";

const AT_ONCE = 12;
/** Hand-ins side by side on a page across. */
const FOR_HANDINS = 67;
/** Their share of its width, in per cent. */
const WIDEST = 11;
const NO_SCORE = ["not_due", "not_marked", "sent_back", "missing", "excused"] as const;

export interface Paper extends Titled {
  /** A number for each peg; undefined where coats are shown. */
  figures: Figures;
}

/** What stands in the table: pegs or scores. */
interface Standing {
  handins: { id: number; title: string; below: string }[];
  cell: (row: Row, place: number) => ReactNode;
  sum: string;
  sumOf: (row: Row) => string;
  foot: ReactNode;
}

export function PrintedBoard(props: Paper) {
  const scores = useQuery({ ...sheetQuery(useGroupId()), enabled: props.chosen.as === "scores" }).data;
  const standing = props.chosen.as === "scores" && scores ? ofScores(props.board, scores) : ofPegs(props);
  return createPortal(<Tables {...props} standing={standing} />, document.body);
}

function ofPegs({ board, chosen, figures }: Paper): Standing {
  return {
    handins: board.handins.map((one) => ({ id: one.id, title: one.title, below: one.due ? shortDay(one.due) : TEXTS.noDue })),
    cell: (row, place) => {
      const cell = row.cells[place];
      if (!cell || cell.status === "not_asked") return null;
      return figures ? figures(row, place) : <Coat state={cell} />;
    },
    sum: TEXTS.filled,
    sumOf: (row) => (row.wanted ? `${row.met}/${row.wanted}` : "–"),
    foot: figures && chosen.cells !== "coats" ? CELLS.means[chosen.cells] : <Coats whole />,
  };
}

function ofScores(board: Board, sheet: Sheet): Standing {
  const shown = new Set(board.handins.map((one) => one.id));
  const columns = sheet.handins.flatMap((one, place) => (shown.has(one.id) ? [{ one, place }] : []));
  const lines = new Map(sheet.rows.map((one) => [one.id, one]));
  return {
    handins: columns.map(({ one }) => ({ id: one.id, title: one.title, below: SHEET.of({ points: one.points }) })),
    cell: (row, at) => {
      const line = lines.get(row.id);
      const place = columns[at]?.place ?? -1;
      const kind = line?.kinds[place] ?? "not_asked";
      if (kind !== "scored") return kind === "not_asked" ? null : <Coat state={scoreCoat(kind)} />;
      return <span className={line?.counted[place] ? "" : "line-through"}>{line?.scores[place]}</span>;
    },
    sum: SHEET.total,
    sumOf: (row) => {
      const total = lines.get(row.id)?.total;
      return typeof total === "number" ? SHEET.totalIs({ total }) : SHEET.noTotal;
    },
    foot: <CoatWords entries={NO_SCORE.map((kind) => [scoreCoat(kind), SHEET.kinds[kind]])} />,
  };
}

function Tables({ standing, ...props }: Paper & { standing: Standing }) {
  const { handins } = standing;
  const starts = handins.map((_, at) => at).filter((at) => at % AT_ONCE === 0);
  const width = Math.min(WIDEST, FOR_HANDINS / Math.min(AT_ONCE, Math.max(1, handins.length)));
  return (
    <div className="on-paper text-xs text-ink">
      {(starts.length > 0 ? starts : [0]).map((start) => {
        const side = handins.slice(start, start + AT_ONCE);
        return (
          <table key={start} className="w-full table-fixed border-collapse [&:not(:first-child)]:break-before-page">
            <caption className="pb-2 text-left text-base font-bold">{paperTitle(props)}</caption>
            <thead>
              <tr className="border-b border-ink align-bottom">
                <th className="w-[20%] py-1 text-left">{TEXTS.student}</th>
                <th className="w-[6%] text-left">{TEXTS.period}</th>
                <th className="w-[7%] text-right">{standing.sum}</th>
                {side.map((one) => (
                  <th key={one.id} style={{ width: `${width}%` }} className="px-0.5 text-center hyphens-auto break-words">
                    {one.title}
                    <span className="block font-normal">{one.below}</span>
                  </th>
                ))}
                <td />
              </tr>
            </thead>
            <tbody>
              {props.rows.map((row) => (
                <tr key={row.id} className="break-inside-avoid border-b border-line">
                  <th className="py-0.5 text-left font-normal break-words">
                    {listed(row)}
                    {row.left && TEXTS.left2}
                  </th>
                  <td className="break-words">{row.period}</td>
                  <td className="figures text-right">{standing.sumOf(row)}</td>
                  {side.map((one, at) => (
                    <td key={one.id}>
                      <span className="figures flex justify-center">{standing.cell(row, start + at)}</span>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        );
      })}
      <div className="pt-2">{standing.foot}</div>
    </div>
  );
}
