/** What can be done with the chosen pegs. */
import { CalendarPlus, Check, Inbox, Lock, Megaphone, RotateCcw, Undo2, UserCheck, UserX, X } from "lucide-react";
import type { LucideIcon } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { may, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { MANY } from "./manyTexts";
import type { Picking } from "./picking";
import type { Deed } from "./ManyDialog";

const ManyDialog = lazy(() => patiently(() => import("./ManyDialog")).then((view) => ({ default: view.ManyDialog })));

const LockDialog = lazy(() => patiently(() => import("../live/LockDialog")).then((view) => ({ default: view.LockDialog })));

const RemindDialog = lazy(() => patiently(() => import("./RemindDialog")).then((view) => ({ default: view.RemindDialog })));

type Asked = Deed | "remind" | "lock";
type Cell = Schema["ChosenCellIn"];

const isExcused = (one: Cell) => one.status === "excused";
const isIn = (one: Cell) => one.status === "handed_in";
const isDecided = (one: Cell) => one.status === "accepted" || one.status === "sent_back";

/** What a deed needs among the chosen pegs to be offered, or to be pressed. */
const NEEDS: Partial<Record<Asked, (one: Cell) => boolean>> = { end: isExcused, reopen: isDecided };
const PRESSED: Partial<Record<Asked, (one: Cell) => boolean>> = { back: isIn, accept: isIn };

/** What there is to do, and who may. */
const DEEDS: { deed: Asked; action: Parameters<typeof may>[1]; words: string; icon: LucideIcon }[] = [
  { deed: "remind", action: "remind", words: MANY.remind, icon: Megaphone },
  { deed: "move", action: "set_own_due", words: MANY.move, icon: CalendarPlus },
  { deed: "excuse", action: "excuse", words: MANY.excuse, icon: UserX },
  { deed: "end", action: "excuse", words: MANY.end, icon: UserCheck },
  { deed: "for", action: "hand_in_for", words: MANY.handInFor, icon: Inbox },
  { deed: "accept", action: "mark", words: MANY.accept, icon: Check },
  { deed: "back", action: "mark", words: MANY.sendBack, icon: Undo2 },
  { deed: "reopen", action: "mark", words: MANY.reopen, icon: RotateCcw },
  { deed: "lock", action: "lock_pockets", words: MANY.lock, icon: Lock },
];

export function ManyBar({ picking, groupId }: { picking: Picking; groupId: number }) {
  const group = useGroup();
  const [asking, setAsking] = useState<Asked | null>(null);
  const cells = picking.cells();
  const students = new Set(cells.map((one) => one.enrolment)).size;
  const close = () => setAsking(null);
  const done = () => {
    close();
    picking.setOn(false);
  };
  const none = cells.length === 0;
  const some = (test?: (one: Cell) => boolean) => !test || cells.some(test);
  const deeds = DEEDS.filter((one) => may(group, one.action) && some(NEEDS[one.deed])).map((one) => ({ ...one, off: none || !some(PRESSED[one.deed]) }));
  return (
    <section aria-label={MANY.bar} className="flex shrink-0 flex-wrap items-center gap-2 border-t border-line bg-in-soft px-3 py-2">
      <p role="status" className={none ? "mr-auto font-semibold" : "font-semibold"}>
        {MANY.chosen({ cells: cells.length, students })}
        {none && <span className="ml-2 font-normal text-ink-soft">{MANY.how}</span>}
      </p>
      {!none && (
        <Button aria-label={MANY.clear} title={MANY.clear} className="mr-auto" onClick={picking.clear}>
          <X aria-hidden size={16} />
        </Button>
      )}
      {deeds.map(({ deed, words, icon: Icon, off }) => (
        <Button key={deed} disabled={off} icon={<Icon aria-hidden size={16} />} onClick={() => setAsking(deed)}>
          {words}
        </Button>
      ))}
      {asking && (
        <Suspense>
          {asking === "remind" && <RemindDialog cells={cells} groupId={groupId} onClose={close} onDone={done} />}
          {asking === "lock" && <LockDialog what={{ cells }} locked={false} groupId={groupId} onClose={close} onDone={done} />}
          {asking !== "remind" && asking !== "lock" && <ManyDialog deed={asking} cells={cells} groupId={groupId} onClose={close} onDone={done} />}
        </Suspense>
      )}
    </section>
  );
}
