/** What each coat means. */
import { Coat } from "../ui/Coat";
import type { CoatState } from "../ui/Coat";
import { TEXTS } from "./texts";

const ENTRIES: [CoatState, string][] = [
  [{ status: "empty" }, TEXTS.nothingYet],
  [{ status: "working" }, TEXTS.beingWorkedOn],
  [{ status: "handed_in" }, TEXTS.handedIn],
  [{ status: "handed_in", late: true }, TEXTS.inLate],
  [{ status: "sent_back" }, TEXTS.sentBack],
  [{ status: "accepted" }, TEXTS.accepted],
  [{ status: "empty", overdue: true }, TEXTS.overdueLegend],
  [{ status: "excused" }, TEXTS.excusedLegend],
];

export function Legend() {
  return (
    <ul aria-label={TEXTS.whatTheCoatsMean} className="flex shrink-0 flex-wrap gap-x-4 border-t border-line px-3 py-1 text-xs text-quiet">
      {ENTRIES.map(([state, words]) => (
        <li key={words} className="flex items-center gap-1">
          <Coat state={state} size={18} />
          {words}
        </li>
      ))}
    </ul>
  );
}
