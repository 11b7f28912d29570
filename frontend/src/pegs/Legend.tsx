/** Under the pegs: what stands on them, and what it means. */
import { ChevronDown } from "lucide-react";
import { OnFirstUse } from "../ui/OnFirstUse";
import { Coat } from "../ui/Coat";
import type { CoatState } from "../ui/Coat";
import { SHOWN } from "../filtering/filters";
import type { ShownAs } from "../filtering/filters";
import { CELLS, TEXTS } from "./texts";

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

const LATER: [CoatState, string] = [{ status: "not_open" }, TEXTS.opensLater];

/** What each coat means; ``whole``, also the dot that says itself where a pointer rests on it. */
export function Coats({ whole = false }: { whole?: boolean }) {
  return <CoatWords entries={whole ? [LATER, ...ENTRIES] : ENTRIES} />;
}

export function CoatWords({ entries }: { entries: [CoatState, string][] }) {
  return (
    <ul aria-label={TEXTS.whatTheCoatsMean} className="flex flex-wrap gap-x-3">
      {entries.map(([state, words]) => (
        <li key={words} className="flex items-center gap-1">
          <Coat state={state} size={18} />
          {words}
        </li>
      ))}
    </ul>
  );
}

const OPTIONS = SHOWN.map((value) => ({ value, shown: CELLS.shown[value] }));

/** What stands on the pegs, to choose, and what it means. */
export function Legend({ shown, onChange }: { shown: ShownAs; onChange: (shown: ShownAs) => void }) {
  const is = CELLS.shown[shown];
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-x-4 border-t border-line px-3 py-0.5 text-xs text-quiet">
      <OnFirstUse
        kind="Choices"
        face={{ label: `${CELLS.label}: ${is}`, className: "flex min-h-6 items-center gap-1 rounded-sm px-1 font-bold text-ink-soft hover:bg-today", content: <><span>{`${CELLS.label}: ${is}`}</span><ChevronDown aria-hidden size={13} /></> }}
        value={shown}
        options={OPTIONS}
        onChange={(value) => onChange(value as ShownAs)}
      />
      {shown === "coats" ? (
        <Coats />
      ) : (
        <p>{CELLS.means[shown]}</p>
      )}
    </div>
  );
}
