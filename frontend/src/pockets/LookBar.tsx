/** Over a portfolio that staff look into: whose it is, what is new, who comes next on the same pocket. */
import { useQuery } from "@tanstack/react-query";
import { ChevronLeft, ChevronRight, LayoutGrid, Lock, LockOpen } from "lucide-react";
import { lazy, Suspense, useLayoutEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { gridQuery, ownPagesQuery, portfoliosQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { isTyped, useLetterKeys } from "../ui/keys";
import { onceEach } from "../ui/people/onceEach";
import { listed } from "../ui/words";
import { LOOKING } from "./texts";

const LockDialog = lazy(() => patiently(() => import("../live/LockDialog")).then((view) => ({ default: view.LockDialog })));

interface Props {
  groupId: number;
  portfolio: Schema["PortfolioShape"];
  pocket: string | null;
  /** The page of the student's own that is open. */
  page: string | null;
  since: string | null;
  only: boolean;
  onOnly: (only: boolean) => void;
}

export function LookBar({ groupId, portfolio, pocket, page, since, only, onOnly }: Props) {
  const navigate = useNavigate();
  const member = useGroup() !== null;
  const { all, known, at } = useOthers(groupId, member, { portfolio: portfolio.id, pocket, page });
  const to = (place: number) => (at >= 0 ? all[place] : undefined);
  const address = (one: Other | undefined) => (one ? `/g/${groupId}/portfolio/${one.portfolio}${one.part}` : null);
  const [before, after] = [address(to(at - 1)), address(to(at + 1))];
  // A key pressed right after opening waits until it is known who is next.
  const waiting = useRef("");
  const letters = useLetterKeys();
  useLayoutEffect(() => {
    const step = (key: string) => {
      const next = key === "n" ? after : key === "b" ? before : null;
      if (next) void navigate(next);
      return next !== null;
    };
    if (known) step(waiting.current);
    if (known) waiting.current = "";
    const press = (event: KeyboardEvent) => {
      if (!letters || isTyped(event)) return;
      if (!known) waiting.current = event.key;
      else if (step(event.key)) event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [after, before, known, letters, navigate]);
  const step = "inline-flex min-h-9 items-center gap-1 rounded-md border border-edge bg-paper px-3 font-semibold hover:border-control";
  return (
    <section aria-label={LOOKING.bar} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-ground px-5 py-2">
      <p className="min-w-0">
        <strong>{portfolio.student.full_name}</strong>
        <span className="text-quiet">{since ? ` · ${LOOKING.lookedAt} ${moment(since)}` : ` · ${LOOKING.never}`}</span>
      </p>
      {since && (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={only} onChange={(event) => onOnly(event.target.checked)} />
          {LOOKING.only}
        </label>
      )}
      {member && (
        <span className="ml-auto flex flex-wrap gap-2">
          <LockButton groupId={groupId} portfolio={portfolio} pocket={pocket} />
          <TheClass groupId={groupId} pocket={page === null ? pocket : "own"} className={step} />
          {before && (
            <Link to={before} className={step} aria-keyshortcuts="b" title={`${listed(all[at - 1] ?? portfolio.student)} (b)`}>
              <ChevronLeft aria-hidden size={16} />
              {LOOKING.before}
            </Link>
          )}
          {after && (
            <Link to={after} className={step} aria-keyshortcuts="n" title={`${listed(all[at + 1] ?? portfolio.student)} (n)`}>
              {LOOKING.next}
              <ChevronRight aria-hidden size={16} />
            </Link>
          )}
        </span>
      )}
    </section>
  );
}

/** To everybody's of what is open. */
function TheClass({ groupId, pocket, className }: { groupId: number; pocket: string | null; className: string }) {
  if (!pocket) return null;
  return (
    <Link to={`/g/${groupId}/look/${pocket}`} className={className}>
      <LayoutGrid aria-hidden size={16} />
      {LOOKING.grid}
    </Link>
  );
}

type Other = Pick<Schema["PortfolioLine"], "portfolio" | "family_name" | "given_name" | "family_first"> & { part: string };

interface Open {
  portfolio: number;
  pocket: string | null;
  page: string | null;
}

/** Whose work there is to step through: by name; on a pocket those who have not begun with it come last, and what many fill together comes once; on a page of a student's own the pages of all. */
function useOthers(groupId: number, member: boolean, { portfolio, pocket, page }: Open): { all: Other[]; known: boolean; at: number } {
  const lines = useQuery({ ...portfoliosQuery(groupId), enabled: member && !pocket && !page });
  const grid = useQuery({ ...gridQuery(groupId, Number(pocket)), enabled: member && pocket !== null });
  const pages = useQuery({ ...ownPagesQuery(groupId), enabled: member && page !== null });
  return useMemo(() => {
    if (page !== null) {
      const of = pages.data?.pages ?? [];
      const open = of.find((one) => String(one.page.id) === page);
      const all = onceEach(of).map((one) => ({ ...one, part: `/page/${one.page.id}` }));
      return { all, known: pages.data !== undefined, at: all.findIndex((one) => String(one.page.id) === page || alike(one, open)) };
    }
    if (pocket === null) {
      const all = (lines.data ?? []).map((one) => ({ ...one, part: "" }));
      return { all, known: lines.data !== undefined, at: all.findIndex((one) => one.portfolio === portfolio) };
    }
    const students = grid.data?.students ?? [];
    const open = students.find((one) => one.portfolio === portfolio);
    const once = onceEach(students);
    const all = [...once.filter((one) => one.begun), ...once.filter((one) => !one.begun)].map((one) => ({ ...one, part: `/${pocket}` }));
    return { all, known: grid.data !== undefined, at: all.findIndex((one) => one.portfolio === portfolio || alike(one, open)) };
  }, [grid.data, lines.data, page, pages.data, pocket, portfolio]);
}

/** Whether two see the same, since they fill it together. */
function alike(one: { together: string }, other: { together: string } | undefined): boolean {
  return one.together !== "" && one.together === other?.together;
}

/** Locks the open pocket of this student, or opens it. */
function LockButton({ groupId, portfolio, pocket: open }: Pick<Props, "groupId" | "portfolio" | "pocket">) {
  const group = useGroup();
  const [asking, setAsking] = useState(false);
  const pocket = portfolio.pockets.find((one) => String(one.id) === open);
  if (!pocket || !may(group, "lock_pockets")) return null;
  const Icon = pocket.locked ? LockOpen : Lock;
  return (
    <>
      <Button className="min-h-9" icon={<Icon aria-hidden size={16} />} onClick={() => setAsking(true)}>
        {pocket.locked ? LOOKING.open : LOOKING.lock}
      </Button>
      {asking && (
        <Suspense>
          <LockDialog what={{ pocket, students: [portfolio.student.id] }} groupId={groupId} locked={pocket.locked} onClose={() => setAsking(false)} />
        </Suspense>
      )}
    </>
  );
}
