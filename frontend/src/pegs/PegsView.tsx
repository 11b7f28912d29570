/** The pegs: all students × all hand-ins at a glance. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useEffect, useMemo } from "react";
import { patiently } from "../api/patiently";
import { boardQuery } from "../api/queries";
import { Rail } from "../app/Rail";
import { may, useGroup, useGroupId } from "../api/session";
import type { Group } from "../api/session";
import { useAddress } from "../ui/address";
import { Failed, Waiting } from "../ui/Waiting";
import { BoardTable } from "./BoardTable";
import { chosenFrom, filtered, KEYS } from "../filtering/filters";
import { useFlagged } from "../filtering/flags";
import { useGiveByDrop } from "../cupboard/useGiveByDrop";
import { whomAt } from "./dropped";
import { useFigures, useNextByKey } from "./figures";
import type { Figures } from "./figures";
import type { Board, Chosen, Row, ShownAs } from "../filtering/filters";
import { Legend } from "./Legend";
import { OnPaper } from "./OnPaper";
import { PegsBar } from "./PegsBar";
import type { Change } from "./PegsBar";
import { usePicking } from "./picking";
import type { Picking } from "./picking";
import { TEXTS } from "./texts";

// The side panel is not needed to see the board.
const NextSteps = lazy(() => patiently(() => import("./NextSteps")).then((view) => ({ default: view.NextSteps })));
const ManyBar = lazy(() => patiently(() => import("./ManyBar")).then((view) => ({ default: view.ManyBar })));
const Arrivals = lazy(() => patiently(() => import("./Arrivals")).then((view) => ({ default: view.Arrivals })));
const Patterns = lazy(() => patiently(() => import("./Patterns")).then((view) => ({ default: view.Patterns })));
const Sheet = lazy(() => patiently(() => import("./Sheet")).then((view) => ({ default: view.Sheet })));
const CellPanel = lazy(() => patiently(() => import("./CellPanel")).then((view) => ({ default: view.CellPanel })));

export function PegsView() {
  const groupId = useGroupId();
  const board = useQuery(boardQuery(groupId));
  const [address, setAddress] = useAddress();
  const chosen = useMemo(() => chosenFrom(address), [address]);
  const student = Number(address.get("student")) || null;
  useReloadAt(groupId, board.data?.changes_at ?? null);

  const set: Change = (changes, replace = true) =>
    setAddress(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [key, value] of Object.entries(changes)) {
          next.delete(key);
          for (const one of [value ?? []].flat()) if (one) next.append(key, one);
        }
        return next;
      },
      { replace },
    );

  if (board.isPending) return <Waiting />;
  if (board.isError) return <Failed error={board.error} again={() => void board.refetch()} />;
  return <Pegs board={board.data} chosen={chosen} student={student} address={address} set={set} setAddress={setAddress} />;
}

interface PegsProps {
  board: Board;
  chosen: Chosen;
  student: number | null;
  address: URLSearchParams;
  set: Change;
  setAddress: (address: URLSearchParams) => void;
}

function Pegs({ board, chosen, student, address, set, setAddress }: PegsProps) {
  const groupId = useGroupId();
  const group = useGroup();
  const flagged = useFlagged(groupId, chosen.flags.length > 0);
  const shown = useMemo(() => filtered(board, chosen, flagged), [board, chosen, flagged]);
  const { rows } = shown;
  const figures = useFigures(groupId, shown.board.handins, chosen.cells);
  const clear = () => set(Object.fromEntries(KEYS.map((key) => [key, null])));
  const closePanel = () => {
    set({ student: null });
    // Back to the peg that was opened: the one stop of the board.
    requestAnimationFrame(() => document.querySelector<HTMLElement>('[role="grid"] [data-cell][tabindex="0"]')?.focus());
  };
  const mayAct = may(group, "excuse") || may(group, "set_own_due");
  const picking = usePicking(rows, shown.board.handins, mayAct);
  const drop = useGiveByDrop(group, (at) => whomAt(at, board, shown.board, rows));
  const opened = student !== null && chosen.handin !== null && chosen.as === "pegs";
  return (
    <>
      <h1 className="sr-only">{TEXTS.title}</h1>
      <OnPaper title={group?.name ?? TEXTS.title} board={shown.board} rows={rows} chosen={chosen} rest={shown.rest} figures={figures} />
      <Rail
        frame={board}
        selected={chosen.handin}
        onSelect={(handin) => set({ handin: handin ? String(handin) : null, student: null })}
      />
      <PegsBar
        board={board}
        chosen={chosen}
        shown={shown}
        address={address}
        picking={picking}
        mayPick={mayAct}
        set={set}
        onClear={clear}
        onOpen={(filter) => setAddress(new URLSearchParams(filter))}
      />
      <Beginning board={board} group={group} />
      {drop.dialog}
      {/* eslint-disable-next-line jsx-a11y/no-static-element-interactions -- Escape closes what is open beside the board, wherever the focus is */}
      <div
        {...drop.place}
        className={`flex min-h-80 flex-1 gap-4 px-5 pb-3 max-lg:flex-col ${drop.over ? "outline-3 -outline-offset-3 outline-in" : ""}`}
        onKeyDown={(event) => {
          if (event.key === "Escape" && opened && !event.defaultPrevented) closePanel();
        }}
      >
        <section aria-label={TEXTS.studentsAndHandIns} className="flex min-h-64 min-w-0 flex-1 flex-col overflow-hidden rounded-lg border border-edge bg-paper low:h-[90dvh] low:flex-none">
          <Shown board={shown.board} pins={shown.pins} rest={shown.rest} rows={rows} chosen={chosen} student={student} set={set} onClear={clear} picking={picking} figures={figures} />
        </section>
        {opened && (
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

/** A class that has nobody yet, or nothing that is asked of them, says what comes next. */
function Beginning({ board, group }: { board: Board; group: Group | null }) {
  if (!group || !may(group, "keep_roster") || (board.students.length > 0 && board.handins.length > 0)) return null;
  return (
    <Suspense fallback={null}>
      <NextSteps board={board} group={group} />
    </Suspense>
  );
}

interface ShownProps {
  board: Board;
  rows: Row[];
  chosen: Chosen;
  student: number | null;
  set: Change;
  onClear: () => void;
  picking: Picking;
  figures: Figures;
  pins: number;
  rest: boolean;
}

/** What the filters leave, as pegs or as a list of what came in. */
function Shown({ board, pins, rest, rows, chosen, student, set, onClear, picking, figures }: ShownProps) {
  const groupId = useGroupId();
  const showAs = useCallback((cells: ShownAs) => set({ cells: cells === "coats" ? null : cells }), [set]);
  useNextByKey(chosen.cells, showAs);
  if (chosen.as === "patterns") {
    return (
      <Suspense fallback={<Waiting />}>
        <Patterns board={board} rows={rows} chosen={chosen} rest={rest} />
      </Suspense>
    );
  }
  if (chosen.as === "scores") {
    return (
      <Suspense fallback={<Waiting />}>
        <Sheet board={board} rows={rows} />
      </Suspense>
    );
  }
  if (chosen.as === "list") {
    return (
      <Suspense fallback={<Waiting />}>
        <Arrivals board={board} rows={rows} chosen={chosen} rest={rest} onOrder={(byStudent) => set({ by: byStudent ? "student" : null })} onClear={onClear} />
      </Suspense>
    );
  }
  return (
    <>
      <BoardTable
        board={board}
        rows={rows}
        handin={chosen.handin}
        student={student}
        onOpen={(row, handin) => set({ student: String(row), handin: String(handin) }, false)}
        onColumn={(handin) => set({ handin: handin === chosen.handin ? null : String(handin), student: null })}
        onClear={onClear}
        groupId={groupId}
        figures={figures}
        picking={picking}
        pins={pins}
        banded={chosen.banded}
        order={chosen.order}
        onOrder={(order) => set({ order: order === "family" ? null : order })}
      />
      {picking.picked.size > 0 || picking.on ? (
        <Suspense fallback={<div className="min-h-12 border-t border-line" />}>
          <ManyBar picking={picking} groupId={groupId} />
        </Suspense>
      ) : (
        <Legend shown={chosen.cells} onChange={showAs} />
      )}
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
