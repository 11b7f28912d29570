/** What came in, one under the other: who, what, when, with small pictures, links and the student's first words. */
import { useInfiniteQuery } from "@tanstack/react-query";
import { ExternalLink } from "lucide-react";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { may, useGroup, useGroupId } from "../api/session";
import { useMark } from "../submission/mark";
import { Button } from "../ui/Button";
import { Coat } from "../ui/Coat";
import { moment } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import { lateness, listed, STATUS_WITHIN } from "../ui/words";
import { Thumbnail } from "../viewer/Artefact";
import { CAME } from "./arrivalTexts";
import { PaperHead } from "./PaperHead";
import { cameAs } from "../filtering/filters";
import type { Board, Chosen, Row } from "../filtering/filters";

const Viewer = lazy(() => patiently(() => import("../viewer/Viewer")).then((view) => ({ default: view.Viewer })));

type Line = Schema["ArrivalLine"];
type Artefact = Line["artefacts"][number];

interface Props {
  board: Board;
  rows: Row[];
  /** The chips say what of the students' work is shown; in order by student, or the newest first. */
  chosen: Chosen;
  /** Whether the filters of students rest. */
  rest: boolean;
  onOrder: (asBoard: boolean) => void;
  onClear: () => void;
}

export function Arrivals({ board, rows, chosen, rest, onOrder, onClear }: Props) {
  const group_id = useGroupId();
  const students = rows.map((row) => row.id);
  // The hand-in that is selected on the rail, or all that are shown.
  const handins = board.handins.map((one) => one.id).filter((id) => chosen.handin === null || id === chosen.handin);
  const asBoard = chosen.byStudent;
  const { statuses, late } = cameAs(chosen, rest);
  const order = asBoard ? ("board" as const) : ("newest" as const);
  const found = useInfiniteQuery({
    queryKey: ["group", group_id, "arrivals", order, statuses, late, students, handins],
    initialPageParam: 0,
    queryFn: ({ pageParam }) => data(client.POST("/api/groups/{group_id}/arrivals", { params: { path: { group_id } }, body: { students, handins, order, statuses, late, start: pageParam } })),
    getNextPageParam: (page) => page.next,
    placeholderData: (old) => old,
  });
  const [shown, setShown] = useState<Artefact | null>(null);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const lines = found.data.pages.flatMap((page) => page.lines);
  const total = found.data.pages[0]?.total ?? 0;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <PaperHead className="px-4 pt-2" board={board} rows={rows} chosen={chosen} rest={rest} />
      <Head total={total} asBoard={asBoard} onOrder={onOrder} />
      {lines.length === 0 ? (
        <Nothing onClear={onClear} />
      ) : (
        // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the arrow keys lead from one line's link to the next
        <ol aria-label={CAME.title} className="min-h-0 flex-1 divide-y divide-line overflow-y-auto" onKeyDown={step}>
          {lines.map((line) => (
            <ArrivalRow key={line.submission} line={line} groupId={group_id} onShow={setShown} />
          ))}
          {found.hasNextPage && <More busy={found.isFetchingNextPage} onMore={() => void found.fetchNextPage()} />}
        </ol>
      )}
      {shown && (
        <Suspense>
          <Viewer artefact={shown} onClose={() => setShown(null)} />
        </Suspense>
      )}
    </div>
  );
}

function Nothing({ onClear }: { onClear: () => void }) {
  return (
    <div className="flex flex-col items-center gap-2 p-10 text-center">
      <p className="text-base font-semibold">{CAME.none}</p>
      <p className="text-quiet">{CAME.noneHint}</p>
      <Button onClick={onClear}>{CAME.clear}</Button>
    </div>
  );
}

function Head({ total, asBoard, onOrder }: { total: number; asBoard: boolean; onOrder: (asBoard: boolean) => void }) {
  const order = asBoard ? CAME.asBoard : CAME.newest;
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-edge bg-ground px-4 py-2">
      <h2 className="font-bold">{CAME.title}</h2>
      <span aria-live="polite" className="text-quiet">
        {CAME.total({ count: total })}
      </span>
      <Button className="ml-auto print:hidden" aria-label={CAME.orderIs({ order })} onClick={() => onOrder(!asBoard)}>
        {order}
      </Button>
    </div>
  );
}

/** From one line to the next, to what the line had under the keyboard; a field keeps its keys but up and down. */
function step(event: KeyboardEvent<HTMLOListElement>): void {
  if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
  if (!(event.target instanceof HTMLElement)) return;
  const at = event.target.closest("ol > li");
  const next = event.key === "ArrowDown" ? at?.nextElementSibling : at?.previousElementSibling;
  const to = next && placeIn(next, event.target.dataset["of"] ?? "link");
  if (!to) return;
  event.preventDefault();
  to.focus();
}

/** The same thing in another line, or the line's link where it has none. */
function placeIn(line: Element, of: string): HTMLElement | null {
  return line.querySelector<HTMLElement>(`[data-of="${of}"]`) ?? line.querySelector<HTMLElement>('[data-of="link"]');
}

/** The next page, asked for as it comes into view; a button for who does not scroll. */
function More({ busy, onMore }: { busy: boolean; onMore: () => void }) {
  const place = useRef<HTMLLIElement>(null);
  useEffect(() => {
    const seen = new IntersectionObserver((entries) => {
      if (entries.some((one) => one.isIntersecting) && !busy) onMore();
    });
    if (place.current) seen.observe(place.current);
    return () => seen.disconnect();
  }, [busy, onMore]);
  return (
    <li ref={place} className="flex justify-center p-4 print:hidden">
      <Button disabled={busy} onClick={onMore}>
        {CAME.next}
      </Button>
    </li>
  );
}

function stateOf(line: Line): string {
  if (line.late) return lateness(line);
  return line.due_at ? CAME.onTime : CAME.noDue;
}

function ArrivalRow({ line, groupId, onShow }: { line: Line; groupId: number; onShow: (artefact: Artefact) => void }) {
  return (
    <li className="grid grid-cols-[minmax(190px,1.1fr)_minmax(0,2.4fr)_auto] gap-x-4 gap-y-2 px-4 py-3 break-inside-avoid max-md:grid-cols-1">
      <div className="flex min-w-0 gap-3">
        <PegPicture picture={line.student.picture} tint={line.student.tint} size={28} />
        <div className="min-w-0">
          <p className="break-words">
            <ListedName person={line.student} />
          </p>
          <p className="break-words">{CAME.of({ handin: line.handin.title, period: line.student.period || "none" })}</p>
          <p className={line.late ? "font-semibold" : "text-quiet"}>
            <span className="whitespace-nowrap">{moment(line.at)}</span> · <span className="whitespace-nowrap">{stateOf(line)}</span>
          </p>
          {line.number > 1 && <p className="text-quiet">{CAME.again({ number: line.number })}</p>}
        </div>
      </div>
      <Content line={line} name={listed(line.student)} onShow={onShow} />
      <ToDo line={line} groupId={groupId} />
    </li>
  );
}

/** How it stands, its score where one marks, and the way to all of it. */
function ToDo({ line, groupId }: { line: Line; groupId: number }) {
  const marks = may(useGroup(), "mark") && line.status === "handed_in";
  const of = { name: listed(line.student), handin: line.handin.title };
  return (
    <div className="flex flex-col items-end gap-2 max-md:flex-row max-md:items-center">
      <span className="flex items-center gap-2 text-sm text-ink-soft">
        <Coat state={line} />
        {STATUS_WITHIN[line.status]}
      </span>
      {marks && line.points !== null && <Score line={line} points={line.points} groupId={groupId} label={CAME.scoreOf({ ...of, points: line.points })} />}
      <Link
        data-of="link"
        to={marks ? `/g/${groupId}/pile/${line.submission}` : `/g/${groupId}/portfolio/${line.portfolio}/submission/${line.submission}`}
        aria-label={marks ? CAME.markOf(of) : CAME.readOf(of)}
        className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 font-semibold hover:border-control print:hidden"
      >
        {marks ? CAME.mark : CAME.read}
      </Link>
    </div>
  );
}

function Content({ line, name, onShow }: { line: Line; name: string; onShow: (artefact: Artefact) => void }) {
  const links = line.artefacts.filter((one) => one.kind === "link");
  const others = line.artefacts.filter((one) => one.kind !== "link");
  return (
    <div className="flex min-w-0 flex-wrap items-start gap-x-4 gap-y-2">
      {line.empty && <p className="text-quiet">{CAME.empty}</p>}
      {others.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {others.map((one) => (
            <li key={one.id}>
              <button type="button" aria-label={CAME.open({ title: one.title, name })} title={one.title} onClick={() => onShow(one)} className="block w-24 overflow-hidden rounded-md border border-edge hover:border-control">
                <Thumbnail artefact={one} small />
              </button>
            </li>
          ))}
          {line.more > 0 && <li className="self-center text-quiet">{CAME.more({ count: line.more })}</li>}
        </ul>
      )}
      <div className="flex min-w-0 flex-1 basis-64 flex-col gap-2">
        {links.map((one) => (
          <a key={one.id} href={one.link} target="_blank" rel="noopener noreferrer nofollow" className="inline-flex max-w-full items-center gap-2 self-start text-in underline">
            <ExternalLink aria-hidden size={15} className="shrink-0" />
            <span className="truncate">{one.link}</span>
          </a>
        ))}
        {line.words && <p className="max-w-prose border-l-3 border-brass pl-3 break-words">{line.words}</p>}
      </div>
    </div>
  );
}

/** One's own score so far: typed here, or as the levels of a rubric make it. */
function Score(props: { line: Line; points: number; groupId: number; label: string }) {
  const { line, points } = props;
  if (!line.draft) return null;
  if (!line.by_rubric) return <ScoreField {...props} />;
  if (line.draft.score === null) return null;
  return (
    <span className="figures text-sm">
      {line.draft.score} <span className="text-quiet">{CAME.outOf({ points })}</span>
    </span>
  );
}

/** A score typed in place: the draft that the marking pile shows too, seen by nobody else until it is released. */
function ScoreField({ line, points, groupId, label }: { line: Line; points: number; groupId: number; label: string }) {
  const mark = useMark({ id: line.submission, points, byRubric: false, draft: line.draft }, groupId);
  const problem = mark.state.at === "refused" ? mark.state.problem : null;
  const elsewhere = mark.state.at === "two" || mark.state.at === "left" || mark.state.at === "away";
  return (
    <label className="flex items-center gap-1.5" title={problem ? `${problem.title} ${problem.fix}` : label}>
      <input
        data-of="score"
        aria-label={label}
        aria-invalid={problem !== null}
        inputMode="decimal"
        autoComplete="off"
        value={mark.fields.score}
        onChange={(event) => mark.change({ score: event.target.value })}
        onBlur={() => void mark.keeper.push()}
        className={`figures min-h-8 w-14 rounded-md border bg-paper px-2 text-right ${problem ? "border-overdue" : "border-control"}`}
      />
      <span className="text-sm text-quiet">{CAME.outOf({ points })}</span>
      {elsewhere && <span className="text-sm text-ink-soft">{CAME.notSaved}</span>}
      {problem && (
        <span role="alert" className="max-w-40 text-sm text-overdue">
          {problem.title}
        </span>
      )}
    </label>
  );
}
