/** The desk: what was handed in, frozen, with its history; an earlier submission can be laid beside it. */
import { useQuery } from "@tanstack/react-query";
import { FolderOpen } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { cellQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { due, moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { lateness, listed } from "../ui/words";
import { FeedbackCard } from "../submission/FeedbackCard";
import { IsRead } from "../submission/HaveRead";
import { ForThem } from "../submission/ForThem";
import { RichText } from "../ui/reading/RichText";
import { StaffNotes } from "../submission/StaffNotes";
import { TEXTS as SUBMISSION } from "../submission/texts";
import { HandInHistory } from "../submission/HandInHistory";
import { FrozenPockets } from "../submission/FrozenPockets";
import { useSaid } from "../submission/said/said";
import { NotShown, SaidFiles } from "../submission/said/SaidFoot";
import { SaidList } from "../submission/said/SaidList";
import { RUBRIC } from "../submission/rubricTexts";
import { SaidProvider } from "../submission/said/SaidProvider";
import { Beside, BesideChoice } from "./Beside";
import { Changes } from "./Changes";
import { TEXTS } from "./texts";
import { FOR_ALL } from "./forAllTexts";
import { TWO } from "./twoTexts";

type Shape = Schema["Desk"];

function facts(desk: Shape): string {
  const when = desk.due ? TEXTS.dueHow({ due: due(desk.due, desk.due_time), days: desk.extra_days }) : TEXTS.noDueDate;
  const count = desk.submissions.length > 1 ? TEXTS.submissionOf({ number: desk.number, count: desk.submissions.length }) : "";
  return [count, when].filter(Boolean).join(" · ");
}

const WHOLE = {};
const NO_CRITERIA: Schema["RubricShape"]["criteria"] = [];

export function Desk({ desk, groupId }: { desk: Shape; groupId: number }) {
  const marks = may(useGroup(), "mark") && !desk.handin.taken_away && !desk.voided_at;
  return (
    <SaidProvider groupId={groupId} submission={desk.id} writes={marks} criteria={desk.handin.rubric?.criteria ?? NO_CRITERIA}>
      <Laid desk={desk} groupId={groupId} />
    </SaidProvider>
  );
}

/** What was said after the outcome, and is not shown yet. */
function Unseen({ desk }: { desk: Shape }) {
  const said = useSaid();
  return said && <NotShown said={said} decided={desk.outcomes.some((one) => !one.voided_at)} name={desk.student.given_name} />;
}

/** What is said on the whole, and what can be done with all of it. */
function OnTheWhole() {
  const said = useSaid();
  if (!said) return null;
  return (
    <>
      <SaidList said={said} pocket={null} target={WHOLE} />
      <SaidFiles said={said} />
    </>
  );
}

function Laid({ desk, groupId }: { desk: Shape; groupId: number }) {
  const earlier = desk.submissions.some((one) => one.number < desk.number);
  const [beside, setBeside] = useState("");
  return (
    <section aria-labelledby="desk" className="flex min-w-0 flex-1 flex-col lg:overflow-y-auto">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-paper px-5 py-3">
        <PegPicture picture={desk.student.picture} tint={desk.student.tint} size={34} />
        <div className="min-w-48 flex-1">
          <h2 id="desk" className="text-base">
            {listed(desk.student)} <span className="font-normal">· {desk.handin.title}</span>
          </h2>
          <p className="figures text-ink-soft">
            {TEXTS.handedInFacts({ at: moment(desk.at), late: desk.late, lateness: lateness(desk), facts: facts(desk) })}
          </p>
        </div>
        <BesideChoice desk={desk} groupId={groupId} value={beside} onChange={setBeside} />
        {!desk.hidden && <HandInHistory groupId={groupId} handin={desk.handin} student={desk.student.id} />}
        {!desk.hidden && <PortfolioLink desk={desk} groupId={groupId} />}
      </header>
      <div className="flex flex-col gap-4 p-5">
        <Notices desk={desk} />
        <Unseen desk={desk} />
        {earlier && <Changes groupId={groupId} submission={desk.id} />}
        {desk.handin.model_answer && (
          <details className="rounded-lg border border-edge bg-paper p-3">
            <summary className="min-h-8 cursor-pointer font-bold">{SUBMISSION.modelAnswer}</summary>
            <RichText html={desk.handin.model_answer} className="mt-2" />
          </details>
        )}
        {beside ? (
          <div className="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
            <Beside desk={desk} groupId={groupId} what={beside} />
            <div className="min-w-0">
              <h3 className="mb-2 text-base">{TEXTS.thisOne({ name: listed(desk.student), number: desk.number })}</h3>
              <FrozenPockets pockets={desk.pockets} />
            </div>
          </div>
        ) : (
          <FrozenPockets pockets={desk.pockets} />
        )}
        <SaidParts parts={desk.parts} />
        <OnTheWhole />
        {!desk.hidden && <Notes desk={desk} groupId={groupId} />}
        {desk.outcomes.map((one) => (
          <div key={one.id} className={one.voided_at ? "opacity-80" : ""}>
            {one.voided_at && <p className="text-quiet">{TEXTS.reopenedVoidedAt({ voided_at: moment(one.voided_at) })}</p>}
            <FeedbackCard line={{ ...one, points: desk.handin.points, judged: desk.judged }} ownIs={RUBRIC.theirs({ name: desk.student.given_name })}>
              <IsRead line={one} name={desk.student.given_name} />
            </FeedbackCard>
          </div>
        ))}
      </div>
    </section>
  );
}

/** Who of a group did what, as they say, and who of them says that it is so. */
function SaidParts({ parts }: { parts: Shape["parts"] }) {
  if (parts.length === 0) return null;
  return (
    <section aria-labelledby="who-did-what" className="rounded-lg border border-edge bg-paper p-4">
      <h2 id="who-did-what" className="text-base">
        {FOR_ALL.whoDidWhat}
      </h2>
      <dl className="mt-1 flex flex-col gap-2 text-base">
        {parts.map((one) => (
          <div key={one.name}>
            <dt>
              <strong>{one.name}</strong> <span className={one.confirmed ? "text-accepted" : "text-quiet"}>{one.confirmed ? FOR_ALL.saysRight : FOR_ALL.notConfirmed}</span>
            </dt>
            <dd className="break-words whitespace-pre-wrap">{one.text || FOR_ALL.saidNothing}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** What there is to know before reading. */
function Notices({ desk }: { desk: Shape }) {
  const here = desk.submissions.find((one) => one.number === desk.number);
  return (
    <>
      {desk.hidden && <Notice look="info" title={TWO.hidden} />}
      {desk.voided_at && <Notice look="info" title={TEXTS.takenBackVoidedAtIt({ voided_at: moment(desk.voided_at) })} />}
      {!desk.newest && !desk.voided_at && <Notice look="info" title={TEXTS.thereIsANewerSubmission} />}
      <ForThem one={here} />
      {desk.empty && !here?.for_them && <Notice look="info" title={TEXTS.handedInEmptyTheStudent} />}
      {desk.same_files.map((same) => (
        <Notice key={same.student + same.title} look="info" title={TEXTS.titleIsTheVeryFile({ title: same.title, student: same.student })} />
      ))}
    </>
  );
}

function PortfolioLink({ desk, groupId }: { desk: Shape; groupId: number }) {
  const cell = useQuery(cellQuery(groupId, desk.handin.id, desk.student.id));
  if (!cell.data) return null;
  return (
    <Link
      to={`/g/${groupId}/portfolio/${cell.data.portfolio}`}
      className="inline-flex min-h-8 items-center gap-2 rounded-md border border-edge px-3 font-semibold hover:border-control"
    >
      <FolderOpen aria-hidden size={16} />
      {TEXTS.portfolio}
    </Link>
  );
}

/** What staff note for themselves, on this submission. */
function Notes({ desk, groupId }: { desk: Shape; groupId: number }) {
  const cell = useQuery(cellQuery(groupId, desk.handin.id, desk.student.id));
  return cell.data?.portfolio ? <StaffNotes groupId={groupId} portfolio={cell.data.portfolio} submission={desk.id} /> : null;
}
