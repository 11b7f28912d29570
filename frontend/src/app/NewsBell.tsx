/** A student's news: what was sent back, accepted, commented, asked for. */
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Bell } from "lucide-react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { newsQuery } from "../api/queries";
import { moment, plural } from "../ui/dates";
import { NEWS } from "./texts";

type Line = Schema["NewsLine"];

export function NewsBell({ groupId, portfolio }: { groupId: number; portfolio: number }) {
  const queries = useQueryClient();
  const news = useQuery(newsQuery(groupId, portfolio));
  const seen = useMutation({
    mutationFn: (number: number) => data(client.POST("/api/portfolios/{portfolio_id}/news/seen", { params: { path: { portfolio_id: portfolio } }, body: { number } })),
    // The list that is open keeps its marks; they are gone when it is opened again.
    onSuccess: () => queries.setQueryData(newsQuery(groupId, portfolio).queryKey, (old) => old && { ...old, unseen: 0 }),
  });
  const lines = news.data?.lines ?? [];
  const unseen = news.data?.unseen ?? 0;
  const open = () => {
    const newest = lines[0];
    if (newest && unseen > 0) seen.mutate(newest.number);
  };
  return (
    <Popover>
      <PopoverButton onClick={open} aria-label={unseen > 0 ? `${NEWS.title}, ${unseen} new` : NEWS.title} className="relative flex size-11 items-center justify-center rounded-md hover:bg-bar-soft">
        <Bell aria-hidden size={20} />
        {unseen > 0 && <span aria-hidden className="figures absolute top-1 right-0.5 rounded-full bg-brass px-1.5 text-xs leading-4 font-bold text-ink">{unseen}</span>}
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className="z-40 mt-1 max-h-[70vh] w-88 max-w-[92vw] overflow-y-auto rounded-md border border-edge bg-paper text-base text-ink shadow-lg">
        {({ close }) => (
          <>
            <h2 className="border-b border-line px-4 py-2 text-base">{NEWS.title}</h2>
            {lines.length === 0 && <p className="p-4 text-ink-soft">{NEWS.none}</p>}
            <ul>
              {lines.map((line) => (
                <li key={line.number} className="border-b border-line">
                  <Link to={address(line, `/g/${groupId}`, portfolio)} onClick={() => close()} className={`block px-4 py-2 hover:bg-ground ${line.new ? "bg-today" : ""}`}>
                    <span className="block break-words">
                      {line.title && <strong>{line.title} </strong>}
                      {NEWS.what[line.what]}
                    </span>
                    <span className="text-sm text-quiet">{moment(line.at)}</span>
                  </Link>
                </li>
              ))}
            </ul>
            <p className="sr-only">{plural(lines.length, "line")}</p>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}

/** Where a line of the news leads. */
function address(line: Line, base: string, portfolio: number): string {
  if (line.what === "show_page_opened") return `${base}/shows`;
  if (line.page) return `${base}/portfolio/${portfolio}/page/${line.page}`;
  return line.pocket ? `${base}/portfolio/${portfolio}/${line.pocket}` : `${base}/to-hand-in`;
}
