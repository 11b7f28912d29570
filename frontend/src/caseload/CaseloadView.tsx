/** A caseload: its students, how they stand in all their classes, what is agreed for them. */
import { useQuery } from "@tanstack/react-query";
import { Search } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { caseloadQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { useAddress } from "../ui/address";
import { day, shortDay } from "../ui/dates";
import { found } from "../ui/people/find";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import { StudentPanel } from "./StudentPanel";
import { adjustmentWords, holds, TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

type Student = Schema["CaseloadStudent"];

export function CaseloadView() {
  const groupId = useGroupId();
  const caseload = useQuery(caseloadQuery(groupId));
  const [address, setAddress] = useAddress();
  const [text, setText] = useState("");
  if (caseload.isPending) return <Waiting />;
  if (caseload.isError) return <Failed error={caseload.error} again={() => void caseload.refetch()} />;
  const { students, today } = caseload.data;
  if (students.length === 0) return <Nobody groupId={groupId} />;
  const rows = found(students, text);
  const chosen = students.find((one) => one.id === Number(address.get("student"))) ?? null;
  return (
    <div className="flex min-h-0 flex-1 gap-4 p-5 max-lg:flex-col max-lg:overflow-y-auto">
      <section aria-labelledby="caseload" className="flex min-w-0 flex-1 flex-col gap-3 lg:overflow-y-auto">
        <div className="flex flex-wrap items-center gap-3">
          <h1 id="caseload" className="text-xl">
            {TEXTS.caseload}
          </h1>
          <span className="text-quiet">{COUNTED.students({ count: students.length })}</span>
          <label className="ml-auto flex min-h-9 items-center gap-2 rounded-md border border-control bg-paper px-3">
            <Search aria-hidden size={16} className="text-quiet" />
            <span className="sr-only">{TEXTS.find}</span>
            <input value={text} onChange={(event) => setText(event.target.value)} placeholder={TEXTS.find} className="w-44 outline-none" />
          </label>
        </div>
        <ul className="divide-y divide-line rounded-lg border border-edge bg-paper">
          {rows.map((one) => (
            <Row key={one.id} one={one} today={today} groupId={groupId} chosen={one.id === chosen?.id} onChoose={() => setAddress({ student: String(one.id) })} />
          ))}
          {rows.length === 0 && <li className="p-6 text-center">{TEXTS.nobodyOfThatNameIs}</li>}
        </ul>
      </section>
      <StudentPanel key={chosen?.id ?? 0} student={chosen} today={today} groupId={groupId} onClose={() => setAddress({})} />
    </div>
  );
}

function Nobody({ groupId }: { groupId: number }) {
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-5 text-center">
      <h1 className="text-xl">{TEXTS.nobody}</h1>
      <p className="text-base text-ink-soft">{TEXTS.nobodyHint}</p>
      <Link to={`/g/${groupId}/setup/list?bring=1`} className="inline-flex min-h-9 items-center rounded-md bg-copper px-4 font-semibold text-paper hover:bg-copper-deep">
        {TEXTS.bringInAList}
      </Link>
    </div>
  );
}

interface RowProps {
  one: Student;
  today: string;
  groupId: number;
  chosen: boolean;
  onChoose: () => void;
}

function Row({ one, today, groupId, chosen, onChoose }: RowProps) {
  const now = one.adjustments.filter((adjustment) => holds(adjustment, today));
  return (
    <li className={`grid grid-cols-[minmax(170px,1fr)_minmax(0,2.2fr)] gap-x-4 px-3 py-2 max-sm:grid-cols-1 ${chosen ? "bg-today" : ""}`}>
      <button type="button" aria-pressed={chosen} onClick={onChoose} className="flex min-w-0 items-start gap-3 text-left">
        <PegPicture picture={one.picture} tint={one.tint} />
        <span className="min-w-0">
          <span className="block truncate text-base">
            <ListedName person={one} />
          </span>
          <span className="block text-ink-soft">{now.length > 0 ? now.map(adjustmentWords).join("; ") : TEXTS.none}</span>
        </span>
      </button>
      <ul className="flex flex-col gap-1">
        {one.classes.map((of) => (
          <li key={of.enrolment} className="grid grid-cols-[minmax(0,1fr)_88px_minmax(0,1.1fr)] items-baseline gap-x-3">
            <Link to={`/g/${groupId}/portfolio/${of.portfolio}`} className="inline-block min-h-6 min-w-0 break-words text-in underline">
              {of.name}
            </Link>
            <span className="figures text-quiet">{of.wanted > 0 ? TEXTS.whatFilled({ what: Math.round((100 * of.met) / of.wanted) }) : TEXTS.nothingWanted}</span>
            <span className="min-w-0 break-words">
              {of.overdue.length > 0 && (
                <span className="font-semibold text-overdue" title={of.overdue.join(", ")}>
                  {TEXTS.countOverdueOverdue({ count: of.overdue.length, overdue: of.overdue.join(", ") })}
                </span>
              )}
              {of.overdue.length === 0 && (of.waiting > 0 ? TEXTS.waitingToHandIn({ waiting: of.waiting }) : TEXTS.allHandedIn)}
              {of.quiet && of.overdue.length === 0 && <span className="text-quiet">{" "}{TEXTS.quietForAWeek}</span>}
            </span>
          </li>
        ))}
        {one.classes.length === 0 && <li className="text-quiet">{TEXTS.inNoClass}</li>}
        {one.full_weeks.map((week) => (
          <li key={week.monday}>
            <details>
              <summary className="min-h-6 cursor-pointer font-semibold text-copper">{TEXTS.fullWeek({ count: week.due.length, day: shortDay(week.monday) })}</summary>
              <ul className="list-disc pl-5">
                {week.due.map((of) => (
                  <li key={`${of.day} ${of.title} ${of.class_name}`}>{TEXTS.fullWeekDue({ ...of, day: day(of.day) })}</li>
                ))}
              </ul>
            </details>
          </li>
        ))}
      </ul>
    </li>
  );
}
