/** The board with changed rows in their places. What each count counts, the server says; here it is only counted. */
import type { Board, Row } from "../api/board";
import type { Schema } from "../api/client";

type Changes = Schema["ChangesShape"];
type Column = Board["handins"][number];

function patchedRow(row: Row, change: Changes["rows"][number], handins: Column[]): Row {
  const { cells, ...state } = change;
  return { ...row, ...state, cells: row.cells.map((cell, at) => cells[String(handins[at]?.id)] ?? cell) };
}

function counted(column: Column, at: number, students: Row[], counting: Board["counting"]): Column {
  const cells = students.map((row) => row.cells[at]);
  const count = (name: string) => cells.filter((cell) => cell && counting[name]?.includes(cell.status)).length;
  return {
    ...column,
    asked: count("asked"),
    in: count("in"),
    to_mark: count("to_mark"),
    accepted: count("accepted"),
    sent_back: count("sent_back"),
    overdue: cells.filter((cell) => cell?.overdue).length,
  };
}

function earlier(one: string | null, other: string | null): string | null {
  if (one === null || other === null) return one ?? other;
  return Date.parse(one) < Date.parse(other) ? one : other;
}

export function patched(board: Board, changes: Changes): Board {
  const changed = new Map(changes.rows.map((row) => [row.id, row]));
  const students = board.students.map((row) => {
    const change = changed.get(row.id);
    return change ? patchedRow(row, change, board.handins) : row;
  });
  const moved = new Set(changes.rows.flatMap((row) => Object.keys(row.cells)));
  const handins = board.handins.map((one, at) => (moved.has(String(one.id)) ? counted(one, at, students, board.counting) : one));
  // As it stands now it has no name of the server's.
  return { ...board, tag: null, students, handins, changes_at: earlier(board.changes_at, changes.changes_at) };
}
