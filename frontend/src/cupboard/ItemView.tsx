/** One thing in the cupboard: read in its place, copied by students, shown and given out by staff. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Download, ExternalLink } from "lucide-react";
import { lazy, Suspense, useEffect } from "react";
import { client, data } from "../api/client";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { Player } from "../ui/reading/Player";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { plainText, RichText } from "../ui/reading/RichText";
import { Failed, Waiting } from "../ui/Waiting";
import { sizeWords } from "../viewer/files";
import { kindOf, seen } from "./ItemList";
import { cupboardQuery, itemQuery } from "./queries";
import type { Item, OpenedItem } from "./queries";
import { setDrawer } from "./store";
import { TakeCopy } from "./TakeCopy";
import { CUPBOARD } from "./texts";

const Converted = lazy(() => patiently(() => import("../viewer/Viewer")).then((view) => ({ default: view.Converted })));
const ItemActions = lazy(() => patiently(() => import("./ItemActions")).then((view) => ({ default: view.ItemActions })));

interface Props {
  line: Item;
  group: Group;
  keeps: boolean;
  periods: Schema["Named"][];
  groups: Schema["Named"][];
  headings: string[];
  /** Staff look at it as a student sees it. */
  looksOnly: boolean;
}

export function ItemView({ line, group, keeps, periods, groups, headings, looksOnly }: Props) {
  const found = useQuery(itemQuery(group.id, line.id));
  const student = !may(group, "see_copies");
  useRead(group.id, line, student);
  const { word } = kindOf(line);
  const facts = [line.heading, word, ...(student || looksOnly ? [] : seen(line, periods, groups))].filter(Boolean).join(" · ");
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <button type="button" onClick={() => setDrawer({ item: null })} className={`flex shrink-0 items-center gap-2 border-b border-line px-4 text-left font-semibold text-in ${student ? "min-h-11" : "min-h-9"}`}>
        <ArrowLeft aria-hidden size={16} />
        {CUPBOARD.back}
      </button>
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard */}
      <div tabIndex={0} role="region" aria-label={line.title} className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-4 pt-3 pb-8">
        <div>
          <h3 className="text-lg break-words">{line.title}</h3>
          <p className="text-sm break-words text-quiet">{facts}</p>
        </div>
        {found.isPending ? (
          <Waiting />
        ) : found.isError ? (
          <Failed error={found.error} again={() => void found.refetch()} />
        ) : (
          <>
            {looksOnly ? null : student ? (
              may(group, "fill_pocket") && group.portfolio !== null && <TakeCopy item={found.data} line={line} group={group} portfolio={group.portfolio} />
            ) : (
              <Suspense fallback={<div className="min-h-9" />}>
                <ItemActions item={found.data} group={group} keeps={keeps} periods={periods} headings={headings} />
              </Suspense>
            )}
            <Content item={found.data} />
          </>
        )}
      </div>
    </div>
  );
}

/** A student who opens it has read it. */
function useRead(groupId: number, line: Item, student: boolean) {
  const queries = useQueryClient();
  const { mutate } = useMutation({
    mutationFn: (item_id: number) => data(client.POST("/api/cupboard/{item_id}/read", { params: { path: { item_id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: cupboardQuery(groupId).queryKey }),
  });
  const unread = student && line.read === 0;
  useEffect(() => {
    if (unread) mutate(line.id);
  }, [mutate, unread, line.id]);
}

function Content({ item }: { item: OpenedItem }) {
  if (item.kind === "page" || item.kind === "log" || item.kind === "pocket") {
    return (
      <div>
        <ReadAloud text={plainText(item.html)} />
        <RichText html={item.html} className="reading text-base" />
      </div>
    );
  }
  if (item.kind === "link") {
    return (
      <a href={item.link} target="_blank" rel="noopener noreferrer nofollow" className="inline-flex min-h-11 max-w-full items-center gap-2 text-in underline">
        <ExternalLink aria-hidden size={16} className="shrink-0" />
        <span className="min-w-0 break-words">{item.link}</span>
      </a>
    );
  }
  const address = `/api/cupboard/${item.id}/file`;
  return (
    <div className="flex flex-col gap-3">
      <File item={item} address={address} />
      <a href={`${address}?download=true`} download className="inline-flex min-h-11 items-center gap-2 self-start font-semibold text-in underline">
        <Download aria-hidden size={16} />
        {CUPBOARD.download({ size: sizeWords(item.size) })}
      </a>
    </div>
  );
}

function File({ item, address }: { item: OpenedItem; address: string }) {
  if (item.file_kind === "picture") {
    return (
      <a href={address} target="_blank" rel="noopener" className="block">
        <img src={`/api/cupboard/${item.id}/thumbnail`} alt={item.title} className="max-w-full rounded-md border border-edge" />
      </a>
    );
  }
  if (item.file_kind === "video" || item.file_kind === "sound") return <Player video={item.file_kind === "video"} src={address} label={item.title} className="max-h-[50vh] w-full" />;
  return (
    <Suspense fallback={<div className="min-h-40" />}>
      <Converted file={{ of: "cupboard", id: item.id, title: item.title }} />
    </Suspense>
  );
}
