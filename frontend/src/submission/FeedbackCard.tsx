/** One outcome with its feedback, as a student reads it. */
import type { ReactNode } from "react";
import type { Schema } from "../api/client";
import { Coat } from "../ui/Coat";
import { dayOf, moment } from "../ui/dates";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { STATUS } from "../ui/words";
import { RubricDetails } from "./RubricTable";
import type { Judged } from "./RubricTable";
import { TEXTS } from "./texts";

type Outcome = Schema["OutcomeShape"];

interface Props {
  line: Outcome & { handin?: { title: string }; points?: number | null; number?: number; judged?: Judged };
  /** What the student's own judgement is called: "your own" to themselves. */
  ownIs?: string;
  title?: boolean;
  /** What can be done about it. */
  children?: ReactNode;
}

/** Where a score is not as it was earned: what was taken for being late, or why its marker gave another one. */
function HowScored({ line }: { line: Outcome }) {
  if (line.score === null || line.earned === null) return null;
  if (line.why) return <p className="figures break-words text-ink-soft">{TEXTS.scoreByMarker({ earned: line.earned, why: line.why })}</p>;
  if (line.late_days === 0) return null;
  return <p className="figures text-ink-soft">{TEXTS.scoreLate({ earned: line.earned, taken: Math.round((line.earned - line.score) * 10) / 10, days: line.late_days })}</p>;
}

/** The same, and why it is not that of the others who handed it in. */
function HowMade({ line }: { line: Outcome }) {
  return (
    <>
      <HowScored line={line} />
      {line.apart && <p className="break-words text-ink-soft">{TEXTS.markedAlone({ why: line.apart })}</p>}
    </>
  );
}

export function FeedbackCard({ line, title = false, ownIs, children }: Props) {
  const sentBack = line.kind === "sent_back";
  return (
    <section
      aria-label={TEXTS.feedback({ status: STATUS[line.kind] })}
      className={`flex gap-4 rounded-lg border p-4 ${sentBack ? "border-copper bg-copper-soft" : "border-edge bg-accepted-soft"}`}
    >
      <Coat state={{ status: line.kind }} size={36} />
      <div className="min-w-0 flex-1 text-base">
        <p>
          {title && line.handin && <strong className="block text-lg break-words">{line.handin.title}</strong>}
          {TEXTS.statusAtBy({ status: <strong key="status">{STATUS[line.kind]}</strong>, at: moment(line.at), by: line.by })}
          {line.score !== null && line.points && (
            <span className="figures">
              {" "}
              · {TEXTS.scoreOf({ score: <strong key="score">{line.score}</strong>, points: line.points })}
            </span>
          )}
        </p>
        <HowMade line={line} />
        {line.feedback ? (
          <>
            <p className="mt-1 break-words whitespace-pre-wrap">{line.feedback}</p>
            <div className="-ml-2">
              <ReadAloud text={line.feedback} />
            </div>
          </>
        ) : (
          <p className="mt-1 text-ink-soft">{TEXTS.noWordsWithIt}</p>
        )}
        <RubricDetails rubric={line.rubric} levels={line.levels} own={line.judged} ownIs={ownIs} open className="mt-2" />
        {sentBack && (
          <p className="mt-1 text-ink-soft">
            {TEXTS.thePocketIsOpenAgain({ due_again: line.due_again ? dayOf(line.due_again) : "", due_againIs: Boolean(line.due_again) })}
          </p>
        )}
        {children}
      </div>
    </section>
  );
}
