/** What there is to hand in: sent back first, then overdue, then by due date. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { worklistQuery } from "../api/queries";
import { useGroup, useGroupId, useSession } from "../api/session";
import { dueWords } from "../submission/HandInBar";
import { plainWords } from "../ui/Chips";
import { Coat } from "../ui/Coat";
import { day, due, moment } from "../ui/dates";
import { Failed, Waiting } from "../ui/Waiting";
import { inWords, STATUS } from "../ui/words";
import { TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

type Line = Schema["StudentHandIn"];

const EVERY = 60_000;
/** Milliseconds after which other classes are asked again; the open one is followed. */

export function ToHandInView() {
  const groupId = useGroupId();
  const portfolio = useGroup()?.portfolio ?? 0;
  const several = useSession().groups.filter((one) => one.portfolio !== null).length > 1;
  const list = useQuery({ ...worklistQuery(groupId, portfolio), refetchInterval: several ? EVERY : false });
  if (list.isPending) return <Waiting />;
  if (list.isError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const base = `/g/${groupId}/portfolio/${portfolio}`;
  return (
    <div className="mx-auto flex w-full max-w-3xl flex-col gap-4 p-6 max-sm:p-4">
      <h1 className="text-2xl">{TEXTS.toHandIn}</h1>
      {list.data.reminders.map((one) => (
        <section key={one.id} aria-label={TEXTS.reminder} className="rounded-lg border border-edge bg-today p-4 text-base">
          <p className="text-sm text-ink-soft">{TEXTS.reminderFrom({ by: one.by, at: moment(one.at) })}</p>
          <p className="mt-1 break-words whitespace-pre-line">{one.text}</p>
        </section>
      ))}
      {list.data.to_do.length === 0 ? (
        <div className="flex items-center gap-3 text-base text-ink-soft">
          <Coat state={{ status: "accepted" }} size={40} />
          {list.data.elsewhere.length > 0 ? TEXTS.nothingIsWaitingHere : TEXTS.nothingIsWaitingForYou}
        </div>
      ) : (
        <ul className="flex flex-col gap-3">
          {list.data.to_do.map((line) => (
            <ToDo key={line.id} line={line} base={base} />
          ))}
        </ul>
      )}
      {list.data.elsewhere.length > 0 && (
        <section aria-labelledby="elsewhere" className="mt-4 flex flex-col gap-3">
          <h2 id="elsewhere" className="text-lg">
            {TEXTS.inYourOtherClasses}
          </h2>
          <ul className="flex flex-col gap-3">
            {list.data.elsewhere.map((line) => (
              <ToDo key={line.id} line={line} base={`/g/${line.group.id}/portfolio/${line.portfolio}`} group={line.group.title} />
            ))}
          </ul>
        </section>
      )}
      {list.data.others.length > 0 && (
        <section aria-labelledby="others" className="mt-4">
          <h2 id="others" className="text-lg">
            {TEXTS.inAlreadyOrOpensLater}
          </h2>
          <ul className="mt-2 divide-y divide-line rounded-lg border border-edge bg-paper">
            {list.data.others.map((line) => (
              <Other key={line.id} line={line} base={base} />
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function ToDo({ line, base, group }: { line: Line; base: string; group?: string }) {
  const first = line.pockets[0];
  return (
    <li>
      <Link
        to={first ? `${base}/${first.id}` : base}
        className="flex items-center gap-4 rounded-lg border border-edge bg-paper p-4 hover:border-control"
      >
        <Coat state={line} size={40} />
        <span className="min-w-0 flex-1 text-base">
          <span className="block text-lg font-bold break-words">{line.title}</span>
          {group && <span className="block font-semibold break-words">{group}</span>}
          <span className={`block ${line.overdue ? "text-overdue" : "text-ink-soft"}`}>
            {TEXTS.dueWithExtra({ sentBack: line.status === "sent_back", due: dueWords(line), extra: line.extra_days })}
          </span>
          <span className="block text-ink-soft">
            {line.wanting.length === 0 && TEXTS.everythingWantedIsThere}
            {line.points !== null && `${line.wanting.length === 0 ? " · " : ""}${COUNTED.points({ count: line.points })}`}
          </span>
          {line.wanting.length > 0 && (
            <ul aria-label={TEXTS.stillWanted} className="mt-1 flex flex-col gap-0.5">
              {line.wanting.map((pocket) => (
                <li key={pocket.id} className="flex flex-wrap gap-x-2 text-copper">
                  {line.pockets.length > 1 && <span className="font-semibold">{pocket.title}:</span>}
                  {[...pocket.chips.map((chip) => plainWords(chip)), ...(pocket.rows > 0 ? [TEXTS.rowsNotFinishedColumns({ rows: pocket.rows, columns: pocket.columns.join(", ") })] : [])].join(" · ")}
                </li>
              ))}
            </ul>
          )}
        </span>
      </Link>
    </li>
  );
}

/** Until when what is in may be handed in again. */
function Again({ line }: { line: Line }) {
  return line.again && <span className="block text-quiet">{TEXTS.againUntil({ until: line.due ? due(line.due, line.due_time) : "none" })}</span>;
}

function Other({ line, base }: { line: Line; base: string }) {
  const first = line.pockets[0];
  const newest = line.submissions.findLast((one) => !one.voided_at);
  const words = line.closed && !newest ? TEXTS.closedTakesNothing : line.status === "not_open" ? TEXTS.opensOpens({ opens: day(line.opens) }) : inWords({ ...line, at: newest?.at ?? null });
  return (
    <li>
      <Link to={first ? `${base}/${first.id}` : base} className="flex min-h-14 items-center gap-4 px-4 py-2 hover:bg-ground">
        <Coat state={line} size={30} />
        <span className="min-w-0">
          <span className="block font-semibold break-words">{line.title}</span>
          <span className="text-quiet">{line.status === "excused" ? STATUS.excused : words}</span>
          <Again line={line} />
        </span>
        {newest && <span className="figures ml-auto text-quiet max-sm:hidden">{newest.receipt}</span>}
      </Link>
    </li>
  );
}
