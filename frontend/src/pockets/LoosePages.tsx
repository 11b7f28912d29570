/** A student's own pages, beside the wanted pockets: in the order they like. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, FilePlus, FileText, UsersRound } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { NavLink, useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

const BeginTogether = lazy(() => patiently(() => import("./BeginTogether")).then((view) => ({ default: view.BeginTogether })));

export function LoosePages({ portfolio, base }: { portfolio: Schema["PortfolioShape"]; base: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { pages, mine } = portfolio;
  const [beginning, setBeginning] = useState(false);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", portfolio.group.id] });
  const add = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/pages", { params: { path: { portfolio_id: portfolio.id } }, body: { title: TEXTS.newPage } })),
    onSuccess: async (made) => {
      await fresh();
      await navigate(`${base}/page/${made.id}`);
    },
  });
  const move = useMutation({
    mutationFn: ({ page, before }: { page: number; before: number | null }) => data(client.POST("/api/pages/{page_id}/move", { params: { path: { page_id: page } }, body: { before } })),
    onSuccess: fresh,
  });
  if (!mine && pages.length === 0) return null;
  const step = "flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground disabled:opacity-30";
  return (
    <nav aria-label={TEXTS.ownPages} className="pb-6">
      <h2 className="px-4 pt-5 pb-1 text-base">{TEXTS.ownPages}</h2>
      <ul>
        {pages.map((page, at) => {
          const PageIcon = page.together ? UsersRound : FileText;
          return (
          <li key={page.id} className="flex items-center border-b border-line">
            <NavLink
              to={`${base}/page/${page.id}`}
              className={({ isActive }) => `flex min-h-14 min-w-0 flex-1 items-center gap-3 border-l-4 py-2 pl-3 ${isActive ? "border-copper bg-today" : "border-transparent hover:bg-ground"}`}
            >
              <PageIcon aria-hidden size={22} className="mx-0.5 shrink-0 text-ink-soft" />
              <span className="min-w-0">
                <span className="block font-semibold break-words">{page.title}</span>
                <span className="text-quiet">{page.words > 0 ? COUNTED.words({ count: page.words }) : TEXTS.emptyPage}
                  {page.together && ` · ${TEXTS.together}`}</span>
              </span>
            </NavLink>
            {mine && pages.length > 1 && (
              <>
                <button type="button" aria-label={TEXTS.moveTitleUp({ title: page.title })} className={step} disabled={at === 0 || move.isPending} onClick={() => move.mutate({ page: page.id, before: pages[at - 1]?.id ?? null })}>
                  <ArrowUp aria-hidden size={16} />
                </button>
                <button type="button" aria-label={TEXTS.moveTitleDown({ title: page.title })} className={step} disabled={at === pages.length - 1 || move.isPending} onClick={() => move.mutate({ page: page.id, before: pages[at + 2]?.id ?? null })}>
                  <ArrowDown aria-hidden size={16} />
                </button>
              </>
            )}
          </li>
          );
        })}
      </ul>
      {portfolio.begins_together && (
        <button type="button" onClick={() => setBeginning(true)} className="flex min-h-11 items-center gap-2 px-4 text-base font-semibold text-in hover:underline">
          <UsersRound aria-hidden size={18} />
          {TEXTS.addTogether}
        </button>
      )}
      {beginning && (
        <Suspense fallback={null}>
          <BeginTogether portfolio={portfolio} base={base} onClose={() => setBeginning(false)} />
        </Suspense>
      )}
      {mine && (
        <button type="button" disabled={add.isPending} onClick={() => add.mutate()} className="flex min-h-11 items-center gap-2 px-4 text-base font-semibold text-in hover:underline">
          <FilePlus aria-hidden size={18} />
          {TEXTS.addPage}
        </button>
      )}
    </nav>
  );
}
