/** What is filtered, in words: over a printed table, which has no buttons that show it. */
import { LATELY, WEEK } from "./filters";
import type { Board, Chosen } from "./filters";
import { MORE } from "./filterTexts";
import { FILTERS } from "./texts";

/**
 * The words of each filter that is on, in the order in which they stand over the board. ``rest``: somebody is looked for
 * by name, and the filters of students say nothing.
 */
export function saidOf(board: Board, chosen: Chosen, rest: boolean): string[] {
  const students = rest ? [] : ofStudents(board, chosen);
  return [chosen.find.trim() && MORE.found({ words: chosen.find.trim() }), ...students, chosen.week && MORE.thisWeek, ...chosen.sections].filter((one) => typeof one === "string").filter(Boolean);
}

function ofStudents(board: Board, chosen: Chosen): (string | false)[] {
  // The chips look at the hand-in alone that is selected on the rail.
  const title = board.handins.find((one) => one.id === chosen.handin)?.title;
  return [
    chosen.period,
    chosen.group,
    ...chosen.chips.map((one) => (title && one !== "quiet" ? MORE.inOne({ title, state: FILTERS[one] }) : FILTERS[one])),
    ...chosen.flags.map((one) => MORE.flag[one]),
    chosen.quiet > 0 && (chosen.quiet === WEEK ? FILTERS.quiet : MORE.quietFor({ days: chosen.quiet })),
    chosen.agreed && MORE.agreed,
    chosen.lately !== "" && MORE[chosen.lately]({ days: LATELY }),
  ];
}
