/** One outcome with its feedback, as a student reads it. */
import type { Schema } from "../api/client";
import { Coat } from "../ui/Coat";
import { dayOf, moment } from "../ui/dates";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { STATUS } from "../ui/words";

type Outcome = Schema["OutcomeShape"];

interface Props {
  line: Outcome & { handin?: { title: string }; points?: number | null; number?: number };
  title?: boolean;
}

export function FeedbackCard({ line, title = false }: Props) {
  const sentBack = line.kind === "sent_back";
  return (
    <section
      aria-label={`Feedback: ${STATUS[line.kind]}`}
      className={`flex gap-4 rounded-lg border p-4 ${sentBack ? "border-copper bg-copper-soft" : "border-edge bg-accepted-soft"}`}
    >
      <Coat state={{ status: line.kind }} size={36} />
      <div className="min-w-0 flex-1 text-base">
        <p>
          {title && line.handin && <strong className="block text-lg">{line.handin.title}</strong>}
          <strong>{STATUS[line.kind]}</strong> {moment(line.at)} by {line.by}
          {line.score !== null && line.points && (
            <span className="figures">
              {" "}
              · <strong>{line.score}</strong> of {line.points} points
            </span>
          )}
        </p>
        {line.feedback ? (
          <>
            <p className="mt-1 break-words whitespace-pre-wrap">{line.feedback}</p>
            <div className="-ml-2">
              <ReadAloud text={line.feedback} />
            </div>
          </>
        ) : (
          <p className="mt-1 text-ink-soft">No words with it.</p>
        )}
        {sentBack && (
          <p className="mt-1 text-ink-soft">
            The pocket is open again: change it and hand in once more{line.due_again ? ` by ${dayOf(line.due_again)}` : ""}.
          </p>
        )}
      </div>
    </section>
  );
}
