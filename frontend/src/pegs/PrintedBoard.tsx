/** The board on paper: every student, the head on each page, a few hand-ins at a time. */
import { createPortal } from "react-dom";
import { Coat } from "../ui/Coat";
import { shortDay } from "../ui/dates";
import { listed } from "../ui/words";
import type { Figures } from "./figures";
import type { Board, Row } from "../filtering/filters";
import { Coats } from "./Legend";
import { TEXTS } from "./texts";

const AT_ONCE = 12;
/** Hand-ins side by side on a page across. */

export interface Paper {
  title: string;
  board: Board;
  rows: Row[];
  /** A number for each peg; undefined where coats are shown. */
  figures: Figures;
}

export function PrintedBoard({ title, board, rows, figures }: Paper) {
  const starts = board.handins.map((_, at) => at).filter((at) => at % AT_ONCE === 0);
  return createPortal(
    <div className="on-paper text-xs text-ink">
      {(starts.length > 0 ? starts : [0]).map((start) => {
        const handins = board.handins.slice(start, start + AT_ONCE);
        return (
          <table key={start} className="w-full table-fixed border-collapse [&:not(:first-child)]:break-before-page">
            <caption className="pb-2 text-left text-base font-bold">
              {title} · {shortDay(board.today)}
              {rows.length < board.students.length ? TEXTS.countOfCountStudents({ count: rows.length, count2: board.students.length }) : ""}
            </caption>
            <thead>
              <tr className="border-b border-ink align-bottom">
                <th className="w-[20%] py-1 text-left">{TEXTS.student}</th>
                <th className="w-[6%] text-left">{TEXTS.period}</th>
                <th className="w-[7%] text-right">{TEXTS.filled}</th>
                {handins.map((one) => (
                  <th key={one.id} className="w-[5.4%] px-0.5 text-center break-words">
                    {one.title}
                    <span className="block font-normal">{one.due ? shortDay(one.due) : TEXTS.noDue}</span>
                  </th>
                ))}
                {handins.length < AT_ONCE && <td />}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.id} className="break-inside-avoid border-b border-line">
                  <th className="py-0.5 text-left font-normal break-words">
                    {listed(row)}
                    {row.left && TEXTS.left2}
                  </th>
                  <td className="break-words">{row.period}</td>
                  <td className="figures text-right">{row.wanted ? `${row.met}/${row.wanted}` : "–"}</td>
                  {handins.map((one, at) => {
                    const cell = row.cells[start + at];
                    return (
                      <td key={one.id}>
                        <span className="flex justify-center">{cell && cell.status !== "not_asked" && (figures ? figures(row, start + at) : <Coat state={cell} />)}</span>
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        );
      })}
      {!figures && <Coats />}
    </div>,
    document.body,
  );
}
