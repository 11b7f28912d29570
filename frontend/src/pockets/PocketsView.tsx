/** My pockets: the pockets with their coats at the left, the open one at the right. Staff look in the same way. */
import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, GalleryVerticalEnd, Palette, ScrollText, Trash2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link, NavLink, useLocation, useParams } from "react-router";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { portfolioQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { useDetail } from "../ui/detail";
import { PegPicture, TINTS } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import { LookBar } from "./LookBar";
import { useLook } from "./useLook";
import { Choices } from "./Choices";
import { CoverDialog } from "./CoverDialog";
import { LoosePages } from "./LoosePages";
import { LoosePageView } from "./LoosePageView";
import { NextUp } from "./NextUp";
import { PocketList } from "./PocketList";
import { PocketPage } from "./PocketPage";
import { StaffNotes } from "../submission/StaffNotes";
import { TEXTS, WHOLE } from "./texts";

/** What stands at the right beside pockets and pages, by the last part of the address. */
const PARTS = ["whole", "show", "taken-out"];

const ShowEditor = lazy(() => patiently(() => import("../show/ShowEditor")).then((view) => ({ default: view.ShowEditor })));
const OnePage = lazy(() => patiently(() => import("./OnePage")).then((view) => ({ default: view.OnePage })));
const TakenOut = lazy(() => patiently(() => import("./TakenOut")).then((view) => ({ default: view.TakenOut })));

// eslint-disable-next-line complexity -- one branch for each reader, and for what only some of them see
export function PocketsView() {
  const groupId = useGroupId();
  const { portfolio: id, pocket, page } = useParams();
  const part = useLocation().pathname.split("/").pop() ?? "";
  const chosen = pocket ?? page ?? (PARTS.includes(part) ? part : undefined);
  const looking = useLook(groupId, Number(id));
  const portfolio = useQuery(portfolioQuery(groupId, Number(id)));
  const open = portfolio.data?.pockets.find((one) => String(one.id) === pocket)?.title;
  useDetail([open, portfolio.data && !portfolio.data.mine ? portfolio.data.student.full_name : ""].filter(Boolean).join(" · "));
  if (portfolio.isPending) return <Waiting />;
  if (portfolio.isError) return <Failed error={portfolio.error} again={() => void portfolio.refetch()} />;
  const base = `/g/${groupId}/portfolio/${portfolio.data.id}`;
  return (
    // By the room that is left beside the cupboard, not by the window.
    <div className="@container flex min-h-0 flex-1 flex-col">
      {!portfolio.data.mine && <LookBar groupId={groupId} portfolio={portfolio.data} pocket={pocket ?? null} page={page ?? null} since={looking.since} only={looking.only} onOnly={looking.setOnly} />}
      <div className="flex min-h-0 flex-1">
      <aside className={`w-[300px] print:hidden shrink-0 overflow-y-auto border-r border-line bg-paper @max-3xl:w-full @max-3xl:border-0 ${chosen ? "@max-3xl:hidden" : ""}`}>
        <Cover portfolio={portfolio.data} />
        <Choices portfolio={portfolio.data} />
        <PocketList key={portfolio.data.id} portfolio={portfolio.data} base={base} chosen={Number(pocket) || null} only={looking.only ? looking.since : null} />
        <LoosePages portfolio={portfolio.data} base={base} />
        <More portfolio={portfolio.data} base={base} />
        {!portfolio.data.mine && (
          <div className="p-3">
            <StaffNotes key={portfolio.data.id} groupId={groupId} portfolio={portfolio.data.id} submission={null} />
          </div>
        )}
      </aside>
      <div className={`min-w-0 flex-1 overflow-y-auto ${chosen ? "" : "@max-3xl:hidden"}`}>
        {chosen ? (
          <>
            <Link to={base} className="flex min-h-11 items-center gap-2 px-4 font-semibold text-in @3xl:hidden">
              <ArrowLeft aria-hidden size={18} />
              {portfolio.data.mine ? TEXTS.myPockets : TEXTS.pockets}
            </Link>
            {page ? (
              <LoosePageView key={page} groupId={groupId} pageId={Number(page)} portfolio={portfolio.data.id} mine={portfolio.data.mine} base={base} />
            ) : pocket ? (
              <PocketPage key={`${id}/${pocket}`} groupId={groupId} portfolio={portfolio.data.id} pocketId={Number(pocket)} mine={portfolio.data.mine} since={looking.since} />
            ) : (
              <Suspense fallback={<Waiting />}>
                <Part part={part} groupId={groupId} portfolio={portfolio.data} />
              </Suspense>
            )}
          </>
        ) : (
          <NextUp portfolio={portfolio.data} base={base} />
        )}
      </div>
      </div>
    </div>
  );
}

function Part({ part, groupId, portfolio }: { part: string; groupId: number; portfolio: Schema["PortfolioShape"] }) {
  if (part === "whole") return <OnePage groupId={groupId} portfolio={portfolio} />;
  if (part === "show") return <ShowEditor groupId={groupId} portfolio={portfolio.id} mine={portfolio.mine} />;
  return <TakenOut groupId={groupId} portfolio={portfolio.id} />;
}

/** What else is in a portfolio, under its pockets and pages. */
function More({ portfolio, base }: { portfolio: Schema["PortfolioShape"]; base: string }) {
  const links = [
    { to: `${base}/whole`, name: WHOLE.open, icon: <ScrollText aria-hidden size={22} className="mx-0.5 shrink-0 text-ink-soft" /> },
    { to: `${base}/show`, name: portfolio.mine ? TEXTS.showPage : TEXTS.theirShowPage, icon: <GalleryVerticalEnd aria-hidden size={22} className="mx-0.5 shrink-0 text-ink-soft" /> },
    ...(portfolio.mine ? [{ to: `${base}/taken-out`, name: TEXTS.takenOut, icon: <Trash2 aria-hidden size={22} className="mx-0.5 shrink-0 text-ink-soft" /> }] : []),
  ];
  return (
    <nav aria-label={TEXTS.more} className="border-t border-line pb-6">
      {links.map((one) => (
        <NavLink key={one.to} to={one.to} className={({ isActive }) => `flex min-h-14 items-center gap-3 border-b border-l-4 border-b-line py-2 pl-3 font-semibold ${isActive ? "border-l-copper bg-today" : "border-l-transparent hover:bg-ground"}`}>
          {one.icon}
          {one.name}
        </NavLink>
      ))}
    </nav>
  );
}

function Cover({ portfolio }: { portfolio: Schema["PortfolioShape"] }) {
  const { student, met, wanted, met_whole: metWhole, wanted_whole: wantedWhole, cover } = portfolio;
  const [editing, setEditing] = useState(false);
  return (
    <div className={`border-b border-line p-4 ${cover.tint === null ? "" : (TINTS[cover.tint] ?? "")}`}>
      {cover.picture && <img src={`/api/artefacts/${cover.picture.id}/thumbnails/large`} alt="" className="mb-3 h-28 w-full rounded-md object-cover" />}
      <div className="flex items-center gap-3">
        <PegPicture picture={student.picture} tint={student.tint} size={48} />
        <div className="min-w-0 flex-1 text-ink">
          <p className="text-lg leading-6 font-bold break-words">{cover.title || TEXTS.givenNameSPortfolio({ given_name: student.given_name })}</p>
          <p>{portfolio.mine ? portfolio.group.name : student.full_name}</p>
        </div>
        {portfolio.mine && (
          <button type="button" aria-label={TEXTS.cover} title={TEXTS.cover} onClick={() => setEditing(true)} className="-mr-2 flex size-11 shrink-0 items-center justify-center rounded-md text-ink-soft hover:bg-ground">
            <Palette aria-hidden size={18} />
          </button>
        )}
      </div>
      {editing && <CoverDialog portfolio={portfolio} onClose={() => setEditing(false)} />}
      {wanted > 0 && (
        <p className="mt-3 text-ink">
          <span aria-hidden className="meter mb-1 block h-2 overflow-hidden rounded-full bg-line">
            <span className="block h-full bg-in" style={{ width: `${(100 * met) / wanted}%` }} />
          </span>
          <span className="figures">
            {TEXTS.inPockets({ met, wanted })}
            {wantedWhole > wanted && <span className="block text-sm">{TEXTS.overAll({ met: metWhole, wanted: wantedWhole })}</span>}
          </span>
        </p>
      )}
    </div>
  );
}
