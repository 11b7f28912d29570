/** One submission to read again, by its student or by staff: frozen, with its receipt and what came back. */
import { useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { Link, useParams } from "react-router";
import { submissionQuery } from "../api/queries";
import { useGroup, useGroupId } from "../api/session";
import { Coat } from "../ui/Coat";
import { moment } from "../ui/dates";
import { Failed, Waiting } from "../ui/Waiting";
import { lateness, STATUS_WITHIN } from "../ui/words";
import { FeedbackCard } from "../submission/FeedbackCard";
import { ForThem } from "../submission/ForThem";
import { HandInHistory } from "../submission/HandInHistory";
import { FrozenPockets } from "../submission/FrozenPockets";
import { useSaid } from "../submission/said/said";
import { SaidFiles } from "../submission/said/SaidFoot";
import { SaidList } from "../submission/said/SaidList";
import { SaidProvider } from "../submission/said/SaidProvider";
import { TEXTS } from "./texts";

const WHOLE = {};

/** What is said on the whole of what is shown. */
function OnTheWhole() {
  const said = useSaid();
  if (!said || said.list.length === 0) return null;
  return (
    <>
      <SaidList said={said} pocket={null} target={WHOLE} />
      <SaidFiles said={said} />
    </>
  );
}

// eslint-disable-next-line complexity -- one branch for each state of what was handed in
export function SubmissionView() {
  const groupId = useGroupId();
  const { submission: id, portfolio } = useParams();
  const group = useGroup();
  const found = useQuery(submissionQuery(groupId, Number(id)));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const one = found.data;
  const mine = group?.portfolio === Number(portfolio);
  const pocket = one.pockets[0];
  const outcome = one.outcomes.find((each) => !each.voided_at);
  return (
    <article className="mx-auto flex w-full max-w-5xl flex-col gap-4 p-6 max-sm:p-4">
      <Link
        to={`/g/${groupId}/portfolio/${portfolio ?? ""}${pocket ? `/${pocket.id}` : ""}`}
        className="flex min-h-11 items-center gap-2 self-start font-semibold text-in"
      >
        <ArrowLeft aria-hidden size={18} />
        {pocket?.title ?? TEXTS.back}
      </Link>
      <header className="flex items-start gap-4">
        <Coat state={{ status: outcome?.kind ?? "handed_in", late: one.late }} size={40} />
        <div className="min-w-0 text-base">
          <h1 className="text-2xl break-words">
            {TEXTS.titleSubmissionNumber({ title: one.handin.title, number: one.number })}
          </h1>
          <p className="figures text-ink-soft">
            {TEXTS.handedInWithReceipt({ at: moment(one.at), late: one.late && one.number === 1, lateness: lateness(one), receipt: <strong key="receipt">{one.receipt}</strong> })}
          </p>
          <ForThem one={one.submissions.find((each) => each.number === one.number)} />
          <p className="flex flex-wrap items-center gap-x-5 gap-y-1">
            <a href={`/api/submissions/${one.id}/receipt.pdf`} className="inline-flex min-h-8 items-center font-semibold text-in underline">
              {TEXTS.receiptAsPdf}
            </a>
            <HandInHistory groupId={groupId} handin={one.handin} student={one.student.id} big />
          </p>
          {one.voided_at && <p>{TEXTS.takenBackVoidedAtIt({ voided_at: moment(one.voided_at) })}</p>}
          <p className="text-ink-soft">
            {one.student.full_name}
            {outcome ? ` · ${STATUS_WITHIN[outcome.kind]}` : ""}
          </p>
        </div>
      </header>
      {outcome && <FeedbackCard line={{ ...outcome, points: one.handin.points, judged: one.judged }} />}
      <SaidProvider groupId={groupId} submission={one.id} mends={mine}>
        <FrozenPockets pockets={one.pockets} />
        <OnTheWhole />
      </SaidProvider>
    </article>
  );
}
