/** What staff do with an item: show it, give it out, change it, take it out; and who has a copy. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { client, data } from "../api/client";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { useSay } from "../ui/Toasts";
import { CopyLines } from "./CopyLines";
import { useItemPlace } from "./places";
import { copiesQuery } from "./queries";
import type { OpenedItem } from "./queries";
import { setDrawer, useDrawer } from "./store";
import { CUPBOARD } from "./texts";

const ItemDialog = lazy(() => patiently(() => import("./ItemDialog")).then((view) => ({ default: view.ItemDialog })));
const LendDialog = lazy(() => patiently(() => import("./LendDialog")).then((view) => ({ default: view.LendDialog })));
const GiveDialog = lazy(() => patiently(() => import("./GiveDialog")).then((view) => ({ default: view.GiveDialog })));

interface Props {
  item: OpenedItem;
  group: Group;
  keeps: boolean;
  periods: Schema["Named"][];
  headings: string[];
}

export function ItemActions({ item, group, keeps, periods, headings }: Props) {
  const [open, setOpen] = useDialog();
  const copies = useQuery(copiesQuery(group.id, item.id));
  const act = useActs(group.id, item);
  return (
    <>
      {keeps && (
        <div className="flex flex-wrap gap-2">
          {may(group, "give_out") && (
            <Button onClick={() => setOpen("give")}>
              {CUPBOARD.giveOut}
            </Button>
          )}
          <Lay item={item} />
          {item.staff_only && <Button onClick={() => act.setShown(true)}>{CUPBOARD.show}</Button>}
          <Button onClick={() => setOpen("change")}>{CUPBOARD.change}</Button>
          {item.lendable.length > 0 && <Button onClick={() => setOpen("lend")}>{CUPBOARD.lend}</Button>}
          <Button onClick={act.takeAway}>{CUPBOARD.takeAway}</Button>
        </div>
      )}
      {copies.data && copies.data.length > 0 && (
        <details className="rounded-md border border-edge">
          <summary className="min-h-9 cursor-pointer px-3 py-1.5 font-semibold">
            {CUPBOARD.who} <span className="figures font-normal text-quiet">{copies.data.length}</span>
          </summary>
          <CopyLines lines={copies.data} groupId={group.id} label={CUPBOARD.who} />
        </details>
      )}
      <Suspense>
        {open === "change" && <ItemDialog group={group} kind={item.kind} item={item} periods={periods} headings={headings} onClose={() => setOpen(null)} />}
        {open === "lend" && <LendDialog item={item} group={group} onClose={() => setOpen(null)} />}
        {open === "give" && <GiveDialog item={item} group={group} onClose={() => setOpen(null)} />}
      </Suspense>
    </>
  );
}

type Dialog = "change" | "give" | "lend" | null;

/** Which dialog stands open; what was written to be given out is asked about at once. */
function useDialog() {
  const { give } = useDrawer();
  return useState<Dialog>(give ? "give" : null);
}

/** It is laid where the view beside the cupboard offers a place: with a pocket, or as a pocket in a section. */
function Lay({ item }: { item: OpenedItem }) {
  const pocket = useItemPlace("pocket");
  const section = useItemPlace("section");
  const layout = item.kind === "log" || item.kind === "pocket";
  const fits = !layout || (item.kind === "log" && pocket?.columns);
  return (
    <>
      {pocket && fits && <Button onClick={() => pocket.lay(item.id)}>{(layout ? CUPBOARD.layColumns : CUPBOARD.layWith)({ pocket: pocket.name })}</Button>}
      {section && layout && <Button onClick={() => section.lay(item.id)}>{CUPBOARD.layIn({ section: section.name })}</Button>}
    </>
  );
}

/** Showing, hiding, taking out, fetching back: each says so and can be undone. */
function useActs(groupId: number, item: OpenedItem) {
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { item_id: item.id } } };
  const run = (deed: Promise<unknown>, then: () => void) => {
    deed
      .then(() => queries.invalidateQueries({ queryKey: ["group", groupId] }))
      .then(then)
      .catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : String(error)));
  };
  const show = async (shown: boolean) => {
    const now = await data(client.GET("/api/cupboard/{item_id}", path));
    const body = { title: now.title, heading: now.heading, html: now.html, link: now.link, opens: shown ? null : now.opens, periods: now.periods, groups: now.groups, version: now.version, staff_only: !shown };
    await data(client.PUT("/api/cupboard/{item_id}", { ...path, body }));
  };
  const setShown = (shown: boolean) => run(show(shown), () => say((shown ? CUPBOARD.shown : CUPBOARD.hidden)(item), () => setShown(!shown)));
  const restore = () => run(data(client.POST("/api/cupboard/{item_id}/restore", path)), () => say(CUPBOARD.isBack(item)));
  const takeAway = () =>
    // It is closed before everything is asked for anew: it is not there to be asked for.
    run(data(client.DELETE("/api/cupboard/{item_id}", path)).then(() => setDrawer({ item: null })), () => say(CUPBOARD.takenAway(item), restore));
  return { setShown, takeAway };
}
