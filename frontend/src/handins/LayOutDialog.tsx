/** Laying another class's hand-ins on the weeks of this one: what would lie where is shown line by line before it is done. */
import { useState } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { may, useSession } from "../api/session";
import { DeedDialog } from "../live/DeedDialog";
import type { Done } from "../live/DeedDialog";
import { day } from "../ui/dates";
import { DRAFT } from "./texts";

export function LayOutDialog({ groupId, onClose }: { groupId: number; onClose: () => void }) {
  const [source, setSource] = useState(0);
  const classes = useSession().groups.filter((one) => one.id !== groupId && may(one, "see_handins"));
  const send = async (only_look: boolean) => {
    const { lines, deed } = await answer(client.POST("/api/groups/{group_id}/laid-out", { params: { path: { group_id: groupId } }, body: { source, only_look } }));
    return { lines, deed, cells: lines.filter((one) => !one.why).length, students: 0, left: [] };
  };
  const act = async (): Promise<Done> => {
    const { cells, deed } = await send(false);
    return {
      said: DRAFT.done({ count: cells }),
      back: async () => DRAFT.undone(await answer(client.DELETE("/api/groups/{group_id}/laid-out/{deed}", { params: { path: { group_id: groupId, deed } } }))),
    };
  };
  return (
    <DeedDialog
      title={DRAFT.fromTitle}
      groupId={groupId}
      lookKey={[source]}
      ready={source > 0}
      look={() => send(true)}
      act={act}
      doIt={({ cells }) => DRAFT.layOut({ count: cells })}
      touches={({ cells }) => DRAFT.would({ count: cells })}
      more={({ lines }) => <Lines lines={lines} />}
      onClose={onClose}
      onDone={onClose}
    >
      <label className="font-bold">
        {DRAFT.source}
        <select data-autofocus value={source} onChange={(event) => setSource(Number(event.target.value))} className="mt-1 flex min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal">
          <option value={0}>{DRAFT.choose}</option>
          {classes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      {source === 0 && <p className="text-quiet">{DRAFT.chooseFirst}</p>}
    </DeedDialog>
  );
}

function Lines({ lines }: { lines: Schema["LaidLineShape"][] }) {
  return (
    <ul className="mt-1 max-h-64 overflow-y-auto">
      {lines.map((one, place) => (
        <li key={place} className="border-t border-line py-1 break-words">
          <span className="font-semibold">{one.title}</span>
          {one.why ? (
            <span className="block text-copper">{DRAFT.why[one.why]}</span>
          ) : (
            <span className="figures block text-ink-soft">{DRAFT.line({ opens: day(one.opens), due: one.due ? day(one.due) : "none" })}</span>
          )}
        </li>
      ))}
    </ul>
  );
}
