/** Moving all dates on after lost school days: what moves where is shown line by line before it is done. */
import { useState } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { may, useSession } from "../api/session";
import { DeedDialog } from "../live/DeedDialog";
import type { Done } from "../live/DeedDialog";
import { DateField } from "../ui/days/DateField";
import { fullDay, today } from "../ui/dates";
import { useSettled } from "../ui/useSettled";
import { MOVE } from "./texts";

type Line = Schema["MovedLine"];

const MOST_SHOWN = 200;

export function MoveOnDialog({ groupId, onClose }: { groupId: number; onClose: () => void }) {
  const [first, setFirst] = useState(today);
  const [days, setDays] = useState("5");
  const [everywhere, setEverywhere] = useState(false);
  const several = useSession().groups.filter((one) => may(one, "set_handin")).length > 1;
  const number = Number(days);
  const asked = { first, days: Number.isInteger(number) ? number : 0, everywhere };
  const settled = useSettled(asked);
  const path = { params: { path: { group_id: groupId } } };
  const send = async (only_look: boolean) => {
    const { lines, deed } = await answer(client.POST("/api/groups/{group_id}/moved-on", { ...path, body: { ...settled, only_look } }));
    return { lines, deed, cells: lines.length, students: 0, left: [] };
  };
  const act = async (): Promise<Done> => {
    const { cells, deed } = await send(false);
    return {
      said: MOVE.done({ dates: cells }),
      back: async () => MOVE.undone(await answer(client.DELETE("/api/groups/{group_id}/moved-on/{deed}", { params: { path: { group_id: groupId, deed } } }))),
    };
  };
  return (
    <DeedDialog
      title={MOVE.title}
      groupId={groupId}
      lookKey={[settled]}
      ready={first !== "" && settled.days > 0}
      settled={JSON.stringify(settled) === JSON.stringify(asked)}
      look={() => send(true)}
      act={act}
      doIt={({ cells }) => MOVE.moveThem({ dates: cells })}
      touches={({ cells }) => MOVE.moves({ dates: cells })}
      more={({ lines }) => <Lines lines={lines} named={everywhere} />}
      onClose={onClose}
      onDone={onClose}
    >
      <div className="grid grid-cols-2 gap-3">
        <label className="font-bold">
          {MOVE.days}
          <input data-autofocus inputMode="numeric" autoComplete="off" value={days} onChange={(event) => setDays(event.target.value)} className="figures mt-1 block min-h-9 w-24 rounded-md border border-control bg-paper px-3 font-normal" />
        </label>
        <DateField label={MOVE.first} value={first} onChange={setFirst} />
      </div>
      {several && (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={everywhere} onChange={(event) => setEverywhere(event.target.checked)} />
          {MOVE.everywhere}
        </label>
      )}
    </DeedDialog>
  );
}

/** Each date with where it goes, and what is unusual about it. */
function Lines({ lines, named }: { lines: Line[]; named: boolean }) {
  if (lines.length === 0) return null;
  return (
    <ul className="mt-1 max-h-56 overflow-y-auto">
      {lines.slice(0, MOST_SHOWN).map((one, place) => (
        <li key={place} className="border-t border-line py-1 break-words">
          <span className="font-semibold">{named ? MOVE.ofClass({ title: one.title, group: one.group }) : one.title}</span>
          <span className="figures block text-ink-soft">{MOVE.line({ which: one.which, whose: one.whose, day: fullDay(one.day), to: fullDay(one.to) })}</span>
          {one.beyond && <span className="block text-overdue">{MOVE.beyond}</span>}
          {one.off && <span className="block text-copper">{MOVE.off}</span>}
        </li>
      ))}
      {lines.length > MOST_SHOWN && <li>{MOVE.andMore({ count: lines.length - MOST_SHOWN })}</li>}
    </ul>
  );
}
