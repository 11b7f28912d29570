/** What each coat means. */
import { Coat } from "../ui/Coat";
import type { CoatState } from "../ui/Coat";

const ENTRIES: [CoatState, string][] = [
  [{ status: "empty" }, "nothing yet"],
  [{ status: "working" }, "being worked on"],
  [{ status: "handed_in" }, "handed in"],
  [{ status: "handed_in", late: true }, "in, late"],
  [{ status: "sent_back" }, "sent back"],
  [{ status: "accepted" }, "accepted"],
  [{ status: "empty", overdue: true }, "overdue"],
  [{ status: "excused" }, "excused"],
];

export function Legend() {
  return (
    <ul aria-label="What the coats mean" className="flex shrink-0 flex-wrap gap-x-4 border-t border-line px-3 py-1 text-xs text-quiet">
      {ENTRIES.map(([state, words]) => (
        <li key={words} className="flex items-center gap-1">
          <Coat state={state} size={18} />
          {words}
        </li>
      ))}
    </ul>
  );
}
