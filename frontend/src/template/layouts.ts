/** Pockets on their way into the cupboard, and out of it into the draft of a template. */
import { useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { itemQuery } from "../cupboard/queries";
import type { OpenedItem } from "../cupboard/queries";
import { useUndo } from "../live/useUndo";
import { useSay } from "../ui/Toasts";
import type { Edits } from "./edits";
import { DRAFT } from "./draftTexts";
import type { Laid } from "./texts";
import { useSaid } from "./useSaid";

/** Whether an item is laid out as a pocket, or its columns into a log. */
export function isLayout(item: Pick<OpenedItem, "kind">): boolean {
  return item.kind === "log" || item.kind === "pocket";
}

/** What lies in the cupboard of a pocket, for the draft. */
export function fetched(groupId: number, item: number): Promise<Schema["FetchedPocket"]> {
  return data(client.POST("/api/groups/{group_id}/template/cupboard/{item_id}", { params: { path: { group_id: groupId, item_id: item } } }));
}

/** Lays an item out as a pocket at the end of a section, and says so with an undo; ``onMade`` is told its id. */
export function useLayOut(groupId: number, edits: Edits, onMade: (pocket: number) => void): (item: number, section: number) => void {
  const say = useSay();
  const act = async (item: number, section: number) => {
    const found = await fetched(groupId, item);
    const id = await edits.addFetched(found, section);
    onMade(id);
    say(DRAFT.laidOut({ title: found.settings.title }), () => void edits.remove({ id }).catch(() => undefined));
  };
  return useSaid(act);
}

interface Dropped {
  groupId: number;
  layOut: (item: number, section: number) => void;
  /** A page, a file or a link lies with a pocket. */
  onWith: (item: number, pocket: number) => void;
}

/** An item was dropped on the outline: on a section, or on a pocket in it. */
export function useDropped({ groupId, layOut, onWith }: Dropped): (item: number, section: number, pocket: Laid | null) => void {
  const queries = useQueryClient();
  const say = useSay();
  return useSaid(async (id, section, pocket) => {
    const item = await queries.query(itemQuery(groupId, id));
    const columns = item.kind === "log" && pocket?.kind === "log";
    if (isLayout(item) && !columns) layOut(id, section);
    else if (pocket) onWith(id, pocket.id);
    else say(DRAFT.dropOnPocket({ title: item.title }));
  });
}

/** Puts a pocket as it is saved, or a log's columns, into the cupboard. */
export function usePutIn(groupId: number): (pocket: Laid, columns: boolean) => void {
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  return useSaid(async (pocket, columns) => {
    const path = { params: { path: { group_id: groupId } } };
    const made = await data(client.POST("/api/groups/{group_id}/template/cupboard", { ...path, body: { pocket: pocket.id, columns } }));
    await queries.invalidateQueries({ queryKey: ["group", groupId, "cupboard"] });
    const out = () => data(client.DELETE("/api/cupboard/{item_id}", { params: { path: { item_id: made.id } } }));
    if (made.new) say((columns ? DRAFT.columnsIn : DRAFT.pocketIn)(made), undo(out, DRAFT.outAgain(made)));
    else say(DRAFT.inAgain(made));
  });
}
