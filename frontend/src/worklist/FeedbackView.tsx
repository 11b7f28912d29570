/** Everything that came back, newest first. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { annotationsOnWorkQuery, feedbackQuery, ownClassNotesQuery } from "../api/queries";
import { useGroup, useGroupId } from "../api/session";
import { Coat } from "../ui/Coat";
import { moment } from "../ui/dates";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { Failed, Waiting } from "../ui/Waiting";
import { FeedbackCard } from "../submission/FeedbackCard";
import { HaveRead } from "../submission/HaveRead";
import { SAID } from "../submission/said/saidTexts";
import { TEXTS } from "./texts";

/** How much is said on the work itself. */
function OnWork({ count }: { count: number }) {
  return count > 0 ? <span className="flex min-h-11 items-center text-ink-soft">{SAID.onWork({ count })}</span> : null;
}

const LINK = "flex min-h-11 items-center font-semibold text-in underline";

/** What was said to the whole class, newest first. */
function ClassNotes({ groupId, portfolio }: { groupId: number; portfolio: number }) {
  const notes = useQuery(ownClassNotesQuery(groupId, portfolio));
  if (!notes.data?.length) return null;
  return (
    <ul aria-label={TEXTS.toTheClass} className="flex flex-col gap-3">
      {notes.data.map((one) => (
        <li key={one.id} className="rounded-lg border border-edge bg-in-soft p-4 text-base">
          <p className="text-ink-soft">
            <strong className="text-ink">{one.handin.title}</strong> · {TEXTS.toTheClassBy({ who: one.who, at: moment(one.at) })}
          </p>
          <p className="mt-1 break-words whitespace-pre-wrap">{one.text}</p>
          <div className="-ml-2">
            <ReadAloud text={one.text} />
          </div>
        </li>
      ))}
    </ul>
  );
}

export function FeedbackView() {
  const groupId = useGroupId();
  const portfolio = useGroup()?.portfolio ?? 0;
  const feedback = useQuery(feedbackQuery(groupId, portfolio));
  const said = useQuery(annotationsOnWorkQuery(groupId, portfolio));
  if (feedback.isPending) return <Waiting />;
  if (feedback.isError) return <Failed error={feedback.error} again={() => void feedback.refetch()} />;
  return (
    <div className="mx-auto flex w-full max-w-3xl flex-col gap-4 p-6 max-sm:p-4">
      <h1 className="text-2xl">{TEXTS.feedback}</h1>
      {feedback.data.length === 0 && (
        <div className="flex items-center gap-3 text-base text-ink-soft">
          <Coat state={{ status: "handed_in" }} size={40} />
          {TEXTS.nothingHasComeBackYet}
        </div>
      )}
      <ClassNotes groupId={groupId} portfolio={portfolio} />
      <ul className="flex flex-col gap-4">
        {feedback.data.map((line) => (
          <li key={line.id}>
            <FeedbackCard line={line} title>
              <HaveRead line={line} groupId={groupId} portfolio={portfolio} />
              <p className="mt-1 flex flex-wrap gap-x-5">
                <Link to={`/g/${groupId}/portfolio/${portfolio}/submission/${line.submission}`} className={LINK}>
                  {TEXTS.readWhatYouHandedIn}
                </Link>
                <OnWork count={said.data?.filter((one) => one.submission === line.submission).length ?? 0} />
                {line.kind === "sent_back" && line.pocket && (
                  <Link to={`/g/${groupId}/portfolio/${portfolio}/${line.pocket}`} className={LINK}>
                    {TEXTS.openThePocket}
                  </Link>
                )}
              </p>
            </FeedbackCard>
          </li>
        ))}
      </ul>
    </div>
  );
}
