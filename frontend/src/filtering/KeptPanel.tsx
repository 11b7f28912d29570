/** Filters kept under a name of one's own, with how many students each shows now. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Bookmark, RefreshCw, Trash2 } from "lucide-react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { filtersQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Panel } from "../ui/menus";
import type { Face } from "../ui/OnFirstUse";
import { useSay } from "../ui/Toasts";
import { chosenFrom, filtered } from "./filters";
import { useFlagged } from "./flags";
import { KEPT } from "./filterTexts";
import type { Props } from "./KeptFilters";

type Kept = Schema["KeptFilterShape"];
type Inside = Props & { onKeep: () => void };

export function KeptPanel({ face, ...props }: Inside & { face: Face }) {
  return (
    <Panel face={face} className="max-h-[70dvh] w-[min(26rem,92vw)] gap-3 overflow-y-auto p-4">
      {(close) => (
        <Lists
          {...props}
          onOpen={(address) => {
            close();
            props.onOpen(address);
          }}
          onKeep={() => {
            close();
            props.onKeep();
          }}
        />
      )}
    </Panel>
  );
}

function Lists({ board, groupId, current, onOpen, onKeep }: Inside) {
  const kept = useQuery(filtersQuery(groupId));
  const found = kept.data ?? [];
  const parts: [string, Kept[]][] = [
    [KEPT.mine, found.filter((one) => one.own)],
    [KEPT.shared, found.filter((one) => !one.own)],
  ];
  return (
    <>
      {/* First, so that it stays under the hand when the lists come. */}
      {current ? (
        <Button className="self-start" icon={<Bookmark aria-hidden size={15} />} onClick={onKeep}>
          {KEPT.keep}
        </Button>
      ) : (
        <p className="text-quiet">{KEPT.nothing}</p>
      )}
      {parts.map(
        ([title, of]) =>
          of.length > 0 && (
            <section key={title}>
              <h2 className="pb-1 font-bold">{title}</h2>
              <ul>
                {of.map((one) => (
                  <Line key={one.id} one={one} board={board} groupId={groupId} current={current} onOpen={onOpen} />
                ))}
              </ul>
            </section>
          ),
      )}
      {kept.data?.length === 0 && <p className="text-quiet">{KEPT.none}</p>}
      {kept.error instanceof Problem && <p role="alert">{kept.error.title}</p>}
    </>
  );
}

function Line({ one, board, groupId, current, onOpen }: Props & { one: Kept }) {
  const act = useChanges(groupId);
  const chosen = chosenFrom(new URLSearchParams(one.address));
  const flagged = useFlagged(groupId, chosen.flags.length > 0);
  const { rows } = filtered(board, chosen, flagged);
  return (
    <li className="flex items-center gap-1">
      <button type="button" className="flex min-h-9 min-w-0 flex-1 items-baseline gap-2 rounded-sm px-1 text-left hover:bg-ground" onClick={() => onOpen(one.address)}>
        <span className="min-w-0 flex-1 break-words">
          {one.name}
          {(one.by || one.shared) && <span className="ml-2 text-sm text-quiet">{one.by ? KEPT.by({ name: one.by }) : KEPT.sharedMark}</span>}
        </span>
        <span className="figures shrink-0 text-quiet">{KEPT.count({ count: rows.length })}</span>
      </button>
      {one.own && current !== "" && current !== one.address && (
        <button type="button" aria-label={KEPT.replace(one)} title={KEPT.replace(one)} className="flex size-9 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink" onClick={() => act.replace(one, current)}>
          <RefreshCw aria-hidden size={15} />
        </button>
      )}
      {one.own && (
        <button type="button" aria-label={KEPT.drop(one)} title={KEPT.drop(one)} className="flex size-9 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink" onClick={() => act.drop(one)}>
          <Trash2 aria-hidden size={15} />
        </button>
      )}
    </li>
  );
}

/** Changing and dropping a kept filter, each with its undo. */
function useChanges(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const done = (text: string, undo?: () => void) => {
    void queries.invalidateQueries({ queryKey: filtersQuery(groupId).queryKey });
    say(text, undo);
  };
  const failed = (error: unknown) => {
    if (error instanceof Problem) say(`${error.title} ${error.fix}`);
  };
  const path = (filter_id: number) => ({ params: { path: { group_id: groupId, filter_id } } });
  const change = useMutation({
    mutationFn: ({ one, address }: { one: Kept; address: string }) => data(client.PATCH("/api/groups/{group_id}/filters/{filter_id}", { ...path(one.id), body: { address } })),
    onError: failed,
  });
  const keep = useMutation({
    mutationFn: (one: Kept) => data(client.POST("/api/groups/{group_id}/filters", { params: { path: { group_id: groupId } }, body: one })),
    onSuccess: (_, one) => done(KEPT.back(one)),
    onError: failed,
  });
  const drop = useMutation({
    mutationFn: (one: Kept) => data(client.DELETE("/api/groups/{group_id}/filters/{filter_id}", path(one.id))),
    onSuccess: (_, one) => done(KEPT.dropped(one), () => keep.mutate(one)),
    onError: failed,
  });
  return {
    drop: (one: Kept) => drop.mutate(one),
    replace: (one: Kept, address: string) => {
      const back = () => change.mutate({ one, address: one.address }, { onSuccess: () => done(KEPT.replacedBack(one)) });
      change.mutate({ one, address }, { onSuccess: () => done(KEPT.replaced(one), back) });
    },
  };
}
