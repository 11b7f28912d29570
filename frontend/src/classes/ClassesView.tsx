/** All classes of a member of staff: what is due, who owes, what waits to be marked, who is quiet. */
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { classesQuery, joinRequestsQuery } from "../api/queries";
import { landing, useSession } from "../api/session";
import { day, shortDay } from "../ui/dates";
import { Coat } from "../ui/Coat";
import { ListedName } from "../ui/people/ListedName";
import { Failed, Waiting } from "../ui/Waiting";
import { TEXTS } from "./texts";

type Line = Schema["ClassLine"];
type Data = Schema["MyClassesShape"];

const EVERY = 30_000;
/** Milliseconds after which the figures are read anew while the page is looked at. */

export function ClassesView() {
  const found = useQuery({ ...classesQuery, refetchInterval: EVERY });
  const staff = useSession().person?.staff ?? false;
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { classes } = found.data;
  return (
    <div className="flex flex-1 gap-5 p-5 max-lg:flex-col">
      <section aria-labelledby="classes" className="flex min-w-0 flex-1 max-lg:flex-none flex-col gap-3">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 id="classes" className="text-xl">
            {TEXTS.title}
          </h1>
          <span className="text-quiet">{TEXTS.summary({ classes: classes.length, students: classes.reduce((all, one) => all + one.students, 0) })}</span>
          {staff && (
            <Link to="/start" className="ml-auto inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold hover:border-control hover:bg-ground">
              {TEXTS.start}
            </Link>
          )}
        </div>
        {classes.length === 0 ? <Nobody /> : <Table data={found.data} />}
        <PutAway />
      </section>
      <aside className="flex w-[330px] shrink-0 flex-col gap-4 max-lg:w-full">
        <Pile data={found.data} />
        <Today classes={classes} />
        <Requests />
      </aside>
    </div>
  );
}

/** Classes that were put away: read, and brought back from their set-up. */
function PutAway() {
  const away = useSession().groups.filter((one) => one.put_away);
  if (away.length === 0) return null;
  return (
    <details>
      <summary className="font-semibold">{TEXTS.putAway({ count: away.length })}</summary>
      <ul className="mt-2 flex flex-col gap-1">
        {away.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-4">
            <Link to={landing(one)} className="min-h-8 font-semibold underline decoration-line underline-offset-2 hover:decoration-ink">
              {one.name}
            </Link>
            <Link to={`/g/${one.id}/setup/class`} className="min-h-8 text-in underline">
              {TEXTS.bringBack({ name: one.name })}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Nobody() {
  return (
    <div className="rounded-lg border border-edge bg-paper p-10 text-center">
      <p className="text-base font-semibold">{TEXTS.empty}</p>
      <p className="mt-1 text-quiet">{TEXTS.emptyHint}</p>
    </div>
  );
}

function Table({ data }: { data: Data }) {
  return (
    <>
      <div className="overflow-x-auto rounded-lg border border-edge bg-paper">
        <table className="w-full min-w-[600px] border-collapse">
          <thead className="border-b border-edge bg-ground">
            <tr className="text-left text-ink-soft">
              <th className="px-4 py-2.5">{TEXTS.class}</th>
              <th className="px-3">{TEXTS.handin}</th>
              <th className="w-20 px-3 text-right">{TEXTS.owing}</th>
              <th className="w-20 px-3 text-right">{TEXTS.toMark}</th>
              <th className="w-20 px-4 text-right">{TEXTS.quiet}</th>
            </tr>
          </thead>
          <tbody>
            {data.classes.map((one) => (
              <ClassRow key={one.id} one={one} today={data.today} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="text-quiet">{TEXTS.numbers}</p>
    </>
  );
}

function ClassRow({ one, today }: { one: Line; today: string }) {
  const pegs = `/g/${one.id}/pegs`;
  const students = TEXTS.students({ count: one.students });
  return (
    <tr className="border-b border-line align-top last:border-b-0">
      <th className="max-w-72 px-4 py-3 text-left font-normal">
        <Link to={pegs} className="font-semibold break-words text-ink underline decoration-line underline-offset-2 hover:decoration-ink">
          {one.name}
        </Link>
        <span className="mt-0.5 block text-quiet">{one.periods.length > 0 ? TEXTS.inPeriods({ periods: one.periods.join(" "), students }) : students}</span>
      </th>
      <td className="px-3 py-3">{one.handin ? <Next handin={one.handin} today={today} pegs={pegs} /> : <span className="text-quiet">{TEXTS.nothingSet}</span>}</td>
      <Figure count={one.owing} to={`${pegs}?show=overdue`} label={TEXTS.owingOf({ count: one.owing, name: one.name })} className="text-overdue" />
      <Figure count={one.to_mark} to={`${pegs}?show=to_mark`} label={TEXTS.toMarkOf({ count: one.to_mark, name: one.name })} className="text-ink" />
      <Figure count={one.quiet} to={`${pegs}?show=quiet`} label={TEXTS.quietOf({ count: one.quiet, name: one.name })} className="text-ink" last />
    </tr>
  );
}

function Next({ handin, today, pegs }: { handin: NonNullable<Line["handin"]>; today: string; pegs: string }) {
  const when = !handin.open ? TEXTS.opens({ day: shortDay(handin.opens) }) : handin.due === today ? TEXTS.dueToday : handin.due ? TEXTS.due({ day: day(handin.due) }) : "";
  const share = handin.asked > 0 ? (100 * handin.in) / handin.asked : 0;
  return (
    <span className="flex gap-3">
      <Coat state={{ status: !handin.open ? "not_open" : handin.in > 0 ? "handed_in" : "empty" }} />
      <span className="min-w-0 flex-1">
        <Link to={`${pegs}?handin=${handin.id}`} className="font-semibold break-words text-ink hover:underline">
          {handin.title}
        </Link>{" "}
        <span className="text-quiet">{when}</span>
        <span className="mt-1 flex items-center gap-3">
          <span aria-hidden className="meter h-1.5 w-36 overflow-hidden rounded-full bg-line">
            <span className="block h-full bg-in" style={{ width: `${share}%` }} />
          </span>
          <span className="figures text-ink-soft">{TEXTS.inOf({ count: handin.in, of: handin.asked })}</span>
        </span>
      </span>
    </span>
  );
}

function Figure({ count, to, label, className, last = false }: { count: number; to: string; label: string; className: string; last?: boolean }) {
  return (
    <td className={`figures py-2 text-right ${last ? "pr-4" : "pr-3"}`}>
      {count > 0 ? (
        <Link to={to} aria-label={label} title={label} className={`inline-flex min-h-8 min-w-8 items-center justify-end font-bold hover:underline ${className}`}>
          {TEXTS.figure({ count })}
        </Link>
      ) : (
        <span className="inline-flex min-h-8 items-center text-quiet">{TEXTS.none}</span>
      )}
    </td>
  );
}

function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="rounded-lg border border-edge bg-paper p-4">
      <h2 className="mb-2 text-base">{title}</h2>
      {children}
    </section>
  );
}

function Pile({ data: { oldest, to_mark } }: { data: Data }) {
  if (!oldest) {
    return (
      <Card title={TEXTS.next}>
        <p className="text-quiet">{TEXTS.allMarked}</p>
      </Card>
    );
  }
  return (
    <Card title={TEXTS.next}>
      <div className="flex gap-3">
        <Coat state={{ status: "handed_in" }} />
        <p className="min-w-0">
          <span className="block break-words">
            <ListedName person={oldest.student} /> · {oldest.handin}
          </span>
          <span className="block text-quiet">{TEXTS.waits({ name: oldest.class_name, days: oldest.school_days })}</span>
        </p>
      </div>
      <Link to={`/g/${oldest.group}/pile/${oldest.submission}`} className="mt-3 flex min-h-9 items-center justify-center rounded-md bg-copper px-4 font-semibold text-paper hover:bg-copper-deep">
        {TEXTS.mark({ count: to_mark })}
      </Link>
    </Card>
  );
}

function Today({ classes }: { classes: Line[] }) {
  const due = classes.filter((one) => one.due_today > 0);
  return (
    <Card title={TEXTS.today}>
      {due.length === 0 ? (
        <p className="text-quiet">{TEXTS.nothingToday}</p>
      ) : (
        <ul className="flex flex-col gap-1">
          {due.map((one) => (
            <li key={one.id}>
              <Link to={`/g/${one.id}/pegs`} className="break-words underline decoration-line underline-offset-2 hover:decoration-ink">
                {TEXTS.dueHere({ name: one.name, count: one.due_today })}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </Card>
  );
}

/** Requests for students whom this person has; nothing stands here where there are none. */
function Requests() {
  const found = useQuery(joinRequestsQuery);
  const count = found.data?.length ?? 0;
  if (count === 0) return null;
  return (
    <Card title={TEXTS.requests}>
      <Link to="/requests" className="underline decoration-line underline-offset-2 hover:decoration-ink">
        {TEXTS.requestsWait({ count })}
      </Link>
    </Card>
  );
}
