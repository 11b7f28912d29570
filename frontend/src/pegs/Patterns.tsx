/** Patterns over those shown: when work comes against its due moment, who is usually late, who is behind the class. */
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { loadQuery, patternsQuery } from "../api/queries";
import { may, useGroup, useGroupId } from "../api/session";
import { day, mondayOf } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import type { Board, Chosen, Row } from "../filtering/filters";
import { PaperHead } from "./PaperHead";
import { PATTERN } from "./patternTexts";

type HandIn = Schema["HandInPattern"];
type Student = Schema["StudentPattern"];

const FROM = -14;
const TO = 7;
const WIDE = 252;
const HIGH = 56;
/** A curve's days and its size in units of its picture: twelve a day. */

export function Patterns(props: { board: Board; rows: Row[]; chosen: Chosen; rest: boolean }) {
  const { board, rows } = props;
  const groupId = useGroupId();
  const group = useGroup();
  const found = useQuery(patternsQuery(groupId, rows.length < board.students.length ? rows.map((row) => row.id) : null));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  // What the filters hide stays hidden here too.
  const shown = new Set(rows.map((row) => row.id));
  const columns = new Set(board.handins.map((one) => one.id));
  const students = found.data.students.filter((one) => shown.has(one.id));
  const handins = found.data.handins.filter((one) => columns.has(one.id));
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-x-6 overflow-y-auto p-4 max-lg:grid-cols-1">
      <PaperHead {...props} />
      <Part title={PATTERN.title}>
        {handins.length === 0 && <p className="text-quiet">{PATTERN.none}</p>}
        <ul className="divide-y divide-line">
          {handins.map((one) => (
            <Came key={one.id} one={one} groupId={groupId} />
          ))}
        </ul>
      </Part>
      <div className="flex min-w-0 flex-col gap-6">
        <UsuallyLate students={students} />
        {may(group, "see_full_weeks") && <FullWeeks students={students} today={board.today} />}
        <Expected students={students} median={found.data.median} />
      </div>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="min-w-0">
      <h2 className="mb-2 text-base">{title}</h2>
      {children}
    </section>
  );
}

/** Days to one place: more says nothing about a class. */
function rounded(days: number): number {
  return Math.round(Math.abs(days) * 10) / 10;
}

function side(days: number): string {
  return days < 0 ? PATTERN.daysAfter({ days: rounded(days) }) : PATTERN.daysBefore({ days: rounded(days) });
}

function middleWords(middle: number): string {
  const days = rounded(middle);
  if (days === 0) return PATTERN.onTheDay;
  return middle < 0 ? PATTERN.after({ days: PATTERN.days({ days }) }) : PATTERN.before({ days: PATTERN.days({ days }) });
}

function words({ low, middle, high }: HandIn): string[] {
  if (middle === null || low === null || high === null) return [PATTERN.nothingIn];
  return [middleWords(middle), PATTERN.middleHalf({ from: side(high), to: side(low) })];
}

function Came({ one, groupId }: { one: HandIn; groupId: number }) {
  const said = words(one);
  return (
    <li className="flex flex-wrap items-center gap-x-5 gap-y-2 py-3 break-inside-avoid">
      <div className="min-w-52 flex-1">
        <p>
          <Link to={`/g/${groupId}/pegs?handin=${one.id}`} className="font-semibold break-words text-ink hover:underline">
            {one.title}
          </Link>{" "}
          <span className="text-quiet">{one.due && PATTERN.due({ day: day(one.due) })}</span>
        </p>
        <p className="figures">
          {PATTERN.inOf({ count: one.in, of: one.asked })}
          {one.late > 0 && <span className="ml-3 font-semibold">{PATTERN.late({ count: one.late })}</span>}
        </p>
        {said.map((line) => (
          <p key={line} className="text-ink-soft">
            {line}
          </p>
        ))}
      </div>
      <Curve one={one} label={PATTERN.curve({ title: one.title, words: said.join(", ") })} />
    </li>
  );
}

/** How many were in by each day, as steps; the line is the due moment. */
function Curve({ one, label }: { one: HandIn; label: string }) {
  const most = Math.max(one.asked, one.in, 1);
  const x = (of: number) => ((of - FROM) * WIDE) / (TO - FROM);
  const y = (count: number) => HIGH - (count * (HIGH - 4)) / most;
  const steps = one.curve.map((point, at) => `${at === 0 ? "M" : "H"}${x(point.day)}${at === 0 ? "," : "V"}${y(point.count)}`).join("");
  return (
    <svg role="img" aria-label={label} viewBox={`0 0 ${WIDE} ${HIGH + 14}`} className="h-[70px] w-[252px] max-w-full shrink-0">
      <path d={`M0,${HIGH}H${WIDE}`} className="fill-none stroke-line" />
      <path d={`M${x(0)},0V${HIGH}`} className="fill-none stroke-copper" strokeDasharray="3 3" />
      <text x={x(0)} y={HIGH + 12} textAnchor="middle" className="fill-quiet text-[11px]">
        {PATTERN.dueMark}
      </text>
      <path d={steps} className="fill-none stroke-in" strokeWidth="2" />
    </svg>
  );
}

function UsuallyLate({ students }: { students: Student[] }) {
  const late = students.filter((one) => one.usually_late).sort((one, other) => other.late - one.late || other.late_days - one.late_days);
  return (
    <Part title={PATTERN.usually}>
      {late.length === 0 && <p className="text-quiet">{PATTERN.usuallyNone}</p>}
      <ul className="flex flex-col gap-2">
        {late.map((one) => (
          <li key={one.id} className="flex gap-3">
            <PegPicture picture={one.picture} tint={one.tint} size={24} />
            <span className="min-w-0">
              <span className="block break-words">
                <ListedName person={one} />
              </span>
              <span className="block text-ink-soft">{PATTERN.lateOf({ late: one.late, of: one.came, days: one.late_days })}</span>
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** The weeks from this one on in which too much falls together for some of those shown, over all their classes. */
function FullWeeks({ students, today }: { students: Student[]; today: string }) {
  const load = useQuery(loadQuery(useGroupId()));
  if (load.isPending) return <Waiting />;
  if (load.isError) return <Failed error={load.error} again={() => void load.refetch()} />;
  const shown = new Map(students.map((one) => [one.id, one]));
  const weeks = load.data.weeks
    .filter((week) => week.monday >= mondayOf(today))
    .map(({ monday, full }) => ({ monday, full: full.flatMap((one) => (shown.has(one.enrolment) ? [{ ...one, student: shown.get(one.enrolment) }] : [])) }))
    .filter((week) => week.full.length > 0);
  return (
    <Part title={PATTERN.full}>
      <p className="text-ink-soft">{weeks.length > 0 ? PATTERN.fullHint({ limit: load.data.limit }) : PATTERN.fullNone}</p>
      <ul className="mt-2 flex flex-col gap-3 empty:hidden">
        {weeks.map((week) => (
          <li key={week.monday}>
            <h3 className="figures text-sm font-bold text-copper">{PATTERN.fullWeek({ day: day(week.monday) })}</h3>
            <ul>
              {week.full.map(({ enrolment, number, student }) => (
                <li key={enrolment} className="flex justify-between gap-3 py-0.5">
                  <span className="min-w-0 truncate">{student && <ListedName person={student} />}</span>
                  <span className="figures shrink-0 text-ink-soft">{PATTERN.fullFor({ count: number })}</span>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </Part>
  );
}

function percent(share: number): number {
  return Math.round(100 * share);
}

/** How far each is of what is wanted by today, the least first, against the middle of the class. */
function Expected({ students, median }: { students: Student[]; median: number | null }) {
  const wanted = students.filter((one) => one.share !== null).sort((one, other) => (one.share ?? 0) - (other.share ?? 0));
  if (median === null) {
    return (
      <Part title={PATTERN.expected}>
        <p className="text-quiet">{PATTERN.nothingWanted}</p>
      </Part>
    );
  }
  return (
    <Part title={PATTERN.expected}>
      <p className="mb-2 text-ink-soft">{PATTERN.median({ share: percent(median) })}</p>
      <ul className="flex flex-col">
        {wanted.map((one) => (
          <li key={one.id} className="grid grid-cols-[minmax(0,1fr)_9rem_3rem] items-center gap-2 py-0.5">
            <span className="min-w-0 truncate" title={one.behind ? PATTERN.behind : undefined}>
              <ListedName person={one} />
              {one.behind && <span className="sr-only"> {PATTERN.behind}</span>}
            </span>
            <span aria-hidden className="meter relative h-2 rounded-full bg-line">
              <span className={`block h-full rounded-full ${one.behind ? "bg-copper" : "bg-ink-soft"}`} style={{ width: `${percent(one.share ?? 0)}%` }} />
              <span className="absolute -inset-y-1 w-0.5 bg-ink" style={{ left: `${percent(median)}%` }} />
            </span>
            <span className={`figures text-right ${one.behind ? "font-bold text-copper" : "text-ink-soft"}`}>{PATTERN.share({ share: percent(one.share ?? 0) })}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
