/** What is new to whoever is signed in, and how they are told of it by mail. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { noticesQuery } from "../api/queries";
import { moment } from "../ui/dates";
import { Panel } from "../ui/menus";
import type { Face } from "../ui/OnFirstUse";
import { COUNTED } from "../ui/texts";
import { NEWS } from "./newsTexts";
import { newsWords } from "./newsWords";
import { TEXTS } from "./texts";

type Wish = { how: How; receipts: boolean | null };
type How = Schema["MailChoiceIn"]["how"];

const HOWS: How[] = ["at_once", "daily", "never"];

export function NewsPanel({ face }: { face: Face }) {
  const queries = useQueryClient();
  const news = useQuery(noticesQuery);
  const seen = useMutation({
    mutationFn: (id: number) => data(client.POST("/api/notices/seen", { body: { id } })),
    // The list that is open keeps its marks; they are gone when it is opened again.
    onSuccess: () => queries.setQueryData(noticesQuery.queryKey, (old) => old && { ...old, unseen: 0 }),
  });
  const lines = news.data?.lines ?? [];
  const unseen = news.data?.unseen ?? 0;
  const open = () => {
    const newest = lines[0];
    if (newest && unseen > 0) seen.mutate(Math.max(...lines.map((line) => line.id)));
  };
  return (
    <Panel face={face} onOpen={open} className="max-h-[70vh] w-88 max-w-[92vw]">
      {(close) => (
        <>
          <h2 className="border-b border-line px-4 py-2 text-base">{TEXTS.news}</h2>
          {lines.length === 0 && <p className="p-4 text-ink-soft">{NEWS.none}</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto">
            {lines.map((line) => (
              <li key={line.id} className="border-b border-line">
                <Link to={line.path} onClick={() => close()} className={`block px-4 py-2 hover:bg-ground ${line.new ? "bg-today" : ""}`}>
                  <span className="block break-words">
                    {line.title && <strong>{line.title} </strong>}
                    {newsWords(line)}
                  </span>
                  <span className="text-sm text-quiet">{moment(line.at)}</span>
                </Link>
              </li>
            ))}
          </ul>
          <p className="sr-only">{COUNTED.lines({ count: lines.length })}</p>
          {news.data?.mail && <MailChoice how={news.data.mail} receipts={news.data.receipts} />}
        </>
      )}
    </Panel>
  );
}

/** How to be told by mail: kept as soon as it is chosen, and said so. */
function MailChoice({ how, receipts }: { how: How; receipts: boolean | null }) {
  const queries = useQueryClient();
  const name = useId();
  const choose = useMutation({
    mutationFn: (chosen: Wish) => data(client.PUT("/api/notices/mail", { body: chosen })),
    onSuccess: (_, chosen) => queries.setQueryData(noticesQuery.queryKey, (old) => old && { ...old, mail: chosen.how, receipts: chosen.how === "never" && old.receipts !== null ? false : chosen.receipts }),
  });
  const wish = choose.isPending ? choose.variables : { how, receipts };
  return (
    <div role="radiogroup" aria-labelledby={`${name}-label`} className="border-t border-line px-4 py-1.5">
      <div className="flex flex-wrap items-center gap-x-3">
        <span id={`${name}-label`} className="text-sm text-ink-soft">
          {NEWS.mail}
        </span>
        {HOWS.map((one) => (
          <label key={one} className="flex min-h-8 items-center gap-1.5 text-sm max-md:min-h-11">
            <input type="radio" name={name} className="accent-ink" checked={wish.how === one} onChange={() => choose.mutate({ ...wish, how: one })} />
            {NEWS.hows[one]}
          </label>
        ))}
      </div>
      {receipts !== null && wish.how !== "never" && (
        <label className="flex min-h-8 items-center gap-1.5 text-sm max-md:min-h-11">
          <input type="checkbox" className="accent-ink" checked={wish.receipts === true} onChange={() => choose.mutate({ ...wish, receipts: !wish.receipts })} />
          {NEWS.receipts}
        </label>
      )}
      <p role="status" className="text-sm text-quiet">
        {choose.isSuccess && NEWS.mailKept}
        {choose.isError && NEWS.mailNotKept}
      </p>
    </div>
  );
}
