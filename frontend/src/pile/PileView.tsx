/** The marking pile: the pile at the left, the desk in the middle, feedback and score at the right. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schema } from "../api/client";
import { cellQuery, pileQuery, submissionQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { Coat } from "../ui/Coat";
import { moment } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { Failed, Waiting } from "../ui/Waiting";
import { lateness } from "../ui/words";
import { Desk } from "./Desk";
import { MarkPanel } from "./MarkPanel";
import { TEXTS } from "./texts";
import { toFeedback } from "./toFeedback";

type Waiting_ = Schema["Waiting"];

export function PileView() {
  const groupId = useGroupId();
  const { submission } = useParams();
  const [address] = useSearchParams();
  const pile = useQuery(pileQuery(groupId));
  const navigate = useNavigate();
  const queries = useQueryClient();
  const student = Number(address.get("student"));
  const handin = Number(address.get("handin"));
  const waiting = pile.data?.waiting;

  // Without a submission in the address: the one asked for from the board, else the oldest.
  useEffect(() => {
    if (!waiting || submission) return;
    const asked = waiting.find((one) => one.student.id === student && one.handin.id === handin);
    if (asked) void navigate(`/g/${groupId}/pile/${asked.submission}`, { replace: true });
    else if (student && handin) {
      void queries.query(cellQuery(groupId, handin, student)).then((cell) => {
        const newest = cell.submissions.findLast((one) => !one.voided_at);
        const to = newest ? `/g/${groupId}/pile/${newest.id}` : `/g/${groupId}/pegs?student=${student}&handin=${handin}`;
        void navigate(to, { replace: true });
      });
    } else if (waiting[0]) void navigate(`/g/${groupId}/pile/${waiting[0].submission}`, { replace: true });
  }, [waiting, submission, student, handin, groupId, navigate, queries]);

  if (pile.isPending) return <Waiting />;
  if (pile.isError) return <Failed error={pile.error} again={() => void pile.refetch()} />;
  const chosen = submission ? Number(submission) : null;
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <h1 className="sr-only">{TEXTS.title}</h1>
      {chosen !== null && (
        <button type="button" onClick={toFeedback} className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-3 focus:font-semibold">
          {TEXTS.toFeedback}
        </button>
      )}
      <List waiting={pile.data.waiting} marked={pile.data.marked_today} chosen={chosen} groupId={groupId} />
      {chosen === null ? <Empty /> : <Open key={chosen} groupId={groupId} chosen={chosen} waiting={pile.data.waiting} />}
    </div>
  );
}

function Open({ groupId, chosen, waiting }: { groupId: number; chosen: number; waiting: Waiting_[] }) {
  const found = useQuery(submissionQuery(groupId, chosen));
  const navigate = useNavigate();
  const queries = useQueryClient();
  const here = waiting.findIndex((one) => one.submission === chosen);
  const next = waiting[here + 1] ?? waiting.find((one) => one.submission !== chosen);
  const nextId = next?.submission;
  useEffect(() => {
    if (nextId) queries.query(submissionQuery(groupId, nextId)).catch(() => undefined);
  }, [groupId, nextId, queries]);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const go = () => void navigate(nextId ? `/g/${groupId}/pile/${nextId}` : `/g/${groupId}/pile`, { replace: true });
  return (
    <>
      <Desk desk={found.data} groupId={groupId} />
      <MarkPanel desk={found.data} groupId={groupId} onNext={go} />
    </>
  );
}

function List({ waiting, marked, chosen, groupId }: { waiting: Waiting_[]; marked: number; chosen: number | null; groupId: number }) {
  return (
    <section aria-labelledby="pile" className="flex w-[236px] shrink-0 flex-col border-r border-line bg-paper max-lg:max-h-44 max-lg:w-full max-lg:border-r-0 max-lg:border-b">
      <div className="flex items-baseline justify-between border-b border-line px-4 py-3">
        <h2 id="pile" className="figures font-bold">
          {TEXTS.countToMark({ count: waiting.length })}
        </h2>
        <span className="text-quiet">{TEXTS.oldest}</span>
      </div>
      <ol className="min-h-0 flex-1 overflow-y-auto">
        {waiting.map((one) => (
          <li key={one.submission}>
            <Link
              to={`/g/${groupId}/pile/${one.submission}`}
              replace
              aria-current={one.submission === chosen ? "true" : undefined}
              className={`flex items-center gap-3 border-b border-l-4 border-b-line py-2 pr-3 pl-2 ${one.submission === chosen ? "border-l-copper bg-today" : "border-l-transparent hover:bg-ground"}`}
            >
              <Coat state={one} />
              <span className="min-w-0">
                <span className="block truncate">
                  <ListedName person={one.student} />
                </span>
                <span className="block text-xs break-words text-quiet">
                  {one.handin.title} · {moment(one.at)}
                  {one.late && `, ${lateness(one)}`}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ol>
      {marked > 0 && <p className="figures border-t border-line px-4 py-2 text-xs text-quiet">{TEXTS.markedMarkedToday({ marked })}</p>}
    </section>
  );
}

function Empty() {
  return (
    <div className="flex flex-1 flex-col items-center gap-3 p-16 text-center">
      <Coat state={{ status: "accepted" }} size={72} />
      <p className="text-xl font-bold">{TEXTS.empty}</p>
      <p className="text-base text-ink-soft">{TEXTS.emptyHint}</p>
    </div>
  );
}
