/** Locking pockets and opening them: what chosen pegs collect, or one pocket of one, some or all. */
import { useState } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { useSettled } from "../ui/useSettled";
import { DeedDialog, undoOf } from "./DeedDialog";
import type { Done } from "./DeedDialog";
import { LOCK } from "./deedTexts";

export type Lockable = { cells: Schema["ChosenCellIn"][] } | { pocket: { id: number; title: string }; students: number[] | null };

interface Props {
  what: Lockable;
  groupId: number;
  /** What it is now: the other way round is offered first. */
  locked: boolean;
  onClose: () => void;
  onDone?: () => void;
}

export function LockDialog({ what, groupId, locked: now, onClose, onDone = onClose }: Props) {
  // What was seen is acted on, whatever others do meanwhile.
  const [of] = useState(what);
  const [locked, setLocked] = useState(!now);
  const [reason, setReason] = useState("");
  const settled = useSettled(reason);
  const send = (only_look: boolean) => {
    const body = { locked, reason, only_look };
    if ("cells" in of) return answer(client.POST("/api/groups/{group_id}/cells/locked", { params: { path: { group_id: groupId } }, body: { ...body, cells: of.cells } }));
    const path = { group_id: groupId, pocket_id: of.pocket.id };
    return answer(client.POST("/api/groups/{group_id}/pockets/{pocket_id}/locked", { params: { path }, body: { ...body, students: of.students } }));
  };
  const act = async (): Promise<Done> => {
    const done = await send(false);
    return { said: (locked ? LOCK.locked : LOCK.opened)(done), back: undoOf("locked", groupId, done.deed) };
  };
  const choice = (to: boolean, label: string) => (
    <label className="flex min-h-9 items-center gap-2 font-bold">
      <input type="radio" name="locked" className="accent-ink" data-autofocus={locked === to || undefined} checked={locked === to} onChange={() => setLocked(to)} />
      {label}
    </label>
  );
  return (
    <DeedDialog
      title={"pocket" in of ? LOCK.titleOf({ pocket: of.pocket.title }) : LOCK.title}
      groupId={groupId}
      lookKey={[locked, settled, of]}
      look={() => send(true)}
      act={act}
      doIt={locked ? LOCK.lockThem : LOCK.openThem}
      {...("pocket" in of && { touches: LOCK.touchesPockets })}
      more={(touched) => (locked ? touched.cells > 0 && <p>{LOCK.stays}</p> : touched.handed_in > 0 && <p>{LOCK.handedIn({ count: touched.handed_in })}</p>)}
      onClose={onClose}
      onDone={onDone}
    >
      <fieldset>
        <legend className="sr-only">{LOCK.title}</legend>
        {choice(true, LOCK.lock)}
        {choice(false, LOCK.open)}
      </fieldset>
      {locked && (
        <label className="font-bold">
          {LOCK.why} <span className="font-normal text-quiet">{LOCK.whyHint}</span>
          <input value={reason} maxLength={200} onChange={(event) => setReason(event.target.value)} autoComplete="off" className="mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal" />
        </label>
      )}
    </DeedDialog>
  );
}
