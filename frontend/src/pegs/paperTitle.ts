/** Over what is printed: whose it is, what is filtered, of which day, and how many of the students stand in it. */
import { shortDay } from "../ui/dates";
import type { Board, Chosen, Row } from "../filtering/filters";
import { saidOf } from "../filtering/said";
import { TEXTS } from "./texts";

export interface Titled {
  /** The name of the class. */
  title: string;
  board: Board;
  rows: Row[];
  chosen: Chosen;
  /** Whether the filters of students rest. */
  rest: boolean;
}

export function paperTitle({ title, board, rows, chosen, rest }: Titled): string {
  const all = board.students.length;
  const some = rows.length < all ? TEXTS.countOfCountStudents({ count: rows.length, count2: all }) : "";
  return [title, ...saidOf(board, chosen, rest), shortDay(board.today)].join(" · ") + some;
}
