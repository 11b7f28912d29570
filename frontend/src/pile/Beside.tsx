/** What lies beside the work that is marked: an earlier submission, what the student began with, or another student's. */
import { useQuery } from "@tanstack/react-query";
import { Columns2 } from "lucide-react";
import { useLayoutEffect, useRef, useState } from "react";
import type { Row } from "../api/board";
import type { Schema } from "../api/client";
import { boardQuery, cellQuery, givenQuery, submissionQuery } from "../api/queries";
import { FeedbackCard } from "../submission/FeedbackCard";
import { FrozenPockets } from "../submission/FrozenPockets";
import { GivenFiles } from "../submission/GivenFiles";
import { GIVEN } from "../submission/givenTexts";
import { SaidProvider } from "../submission/said/SaidProvider";
import { isTyped, useLetterKeys } from "../ui/keys";
import { OnFirstUse } from "../ui/OnFirstUse";
import { RichText } from "../ui/reading/RichText";
import { listed } from "../ui/words";
import { BESIDE } from "./besideTexts";

type Desk = Schema["Desk"];

/** ``given``, ``n`` with a submission's id, or ``s`` with a student's; empty: nothing lies beside. */
const GIVEN_FIRST = "given";
const IN = ["handed_in", "accepted", "sent_back"];

interface ChoiceProps {
  desk: Desk;
  groupId: number;
  value: string;
  onChange: (value: string) => void;
}

export function BesideChoice({ desk, groupId, value, onChange }: ChoiceProps) {
  // Whose the others are is read once somebody comes near; of work that is marked without a name nobody lies beside it.
  const [near, setNear] = useState(false);
  const others = useOthers(desk, groupId, near && !desk.hidden);
  const earlier = desk.submissions.filter((one) => one.number < desk.number).toReversed();
  const options = [
    { value: "", shown: BESIDE.nothing },
    ...earlier.map((one) => ({ value: `n${one.id}`, shown: BESIDE.submission(one) })),
    { value: GIVEN_FIRST, shown: BESIDE.given },
    ...others.map((one) => ({ value: `s${one.id}`, shown: listed(one) })),
  ];
  const content = (
    <>
      <Columns2 aria-hidden size={16} />
      {BESIDE.open}
    </>
  );
  const className = `inline-flex min-h-8 items-center gap-2 rounded-md border px-3 font-semibold ${value ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`;
  const place = useRef<HTMLSpanElement>(null);
  const letters = useLetterKeys();
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== "w" || !letters || isTyped(event)) return;
      event.preventDefault();
      setNear(true);
      const button = place.current?.querySelector("button");
      button?.focus();
      // As a hand does it: by a click while the list is not loaded yet, by the arrow that leads into it from then on.
      button?.click();
      button?.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", bubbles: true }));
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters]);
  const choice = <OnFirstUse kind="Choices" face={{ className, content, onNear: () => setNear(true) }} value={value} options={options} onChange={onChange} />;
  return (
    <span ref={place} className="contents">
      {choice}
    </span>
  );
}

/** The others who have handed this in, by name. */
function useOthers(desk: Desk, groupId: number, enabled: boolean): Row[] {
  const { data: board } = useQuery({ ...boardQuery(groupId), enabled });
  const column = board?.handins.findIndex((one) => one.id === desk.handin.id) ?? -1;
  if (!board || column < 0) return [];
  return board.students.filter((row) => row.id !== desk.student.id && IN.includes(row.cells[column]?.status ?? ""));
}

export function Beside({ desk, groupId, what }: { desk: Desk; groupId: number; what: string }) {
  if (what === GIVEN_FIRST) return <Given desk={desk} groupId={groupId} />;
  const id = Number(what.slice(1));
  return what.startsWith("s") ? <Other desk={desk} groupId={groupId} student={id} /> : <Submission groupId={groupId} id={id} />;
}

/** The newest of another student's submissions that stand. */
function Other({ desk, groupId, student }: { desk: Desk; groupId: number; student: number }) {
  const cell = useQuery(cellQuery(groupId, desk.handin.id, student));
  const newest = cell.data?.submissions.findLast((one) => !one.voided_at);
  return newest ? <Submission groupId={groupId} id={newest.id} named /> : <div />;
}

function Submission({ groupId, id, named = false }: { groupId: number; id: number; named?: boolean }) {
  const found = useQuery(submissionQuery(groupId, id));
  if (!found.data) return <div />;
  const { student, number, outcomes, handin, pockets, judged } = found.data;
  const outcome = outcomes.find((one) => !one.voided_at);
  return (
    <div className="flex min-w-0 flex-col gap-4">
      <div>
        <h3 className="mb-2 text-base">{named ? BESIDE.ofStudent({ name: listed(student), number }) : BESIDE.submission({ number })}</h3>
        <SaidProvider groupId={groupId} submission={id}>
          <FrozenPockets pockets={pockets} />
        </SaidProvider>
      </div>
      {outcome && <FeedbackCard line={{ ...outcome, points: handin.points, judged }} />}
    </div>
  );
}

function Given({ desk, groupId }: { desk: Desk; groupId: number }) {
  const found = useQuery(givenQuery(groupId, desk.id));
  if (!found.data) return <div />;
  const something = found.data.filter((one) => one.starter || one.files.length > 0);
  return (
    <div className="flex min-w-0 flex-col gap-4">
      <h3 className="text-base">{BESIDE.given}</h3>
      {something.length === 0 && <p className="rounded-md border border-edge bg-paper p-4">{GIVEN.nothing}</p>}
      {something.map((one) => (
        <section key={one.id} aria-label={one.title} className="flex flex-col gap-3 rounded-md border border-edge bg-paper p-4">
          {found.data.length > 1 && <h4 className="font-bold">{one.title}</h4>}
          {one.starter && <RichText html={one.starter} className="text-base" />}
          <GivenFiles files={one.files} />
        </section>
      ))}
    </div>
  );
}
