/** The marking pile: the pile at the left, the desk in the middle, feedback and score at the right. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { useCallback, useEffect, useLayoutEffect, useMemo } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schema } from "../api/client";
import { cellQuery, submissionQuery } from "../api/queries";
import { may, useGroupId, useSession } from "../api/session";
import { Button } from "../ui/Button";
import { Coat } from "../ui/Coat";
import { moment } from "../ui/dates";
import { isTyped, useLetterKeys } from "../ui/keys";
import { OnFirstUse } from "../ui/OnFirstUse";
import { ListedName } from "../ui/people/ListedName";
import { Failed, Waiting } from "../ui/Waiting";
import { lateness } from "../ui/words";
import { arrangedBy, handinsOf, ORDERS, searchOf } from "./arranging";
import type { Arranged, Order } from "./arranging";
import { Desk } from "./Desk";
import { MarkPanel } from "./MarkPanel";
import { PileFilters } from "./PileFilters";
import { ORDER_WORDS, TEXTS } from "./texts";
import { ReleaseAll } from "./ReleaseAll";
import { toFeedback } from "./toFeedback";
import { TWO } from "./twoTexts";
import { useDesks } from "./useDesks";
import { usePile } from "./usePile";

type Waiting_ = Schema["Waiting"];

export function PileView() {
  const groupId = useGroupId();
  const { submission } = useParams();
  const [address] = useSearchParams();
  const arranged = useMemo(() => arrangedBy(address), [address]);
  const { pile, left, shown } = usePile(groupId, arranged);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const student = Number(address.get("student"));
  const handin = Number(address.get("handin"));
  const all = pile.data?.waiting;
  const chosen = submission ? Number(submission) : null;
  const desks = useDesks(groupId, chosen);

  // Without a submission in the address: the one asked for from the board, else the oldest.
  useEffect(() => {
    if (!shown || submission) return;
    const asked = all?.find((one) => one.student.id === student && one.handin.id === handin);
    if (asked) void navigate(pathTo(asked, arranged), { replace: true });
    else if (student && handin) {
      void queries.query(cellQuery(groupId, handin, student)).then((cell) => {
        const newest = cell.submissions.findLast((one) => !one.voided_at);
        const to = newest ? `/g/${groupId}/pile/${newest.id}` : `/g/${groupId}/pegs?student=${student}&handin=${handin}`;
        void navigate(to, { replace: true });
      });
    } else if (shown[0]) void navigate(pathTo(shown[0], arranged), { replace: true });
  }, [all, shown, submission, student, handin, groupId, navigate, queries, arranged]);

  if (pile.isError) return <Failed error={pile.error} again={() => void pile.refetch()} />;
  if (!pile.data || !left || !shown) return <Waiting />;
  const whole = searchOf({ ...arranged, of: null, filter: "" });
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <h1 className="sr-only">{TEXTS.title}</h1>
      <List pile={pile.data} left={left} waiting={shown} chosen={chosen} groupId={groupId} arranged={arranged} desks={desks} />
      {chosen === null ? <Empty others={pile.data.waiting.length} onAll={() => void navigate(`/g/${groupId}/pile${whole}`, { replace: true })} /> : <Open key={chosen} groupId={groupId} chosen={chosen} waiting={shown} arranged={arranged} desks={desks} />}
    </div>
  );
}

/** Where a submission lies open: in its own class, arranged as it is. */
function pathTo(one: Waiting_, arranged: Arranged): string {
  return `/g/${one.group}/pile/${one.submission}${searchOf(arranged)}`;
}

interface OpenProps {
  groupId: number;
  chosen: number;
  waiting: Waiting_[];
  arranged: Arranged;
  desks: Map<number, string>;
}

function Open({ groupId, chosen, waiting, arranged, desks }: OpenProps) {
  const found = useQuery(submissionQuery(groupId, chosen));
  const navigate = useNavigate();
  const queries = useQueryClient();
  const here = waiting.findIndex((one) => one.submission === chosen);
  // What another marker has open is passed over, unless nothing else waits.
  const others = (one: Waiting_) => one.submission !== chosen;
  const nextOf = (left: Waiting_[], from: number) => {
    const free = (one: Waiting_) => others(one) && !desks.has(one.submission);
    return left.slice(from + 1).find(free) ?? left.find(free) ?? left.find(others);
  };
  const next = nextOf(waiting, here);
  const before = waiting[here - 1] ?? waiting.findLast(others);
  const [nextPath, beforePath] = [next, before].map((one) => one && pathTo(one, arranged));
  const [nextGroup, nextId] = [next?.group, next?.submission];
  useEffect(() => {
    if (nextGroup && nextId) queries.query(submissionQuery(nextGroup, nextId)).catch(() => undefined);
  }, [nextGroup, nextId, queries]);
  const none = `/g/${groupId}/pile${searchOf(arranged)}`;
  const go = useCallback((to: string | undefined) => void navigate(to ?? none, { replace: true }), [navigate, none]);
  const letters = useLetterKeys();
  // With what is shown, not after it: a key pressed in that moment would go on from the submission before.
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const to = event.key === "n" ? nextPath : event.key === "b" ? beforePath : undefined;
      if (!letters || to === undefined || isTyped(event)) return;
      event.preventDefault();
      go(to);
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters, nextPath, beforePath, go]);
  /** To the next one past those that were decided with this one. */
  const past = (also: number[]) => {
    const left = waiting.filter((one) => !also.includes(one.submission));
    const one = nextOf(left, left.findIndex((each) => each.submission === chosen));
    go(one && pathTo(one, arranged));
  };
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return (
    <>
      <Desk desk={found.data} groupId={groupId} />
      <MarkPanel desk={found.data} groupId={groupId} onNext={() => go(nextPath)} onPast={past} />
    </>
  );
}

interface ListProps {
  pile: Schema["Pile"];
  /** Those that the filters leave, of every hand-in. */
  left: Waiting_[];
  /** Those that are shown, in their order. */
  waiting: Waiting_[];
  chosen: number | null;
  groupId: number;
  arranged: Arranged;
  desks: Map<number, string>;
}

function List({ pile, left, waiting, chosen, groupId, arranged, desks }: ListProps) {
  const marked = pile.marked_today;
  // Of one hand-in all that is drafted can be accepted at once.
  const only = arranged.of === null ? undefined : waiting[0];
  return (
    <section aria-labelledby="pile" className="flex w-[236px] shrink-0 flex-col border-r border-line bg-paper max-lg:max-h-44 max-lg:w-full max-lg:border-r-0 max-lg:border-b">
      <div className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-0 border-b border-line px-4 py-2 lg:flex-col lg:flex-nowrap lg:items-stretch lg:pt-3">
        {chosen !== null && (
          <button type="button" onClick={toFeedback} className="sr-only focus:not-sr-only focus:min-h-8 focus:text-left focus:font-semibold focus:underline">
            {TEXTS.toFeedback}
          </button>
        )}
        <h2 id="pile" className="figures font-bold">
          {arranged.sample ? TEXTS.countSampled({ count: waiting.length }) : TEXTS.countToMark({ count: waiting.length })}
        </h2>
        <Takes count={waiting.length} pace={pile.pace ?? null} />
        {arranged.sample ? (
          <Link to={`/g/${groupId}/hand-ins/${arranged.sample.handin}/marking`} className="min-h-7 text-sm text-in underline">
            {TEXTS.backToAgreement}
          </Link>
        ) : (
          <Arrange all={left} groupId={groupId} arranged={arranged} />
        )}
        {only && <ReleaseAll groupId={only.group} handin={only.handin} />}
      </div>
      <ol className="min-h-0 flex-1 overflow-y-auto">
        {waiting.map((one) => (
          <li key={one.submission}>
            <Link
              to={pathTo(one, arranged)}
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
                  {[one.handin.title, one.class_name, moment(one.at)].filter(Boolean).join(" · ")}
                  {one.late && `, ${lateness(one)}`}
                  {one.agree && ` · ${TWO.toAgree}`}
                </span>
                {desks.has(one.submission) && <span className="block text-xs break-words text-copper">{TWO.openBy({ who: desks.get(one.submission) ?? "" })}</span>}
              </span>
            </Link>
          </li>
        ))}
      </ol>
      {marked > 0 && <p className="figures border-t border-line px-4 py-2 text-xs text-quiet">{TEXTS.markedMarkedToday({ marked })}</p>}
    </section>
  );
}

/** How long the pile takes, as one marks today. */
function Takes({ count, pace }: { count: number; pace: number | null }) {
  if (pace === null || count === 0) return null;
  const minutes = Math.max(1, Math.round((count * pace) / 60));
  return <p className="figures text-xs text-quiet">{TEXTS.takes({ hours: Math.floor(minutes / 60), minutes: minutes % 60 })}</p>;
}

/** Which hand-in, and in which order. */
function Arrange({ all, groupId, arranged }: { all: Waiting_[]; groupId: number; arranged: Arranged }) {
  const classes = useSession().groups.filter((one) => may(one, "mark")).length;
  const navigate = useNavigate();
  const set = (to: Partial<Arranged>) => void navigate({ search: searchOf({ ...arranged, ...to }) }, { replace: true });
  const handins = handinsOf(all);
  return (
    <div className="flex max-w-full min-w-0 flex-wrap gap-x-4 lg:flex-col lg:flex-nowrap lg:items-start">
      {(classes > 1 || arranged.all) && (
        <Quiet
          label={TEXTS.whichClasses}
          value={arranged.all ? "1" : ""}
          options={[{ value: "", shown: TEXTS.thisClass }, { value: "1", shown: TEXTS.allClasses }]}
          onChange={(value) => set({ all: value === "1", of: null, filter: "" })}
        />
      )}
      {(handins.length > 1 || arranged.of !== null) && (
        <Quiet
          label={TEXTS.whichHandIn}
          value={String(arranged.of ?? "")}
          options={[{ value: "", shown: TEXTS.allHandIns }, ...handins.map(({ id, title, class_name, count }) => ({ value: String(id), shown: TEXTS.handInCount({ title, count, of: class_name || "none" }) }))]}
          onChange={(of) => set({ of: of ? Number(of) : null })}
        />
      )}
      <span className="flex min-w-0 items-center justify-between gap-2 lg:w-full">
      <Quiet label={TEXTS.order} value={arranged.order} options={ORDERS.map((value) => ({ value, shown: ORDER_WORDS[value] }))} onChange={(order) => set({ order: order as Order })} />
      {!arranged.all && <PileFilters groupId={groupId} arranged={arranged} />}
      </span>
    </div>
  );
}

interface QuietProps {
  label: string;
  value: string;
  options: { value: string; shown: string }[];
  onChange: (value: string) => void;
}

/** A choice that looks like the words it stands for. */
function Quiet({ label, value, options, onChange }: QuietProps) {
  const shown = options.find((one) => one.value === value)?.shown ?? value;
  const content = (
    <>
      <span className="truncate">{shown}</span>
      <ChevronDown aria-hidden size={13} className="shrink-0" />
    </>
  );
  const className = "-ml-1 flex min-h-7 max-w-full min-w-0 items-center gap-1 rounded-sm px-1 text-left text-ink-soft hover:bg-today";
  return <OnFirstUse kind="Choices" face={{ label: `${label}: ${shown}`, className, content }} value={value} options={options} onChange={onChange} />;
}

/** Nothing waits; or only of the other hand-ins. */
function Empty({ others, onAll }: { others: number; onAll: () => void }) {
  return (
    <div className="flex flex-1 flex-col items-center gap-3 p-16 text-center">
      <Coat state={{ status: "accepted" }} size={72} />
      <p className="text-xl font-bold">{others > 0 ? TEXTS.emptyOf : TEXTS.empty}</p>
      {others > 0 ? (
        <Button look="main" className="min-h-10" onClick={onAll}>
          {TEXTS.showOthers({ count: others })}
        </Button>
      ) : (
        <p className="text-base text-ink-soft">{TEXTS.emptyHint}</p>
      )}
    </div>
  );
}
