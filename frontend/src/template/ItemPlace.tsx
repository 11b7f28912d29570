/** A part of a pocket's settings onto which an item of the cupboard can be dragged: it lies with the pocket then. */
import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { UseFormReturn } from "react-hook-form";
import { Problem } from "../api/problem";
import { useItemDrop } from "../cupboard/dragging";
import { itemQuery } from "../cupboard/queries";
import type { OpenedItem } from "../cupboard/queries";
import { useSay } from "../ui/Toasts";
import { DRAFT } from "./draftTexts";
import { logFields } from "./fields";
import type { Fields } from "./fields";
import { useGiving } from "./giving";
import type { Given } from "./giving";
import { fetched, isLayout } from "./layouts";
import { TEXTS } from "./texts";
import { useSaid } from "./useSaid";
import type { TemplateDraft } from "./useTemplateDraft";

interface Where {
  groupId: number;
  pocket: { id: number; title: string };
  draft: TemplateDraft;
  form: UseFormReturn<Fields>;
  /** Lays an item out as a pocket of its own, beside this one. */
  layOut: (item: number) => void;
}

interface Into {
  /** Where the words of a page, and a link, go. */
  words: "directions" | "starter";
  /** What a file is given as. */
  file: Given["role"];
}

export const WITH_DIRECTIONS: Into = { words: "directions", file: "directions" };

export function ItemPlace({ where, into, may, children }: { where: Where; into: Into; may: boolean; children: ReactNode }) {
  const lay = useLayItem(where);
  const { over, place } = useItemDrop(may ? (item) => lay(item, into) : null);
  return (
    <div {...place} className={`flex flex-col gap-4 ${over ? "rounded-md outline-3 outline-offset-2 outline-in" : ""}`}>
      {children}
    </div>
  );
}

/** Lays an item with a pocket, and says so with an undo. */
export function useLayItem(where: Where): (item: number, into: Into) => void {
  const { groupId, pocket, draft, form } = where;
  const queries = useQueryClient();
  const say = useSay();
  const giving = useGiving(groupId, pocket.id, draft);
  return useSaid(async (id, into) => {
    const item = await queries.query(itemQuery(groupId, id));
    const said = { title: item.title, pocket: pocket.title };
    if (item.kind === "file") {
      await giving.give(await fileOf(item), into.file);
      say(TEXTS.itemGiven(said));
      return;
    }
    if (isLayout(item)) {
      if (item.kind === "log" && form.getValues("kind") === "log") await layColumns(form, groupId, item.id, (undo) => say(DRAFT.columnsLaid(said), undo));
      else where.layOut(id);
      return;
    }
    const before = form.getValues(into.words);
    form.setValue(into.words, `${before}${wordsOf(item)}`, { shouldDirty: true });
    say(TEXTS.itemLaid(said), () => form.setValue(into.words, before, { shouldDirty: true }));
  });
}

const OF_A_LOG = ["columns", "order", "newestFirst", "targetAmount", "targetColumn", "targetEach"] as const;

/** A log has the columns that lie in the cupboard; ``done`` is given what undoes it. */
async function layColumns(form: UseFormReturn<Fields>, groupId: number, item: number, done: (undo: () => void) => void): Promise<void> {
  const { settings } = await fetched(groupId, item);
  const before = form.getValues();
  const set = (from: Pick<Fields, (typeof OF_A_LOG)[number]>) => {
    for (const name of OF_A_LOG) form.setValue(name, from[name], { shouldDirty: true });
  };
  set(logFields(settings.log));
  done(() => set(before));
}

async function fileOf(item: OpenedItem): Promise<File> {
  const answer = await fetch(`/api/cupboard/${item.id}/file`);
  if (!answer.ok) throw new Problem({ title: TEXTS.itemNotRead({ title: item.title }) }, answer.status);
  return new File([await answer.blob()], item.title, { type: item.media_type });
}

function wordsOf(item: OpenedItem): string {
  if (item.kind === "page") return item.html;
  const link = document.createElement("a");
  link.href = item.link;
  link.textContent = item.title;
  return `<p>${link.outerHTML}</p>`;
}
