/** What can be done with a hand-in of the list, and those that were taken away. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Copy, DoorClosed, DoorOpen, EllipsisVertical, FolderArchive, Printer, Pencil, Scale, Trash2, Undo2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { Problem } from "../api/problem";
import { may, useSession } from "../api/session";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { clock, dayOf, today } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { OnFirstUse } from "../ui/OnFirstUse";
import { useSay } from "../ui/Toasts";
import { CHANGE, PACK } from "./texts";

const PackDialog = lazy(() => patiently(() => import("./PackDialog")).then((view) => ({ default: view.PackDialog })));

type Column = Schema["ColumnShape"];

const ITEM = "flex min-h-9 w-full items-center gap-3 px-4 py-1.5 text-left data-focus:bg-today";

/** What a message says of a refusal. */
function why(error: unknown): string {
  return error instanceof Problem ? `${error.title} ${error.fix}` : String(error);
}

/** Taking away, bringing back, closing and opening: each done at once, said, and undone from the message. */
export function useActs(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const path = (handin_id: number) => ({ params: { path: { group_id: groupId, handin_id } } });
  const away = (id: number) => answer(client.POST("/api/groups/{group_id}/handins/{handin_id}/away", path(id)));
  const back = (id: number) => answer(client.DELETE("/api/groups/{group_id}/handins/{handin_id}/away", path(id)));
  const close = async (id: number, closes: Schema["PlanDue"] | null) => {
    const plan = await answer(client.GET("/api/groups/{group_id}/handins/{handin_id}", path(id)));
    return { before: plan.closes, made: await answer(client.PUT("/api/groups/{group_id}/handins/{handin_id}", { ...path(id), body: { ...plan, closes, scope: "one" } })) };
  };
  const seen = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const act = useMutation({
    mutationFn: async ({ what, id }: { what: "away" | "back" | "close" | "open"; id: number }) => {
      if (what === "away") return { ...(await away(id)), undo: () => back(id) };
      if (what === "back") return { ...(await back(id)), undo: () => away(id) };
      const { before, made } = await close(id, what === "close" ? { day: today(), at: clock(new Date()) } : null);
      return { ...made, undo: () => close(id, before) };
    },
    onSuccess: async (done, { what }) => {
      await seen();
      const said = { away: CHANGE.takenAway, back: CHANGE.broughtBack, close: CHANGE.closedNow, open: CHANGE.openedAgain }[what];
      const undone = { away: CHANGE.broughtBack, back: CHANGE.takenAway, close: CHANGE.undone, open: CHANGE.undone }[what];
      say(said({ title: done.title }), undo(done.undo, undone({ title: done.title })));
    },
    onError: (error) => say(why(error)),
  });
  return act;
}

export function RowActions({ one, groupId }: { one: Column; groupId: number }) {
  const [asking, setAsking] = useState(false);
  const [packing, setPacking] = useState<"zip" | "pdf" | null>(null);
  const act = useActs(groupId);
  const others = useSession().groups.filter((group) => group.id !== groupId && may(group, "set_handin"));
  return (
    <span className="flex items-center justify-end gap-1">
      <Link to={`?change=${one.id}`} aria-label={CHANGE.changeOf({ title: one.title })} title={CHANGE.change} className="flex size-8 items-center justify-center rounded-md text-ink-soft hover:bg-ground max-md:size-11">
        <Pencil aria-hidden size={16} />
      </Link>
      <OnFirstUse
        kind="Actions"
        face={{ label: CHANGE.moreFor({ title: one.title }), className: "flex size-8 items-center justify-center rounded-md text-ink-soft hover:bg-ground max-md:size-11", content: <EllipsisVertical aria-hidden size={16} /> }}
        anchor="bottom end"
        className="mt-1 max-w-[90vw] min-w-52 py-1"
        items={[
          <Link key="copy" to={`?new=1&like=${one.id}`} className={ITEM}>
            <Copy aria-hidden size={16} className="shrink-0" />
            {CHANGE.copy}
          </Link>,
          ...others.map((group) => (
            <Link key={group.id} to={`/g/${group.id}/hand-ins?new=1&like=${one.id}`} className={ITEM}>
              <Copy aria-hidden size={16} className="shrink-0" />
              {CHANGE.copyTo({ name: group.name })}
            </Link>
          )),
          <Link key="marking" to={`/g/${groupId}/hand-ins/${one.id}/marking`} className={ITEM}>
            <Scale aria-hidden size={16} className="shrink-0" />
            {CHANGE.marking}
          </Link>,
          <button key="pack" type="button" className={ITEM} onClick={() => setPacking("zip")}>
            <FolderArchive aria-hidden size={16} className="shrink-0" />
            {PACK.open}
          </button>,
          <button key="print" type="button" className={ITEM} onClick={() => setPacking("pdf")}>
            <Printer aria-hidden size={16} className="shrink-0" />
            {PACK.print}
          </button>,
          <button key="close" type="button" className={ITEM} onClick={() => act.mutate({ what: one.closed ? "open" : "close", id: one.id })}>
            {one.closed ? <DoorOpen aria-hidden size={16} /> : <DoorClosed aria-hidden size={16} />}
            {one.closed ? CHANGE.openAgain : CHANGE.closeNow}
          </button>,
          <button key="away" type="button" className={ITEM} onClick={() => setAsking(true)}>
            <Trash2 aria-hidden size={16} />
            {CHANGE.takeAway}
          </button>,
        ]}
      />
      {packing && (
        <Suspense>
          <PackDialog one={one} groupId={groupId} form={packing} onClose={() => setPacking(null)} />
        </Suspense>
      )}
      {asking && (
        <Modal narrow title={CHANGE.takeAwayTitle({ title: one.title })} onClose={() => setAsking(false)}>
          <p>{CHANGE.takeAwayMeans({ count: one.in })}</p>
          <p className="text-ink-soft">{CHANGE.takeAwayBack}</p>
          <div className="flex flex-wrap justify-end gap-2">
            <Button big onClick={() => setAsking(false)}>
              {CHANGE.keepIt}
            </Button>
            <Button
              big
              look="main"
              onClick={() => {
                setAsking(false);
                act.mutate({ what: "away", id: one.id });
              }}
            >
              {CHANGE.takeItAway}
            </Button>
          </div>
        </Modal>
      )}
    </span>
  );
}

export function TakenAway({ lines, groupId, may: mayBring }: { lines: Schema["TakenAway"][]; groupId: number; may: boolean }) {
  const act = useActs(groupId);
  return (
    <section aria-labelledby="taken-away">
      <h2 id="taken-away" className="text-base">
        {CHANGE.away}
      </h2>
      <ul className="mt-1 divide-y divide-line rounded-lg border border-edge bg-paper">
        {lines.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
            <span className="min-w-0 flex-1">
              <span className="block font-bold break-words text-ink-soft">{one.title}</span>
              <span className="text-quiet">{CHANGE.awaySince({ day: dayOf(one.taken_away_at), count: one.submissions_made })}</span>
            </span>
            {mayBring && (
              <Button icon={<Undo2 aria-hidden size={16} />} aria-label={CHANGE.bringBackOf({ title: one.title })} onClick={() => act.mutate({ what: "back", id: one.id })}>
                {CHANGE.bringBack}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
