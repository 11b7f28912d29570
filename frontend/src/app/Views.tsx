/** The row of views of a class, by what one may do there, with counts of what waits. */
import { useQuery } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { pileQuery, portfolioQuery } from "../api/queries";
import { landing, may, useSession } from "../api/session";
import type { Group } from "../api/session";
import { CupboardButton } from "../cupboard/CupboardButton";
import { STAFF_VIEWS, STUDENT_VIEWS, TEXTS } from "./texts";

interface View {
  to: string;
  title: string;
  count?: number | undefined;
  countWords?: string;
}

export function Views({ group }: { group: Group }) {
  if (group.kind === "caseload") return <CaseloadViews group={group} />;
  return may(group, "see_board") ? <StaffViews group={group} /> : <StudentViews group={group} />;
}

function StaffViews({ group }: { group: Group }) {
  const pile = useQuery({ ...pileQuery(group.id), enabled: may(group, "see_pile") });
  const several = useSession().home === "/classes";
  const views: View[] = [...(several ? [{ to: "/classes", title: STAFF_VIEWS.classes }] : []), { to: `/g/${group.id}/pegs`, title: STAFF_VIEWS.pegs }];
  if (may(group, "see_pile")) {
    views.push({
      to: `/g/${group.id}/pile`,
      title: STAFF_VIEWS.pile,
      count: pile.data?.waiting.length,
      countWords: TEXTS.toMark,
    });
  }
  views.push({ to: `/g/${group.id}/hand-ins`, title: STAFF_VIEWS.handins });
  views.push({ to: `/g/${group.id}/look`, title: STAFF_VIEWS.look });
  views.push({ to: `/g/${group.id}/template`, title: STAFF_VIEWS.template });
  views.push({ to: `/g/${group.id}/setup`, title: STAFF_VIEWS.setup });
  return <Row views={views} cupboard={may(group, "see_cupboard")} />;
}

function CaseloadViews({ group }: { group: Group }) {
  const views: View[] = [{ to: `/g/${group.id}/setup`, title: STAFF_VIEWS.setup }];
  if (landing(group).endsWith("/caseload")) views.unshift({ to: landing(group), title: STAFF_VIEWS.caseload });
  return <Row views={views} />;
}

function StudentViews({ group }: { group: Group }) {
  const portfolio = group.portfolio ?? 0;
  const found = useQuery({ ...portfolioQuery(group.id, portfolio), enabled: portfolio > 0 });
  return (
    <Row
      cupboard={may(group, "see_cupboard")}
      views={[
        { to: `/g/${group.id}/portfolio/${portfolio}`, title: STUDENT_VIEWS.pockets },
        {
          to: `/g/${group.id}/to-hand-in`,
          title: STUDENT_VIEWS.toHandIn,
          count: found.data?.to_hand_in,
          countWords: TEXTS.toHandIn,
        },
        { to: `/g/${group.id}/feedback`, title: STUDENT_VIEWS.feedback },
        ...(may(group, "see_show_pages") ? [{ to: `/g/${group.id}/shows`, title: STUDENT_VIEWS.shows }] : []),
      ]}
    />
  );
}

function Row({ views, cupboard = false }: { views: View[]; cupboard?: boolean }) {
  return (
    <nav data-views aria-label={TEXTS.views} className="flex shrink-0 gap-5 overflow-x-auto border-b border-line bg-paper px-5 max-sm:gap-4 max-sm:px-3">
      {views.map((view) => (
        <NavLink
          key={view.to}
          to={view.to}
          className={({ isActive }) =>
            `flex min-h-11 items-center gap-2 border-b-3 font-semibold whitespace-nowrap ${
              isActive ? "border-copper text-ink" : "border-transparent text-ink-soft hover:text-ink"
            }`
          }
        >
          {view.title}
          {view.count !== undefined && view.count > 0 && (
            <span className="figures rounded-full bg-copper px-2 text-sm leading-5 font-bold text-paper">
              {view.count}
              <span className="sr-only"> {view.countWords}</span>
            </span>
          )}
        </NavLink>
      ))}
      {cupboard && <CupboardButton title={TEXTS.cupboard} />}
    </nav>
  );
}
