/** Which students the chips let through. All filters combine; a chip counts with the other filters on. */
import type { Schema } from "../api/client";
import { found } from "../ui/people/find";
import { FILTERS } from "./texts";
import type { FilterName } from "./texts";

export type Board = Schema["BoardShape"];
export type Row = Schema["RowShape"];
type Cell = Schema["CellShape"];

/** What the address holds. ``handin`` is the selected column. */
export interface Chosen {
  handin: number | null;
  chips: FilterName[];
  period: string;
  group: string;
  find: string;
}

const WAITING = ["working", "empty"];

const TESTS: Record<Exclude<FilterName, "quiet">, (cell: Cell) => boolean> = {
  not_in: (cell) => WAITING.includes(cell.status),
  to_mark: (cell) => cell.status === "handed_in",
  sent_back: (cell) => cell.status === "sent_back",
  overdue: (cell) => cell.overdue,
  late: (cell) => cell.late,
};

/** Read the filters from the address. */
export function chosenFrom(address: URLSearchParams): Chosen {
  const chips = (address.get("show") ?? "").split(",").filter((one): one is FilterName => one in FILTERS);
  const handin = Number(address.get("handin"));
  return {
    handin: handin || null,
    chips,
    period: address.get("period") ?? "",
    group: address.get("group") ?? "",
    find: address.get("find") ?? "",
  };
}

function fits(row: Row, chip: FilterName, column: number): boolean {
  if (chip === "quiet") return row.quiet && !row.left;
  const cells = column < 0 ? row.cells : row.cells.slice(column, column + 1);
  return cells.some(TESTS[chip]);
}

/** Whether a search is on: it looks among everybody, and the filters rest. */
export function searching(chosen: Chosen): boolean {
  return chosen.find.trim() !== "";
}

/** The rows to show, and how many rows each chip would leave. */
export function filtered(board: Board, chosen: Chosen): { rows: Row[]; counts: Record<FilterName, number> } {
  const column = board.handins.findIndex((one) => one.id === chosen.handin);
  const all = found(board.students, chosen.find);
  const base = all.filter((row) => (!chosen.period || row.period === chosen.period) && (!chosen.group || row.groups.includes(chosen.group)));
  const rows = searching(chosen) ? all : base.filter((row) => chosen.chips.every((chip) => fits(row, chip, column)));
  const names = Object.keys(FILTERS) as FilterName[];
  const counts = Object.fromEntries(names.map((chip) => [chip, rows.filter((row) => fits(row, chip, column)).length]));
  return { rows, counts: counts as Record<FilterName, number> };
}
