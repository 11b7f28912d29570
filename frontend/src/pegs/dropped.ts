/** Whom a place on the board stands for, where something out of the cupboard is dropped on it. */
import type { Meant } from "../cupboard/useGiveByDrop";
import type { Board, Row } from "../filtering/filters";

/**
 * A peg stands for its student and its hand-in's pocket, the rest of a row for its student, a head for everybody shown and that
 * pocket, all else for everybody shown; where nothing is filtered that is the whole class, whoever joins later too.
 */
export function whomAt(at: Element, board: Board, shown: Board, rows: Row[]): Meant {
  const cell = at.closest("[data-cell]");
  const [row, column] = placeOf(cell ?? at.closest('[role="row"]')?.querySelector("[data-cell]"));
  const one = rows[row];
  const pocket = cell ? shown.handins[column]?.pockets[0] : undefined;
  if (one) return { students: [one.id], pocket };
  const here = rows.filter((each) => !each.left);
  const all = board.students.filter((each) => !each.left);
  return { students: here.length === all.length ? [] : here.map((each) => each.id), pocket };
}

function placeOf(cell: Element | null | undefined): [number, number] {
  const [row = -1, column = -1] = (cell?.getAttribute("data-cell") ?? "").split(" ").filter(Boolean).map(Number);
  return [row, column];
}
