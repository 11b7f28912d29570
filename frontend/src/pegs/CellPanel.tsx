/** One cell opened beside the board. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen, X } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { Problem } from "../api/problem";
import { cellQuery, remindersQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { ForThem } from "../submission/ForThem";
import { Thumbnail } from "../viewer/Artefact";
import { Button } from "../ui/Button";
import { ChipList } from "../ui/Chips";
import { Coat } from "../ui/Coat";
import { day, due, moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { Reflection } from "../ui/reading/Reflection";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { lateness, listed, STATUS, STATUS_WITHIN } from "../ui/words";
import { OwnDue } from "./OwnDue";
import { MANY, REMIND } from "./manyTexts";
import { CELL } from "./cellTexts";
import { COUNTED } from "../ui/texts";

const ManyDialog = lazy(() => patiently(() => import("./ManyDialog")).then((view) => ({ default: view.ManyDialog })));

type Cell = Schema["OpenedCell"];

interface Props {
  groupId: number;
  handinId: number;
  enrolmentId: number;
  onClose: () => void;
}

export function CellPanel({ groupId, handinId, enrolmentId, onClose }: Props) {
  const cell = useQuery(cellQuery(groupId, handinId, enrolmentId));
  return (
    <aside
      aria-label={CELL.theChosenPeg}
      className="flex w-[300px] shrink-0 flex-col overflow-y-auto rounded-lg border border-edge bg-paper max-lg:max-h-96 max-lg:w-full"
    >
      {cell.isPending && <Waiting />}
      {cell.isError && <Failed error={cell.error} again={() => void cell.refetch()} />}
      {cell.data && <Opened cell={cell.data} groupId={groupId} onClose={onClose} />}
    </aside>
  );
}

function Opened({ cell, groupId, onClose }: { cell: Cell; groupId: number; onClose: () => void }) {
  return (
    <>
      <div className="flex items-start gap-3 p-4 pb-3">
        <PegPicture picture={cell.student.picture} tint={cell.student.tint} size={30} />
        <div className="min-w-0 flex-1">
          <h2 className="text-base break-words">{listed(cell.student)}</h2>
          <p className="text-ink-soft">
            {cell.handin.title}
            {cell.student.period && ` · ${cell.student.period}`}
          </p>
        </div>
        <button type="button" aria-label={CELL.close} onClick={onClose} className="-m-1 p-2">
          <X aria-hidden size={18} />
        </button>
      </div>
      <div className="flex flex-1 flex-col gap-4 px-4 pb-4">
        <Summary cell={cell} />
        {cell.status !== "not_asked" && <Pockets pockets={cell.pockets} />}
        <Submissions cell={cell} groupId={groupId} />
        <Reminders cell={cell} groupId={groupId} />
      </div>
      <Actions cell={cell} groupId={groupId} />
    </>
  );
}

function dueWords(cell: Cell): string {
  if (!cell.due) return CELL.noDueDate;
  return CELL.dueHow({ due: due(cell.due, cell.due_time), days: cell.extra_days, own: cell.due_source === "own" });
}

function Summary({ cell }: { cell: Cell }) {
  return (
    <div className="flex items-start gap-3 rounded-md bg-in-soft p-3">
      <Coat state={{ ...cell, locked: false }} size={28} />
      <div className="min-w-0">
        <p>
          <strong>{cell.overdue ? CELL.overdue : STATUS[cell.status]}</strong>
          {cell.at && cell.status !== "excused" && ` ${moment(cell.at)}`}
        </p>
        {cell.overdue && <p>{STATUS[cell.status]}</p>}
        {cell.late && <p>{lateness(cell)}</p>}
        <p className="text-ink-soft">{cell.status === "not_open" ? CELL.opensOpensCell({ opens: day(cell.handin.opens), cell: dueWords(cell) }) : dueWords(cell)}</p>
        {cell.no_period && <p className="text-overdue">{CELL.noPeriod}</p>}
      </div>
    </div>
  );
}

function Pockets({ pockets }: { pockets: Cell["pockets"] }): ReactNode {
  return pockets.map((pocket) => {
    const first = pocket.evidence[0];
    return (
      <section key={pocket.id} aria-label={pocket.title} className="flex flex-col gap-2">
        {pockets.length > 1 && <h3 className="font-bold">{pocket.title}</h3>}
        {first?.artefact && (
          <div>
            <div className="overflow-hidden rounded-md border border-line">
              <Thumbnail artefact={first.artefact} />
            </div>
            <p className="mt-1 truncate text-quiet" title={first.artefact.title}>
              {first.artefact.title}
              {pocket.evidence.length > 1 && CELL.ofCount({ count: pocket.evidence.length })}
            </p>
          </div>
        )}
        {first ? <Reflection text={first.text} clamp /> : <p className="text-quiet">{pocket.rows > 0 ? COUNTED.rows({ count: pocket.rows }) : CELL.nothing}</p>}
        {pocket.chips.length > 0 && (
          <div>
            <h3 className="font-bold">{CELL.pocketCheck}</h3>
            <ChipList chips={pocket.chips} />
          </div>
        )}
      </section>
    );
  });
}

function Submissions({ cell, groupId }: { cell: Cell; groupId: number }) {
  if (cell.submissions.length === 0) return null;
  return (
    <section aria-labelledby="submissions">
      <h3 id="submissions" className="font-bold">
        {CELL.submissions}
      </h3>
      <ol className="mt-1 divide-y divide-line">
        {cell.submissions.map((one) => (
          <li key={one.id} className="py-1">
            <Link to={`/g/${groupId}/portfolio/${cell.portfolio}/submission/${one.id}`} className="font-semibold text-in underline">
              {one.number} · {moment(one.at)}
            </Link>
            <span className="figures block text-quiet">
              {one.receipt}
              {one.voided_at ? CELL.takenBack : one.outcome ? ` · ${STATUS_WITHIN[one.outcome]}` : ""}
              {one.empty && CELL.empty}
            </span>
            <ForThem one={one} />
          </li>
        ))}
      </ol>
    </section>
  );
}

/** When the student was reminded of this; the words open under each. */
function Reminders({ cell, groupId }: { cell: Cell; groupId: number }) {
  const found = useQuery(remindersQuery(groupId, cell.handin.id, cell.student.id));
  if (!found.data?.length) return null;
  return (
    <section aria-labelledby="reminders">
      <h3 id="reminders" className="font-bold">
        {REMIND.reminded}
      </h3>
      <ul className="mt-1">
        {found.data.map((one) => (
          <li key={one.id}>
            <details>
              <summary className="cursor-pointer">{REMIND.remindedBy({ at: moment(one.at), by: one.by })}</summary>
              <p className="break-words whitespace-pre-line text-ink-soft">{one.text}</p>
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
}

// eslint-disable-next-line complexity -- one branch for each thing that may be done with a cell
function Actions({ cell, groupId }: { cell: Cell; groupId: number }) {
  const group = useGroup();
  const queries = useQueryClient();
  const say = useSay();
  const setExcused = (excused: boolean) =>
    data(
      client.PUT("/api/handins/{handin_id}/students/{enrolment_id}/excused", {
        params: { path: { handin_id: cell.handin.id, enrolment_id: cell.student.id } },
        body: { excused },
      }),
    );
  const excuse = useMutation({
    mutationFn: setExcused,
    onSuccess: async (_, excused) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const back = async () => {
        await setExcused(!excused);
        await queries.invalidateQueries({ queryKey: ["group", groupId] });
      };
      say(
        excused ? CELL.fullNameIsExcusedFrom({ full_name: cell.student.full_name, title: cell.handin.title }) : CELL.theExcuseIsEnded,
        () => void back(),
      );
    },
  });
  const newest = cell.submissions.findLast((one) => !one.voided_at);
  const mayExcuse = may(group, "excuse") && cell.status !== "not_asked";
  const mayHandIn = may(group, "hand_in_for") && ["working", "empty", "sent_back"].includes(cell.status);
  const [dating, setDating] = useState(false);
  const [handing, setHanding] = useState(false);
  return (
    <div className="sticky bottom-0 low:static flex flex-wrap gap-2 border-t border-line bg-paper p-4">
      {excuse.error instanceof Problem && <Notice title={excuse.error.title} fix={excuse.error.fix} />}
      {dating && <OwnDue cell={cell} groupId={groupId} onClose={() => setDating(false)} />}
      {newest && cell.status === "handed_in" && may(group, "mark") && (
        <Link
          to={`/g/${groupId}/pile/${newest.id}`}
          className="inline-flex min-h-9 flex-1 items-center justify-center rounded-md bg-copper px-3 font-semibold whitespace-nowrap text-paper hover:bg-copper-deep"
        >
          {CELL.openToMark}
        </Link>
      )}
      <Link
        to={`/g/${groupId}/portfolio/${cell.portfolio}${cell.pockets[0] ? `/${cell.pockets[0].id}` : ""}`}
        className="inline-flex min-h-9 flex-1 items-center justify-center gap-2 rounded-md border border-edge px-3 font-semibold whitespace-nowrap hover:border-control"
      >
        <FolderOpen aria-hidden size={16} />
        {CELL.portfolio}
      </Link>
      {mayExcuse && (
        <Button
          className="min-h-9 flex-1"
          disabled={excuse.isPending}
          onClick={() => excuse.mutate(cell.status !== "excused")}
        >
          {cell.status === "excused" ? CELL.unexcuse : CELL.excuse}
        </Button>
      )}
      {mayHandIn && (
        <Button className="min-h-9 flex-1" onClick={() => setHanding(true)}>
          {MANY.handInFor}
        </Button>
      )}
      {handing && (
        <Suspense>
          <ManyDialog deed="for" cells={[{ handin: cell.handin.id, enrolment: cell.student.id, status: cell.status }]} groupId={groupId} onClose={() => setHanding(false)} onDone={() => setHanding(false)} />
        </Suspense>
      )}
      {may(group, "set_own_due") && !dating && cell.status !== "excused" && (
        <Button className="min-h-9 flex-1" onClick={() => setDating(true)}>
          {cell.status === "not_asked" ? CELL.askAnyway : CELL.ownDue}
        </Button>
      )}
    </div>
  );
}
