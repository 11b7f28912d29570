/** The pegs: all students × all hand-ins at a glance. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { lazy, Suspense, useEffect, useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { patiently } from "../api/patiently";
import { boardQuery } from "../api/queries";
import { Rail } from "../app/Rail";
import { may, useGroup, useGroupId } from "../api/session";
import { Failed, Waiting } from "../ui/Waiting";
import { BoardTable } from "./BoardTable";
import { Filters } from "./Filters";
import { chosenFrom, filtered } from "./filters";
import { Legend } from "./Legend";
import { OnPaper } from "./OnPaper";
import { TEXTS } from "./texts";

// The side panel is not needed to see the board.
const CellPanel = lazy(() => patiently(() => import("./CellPanel")).then((view) => ({ default: view.CellPanel })));

// eslint-disable-next-line complexity -- one branch for each state of the page: loading, wrong, empty, with a panel open
export function PegsView() {
  const groupId = useGroupId();
  const group = useGroup();
  const board = useQuery(boardQuery(groupId));
  const [address, setAddress] = useSearchParams();
  const chosen = useMemo(() => chosenFrom(address), [address]);
  const student = Number(address.get("student")) || null;
  useReloadAt(groupId, board.data?.changes_at ?? null);

  const set = (changes: Record<string, string | null>, replace = true) =>
    setAddress(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [key, value] of Object.entries(changes)) {
          if (value) next.set(key, value);
          else next.delete(key);
        }
        return next;
      },
      { replace },
    );

  if (board.isPending) return <Waiting />;
  if (board.isError) return <Failed error={board.error} again={() => void board.refetch()} />;
  const closePanel = () => {
    set({ student: null });
    // Back to the peg that was opened: the one stop of the board.
    requestAnimationFrame(() => document.querySelector<HTMLElement>('[role="grid"] [data-cell][tabindex="0"]')?.focus());
  };
  const { rows, counts } = filtered(board.data, chosen);
  const maySet = may(group, "set_handin");
  const shown = student !== null && chosen.handin !== null;
  return (
    <>
      <h1 className="sr-only">{TEXTS.title}</h1>
      <OnPaper title={group?.name ?? TEXTS.title} board={board.data} rows={rows} />
      <Rail
        frame={board.data}
        selected={chosen.handin}
        onSelect={(handin) => set({ handin: handin ? String(handin) : null, student: null })}
      />
      <div className="flex flex-wrap items-center gap-2 px-5 py-2.5">
        <Filters board={board.data} chosen={chosen} counts={counts} onChange={set} />
        {maySet && (
          <Link
            to={`/g/${groupId}/hand-ins?new=1`}
            className="ml-auto inline-flex min-h-8 items-center gap-2 rounded-md bg-copper px-3 font-semibold text-paper hover:bg-copper-deep"
          >
            <Plus aria-hidden size={16} />
            {TEXTS.newHandIn}
          </Link>
        )}
      </div>
      {/* eslint-disable-next-line jsx-a11y/no-static-element-interactions -- Escape closes what is open beside the board, wherever the focus is */}
      <div
        className="flex min-h-80 flex-1 gap-4 px-5 pb-3 max-lg:flex-col"
        onKeyDown={(event) => {
          if (event.key === "Escape" && shown && !event.defaultPrevented) closePanel();
        }}
      >
        <section aria-label={TEXTS.studentsAndHandIns} className="flex min-h-64 min-w-0 flex-1 flex-col overflow-hidden rounded-lg border border-edge bg-paper low:h-[90dvh] low:flex-none">
          <BoardTable
            board={board.data}
            rows={rows}
            handin={chosen.handin}
            student={student}
            onOpen={(row, handin) => set({ student: String(row), handin: String(handin) }, false)}
            onColumn={(handin) => set({ handin: handin === chosen.handin ? null : String(handin), student: null })}
            onClear={() => set({ show: null, period: null, group: null, find: null })}
            groupId={groupId}
          />
          <Legend />
        </section>
        {shown && (
          <Suspense fallback={null}>
            <CellPanel
              key={`${student} ${chosen.handin ?? 0}`}
              groupId={groupId}
              handinId={chosen.handin ?? 0}
              enrolmentId={student}
              onClose={closePanel}
            />
          </Suspense>
        )}
      </div>
    </>
  );
}

/** Load the board anew when a status changes by itself: a hand-in opens, a due moment passes. */
function useReloadAt(groupId: number, at: string | null): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!at) return;
    const wait = Math.min(Math.max(Date.parse(at) - Date.now() + 500, 1000), 2 ** 31 - 1);
    const timer = setTimeout(() => void queries.invalidateQueries({ queryKey: ["group", groupId] }), wait);
    return () => clearTimeout(timer);
  }, [groupId, at, queries]);
}
