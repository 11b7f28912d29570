/** Handing in: one big button with a plain sentence, and the receipt. */
import { useQueryClient } from "@tanstack/react-query";
import { Lock, ReceiptText, Undo2, Upload } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Coat } from "../ui/Coat";
import { day, dayOf, due, moment, plural } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { lateness, STATUS } from "../ui/words";
import { saveAll } from "./autosave";
import { TEXTS } from "./texts";

type HandIn = Schema["StudentHandIn"];

interface Props {
  handin: HandIn;
  groupId: number;
  portfolio: number;
  missing: number;
  /** The names of files that are still coming up to a pocket it collects. */
  uploading: string[];
  /** More than one hand-in collects this pocket, so each says its title. */
  named: boolean;
  /** The pocket is a log: new rows stay possible. */
  rows: boolean;
  /** What went wrong with the last press; kept above, since the bar moves to the top of the page once it is in. */
  problem: Problem | null;
  onProblem: (problem: Problem | null) => void;
}

/** When it is due, in words. */
export function dueWords(handin: Pick<HandIn, "status" | "due" | "due_time" | "due_in" | "due_again" | "overdue">): string {
  if (handin.status === "sent_back") {
    return handin.due_again ? `Hand in again by ${dayOf(handin.due_again)}` : "Hand in again when it is better";
  }
  if (!handin.due) return "No due date";
  const when = `Due ${due(handin.due, handin.due_time)}`;
  if (handin.overdue) return `${when}, which has passed`;
  if (!handin.due_in) return handin.due_in === null ? when : `${when}, today`;
  return `${when}, in ${plural(handin.due_in, "school day")}`;
}

function plain(missing: number, again: boolean, rows: boolean): string {
  if (missing > 0) {
    const open = missing === 1 ? "One thing is still open" : `${missing} things are still open`;
    return `You can hand in now. ${open}; your teacher will see that.`;
  }
  if (rows) return "Everything is here. The rows that are in it now stay as they are; new ones stay possible.";
  return again
    ? "Everything is here. Your teacher gets it again; the pocket is locked until they have looked."
    : "Everything is here. After handing in you can read it, and it opens again if it is sent back.";
}

/** What being locked means here. */
function staysWords(accepted: boolean, rows: boolean): string {
  if (rows) return "The rows handed in stay as they are. You can write new ones.";
  return accepted ? "It stays locked. You can still read it." : "Locked. You can still read it; it opens again if it is sent back.";
}

export function HandInBar({ handin, groupId, portfolio, missing, uploading, named, rows, problem, onProblem }: Props) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });

  const press = async (even_if_empty: boolean) => {
    setBusy(true);
    onProblem(null);
    try {
      if (!(await saveAll())) {
        const title = "A text is not saved yet, so nothing was handed in.";
        throw new Problem({ title, fix: "Wait until it says “Saved”, then press again." }, 409);
      }
      await data(
        client.POST("/api/portfolios/{portfolio_id}/handins/{handin_id}/submissions", {
          params: { path: { portfolio_id: portfolio, handin_id: handin.id } },
          body: { seen: handin.count, even_if_empty },
        }),
      );
    } catch (error) {
      onProblem(error instanceof Problem ? error : null);
    } finally {
      await fresh();
      setBusy(false);
    }
  };

  const todo = handin.status === "sent_back" || handin.status === "working" || handin.status === "empty";
  const stands = handin.submissions.findLast((one) => !one.voided_at);
  return (
    <section aria-label={`${TEXTS.handIn}: ${handin.title}`} className="flex flex-col gap-3">
      {named && <h2 className="text-base">{handin.title}</h2>}
      {handin.status === "not_open" && <p className="text-base">You can hand this in from {day(handin.opens)}.</p>}
      {handin.status === "excused" && <p className="text-base">You are excused from “{handin.title}”: there is nothing to hand in.</p>}
      {todo && (
        <div className="flex flex-wrap items-center gap-4">
          <Button
            look="main"
            big
            icon={<Upload aria-hidden size={20} />}
            disabled={busy || uploading.length > 0}
            onClick={() => void press(false)}
          >
            {handin.status === "sent_back" ? TEXTS.handInAgain : TEXTS.handIn}
          </Button>
          <p className="min-w-56 flex-1 text-base text-ink-soft">
            {uploading.length > 0
              ? `${uploading.length === 1 ? `“${uploading[0] ?? ""}” is` : `${plural(uploading.length, "file")} are`} still coming up; then you can hand in.`
              : plain(missing, handin.status === "sent_back", rows)}
          </p>
        </div>
      )}
      {problem && (
        <Notice title={problem.title} fix={problem.fix}>
          {problem.more.empty === true && (
            <div className="mt-2">
              <Button big onClick={() => void press(true)}>
                {TEXTS.handInAnyway}
              </Button>
            </div>
          )}
        </Notice>
      )}
      {stands && !todo && <Standing handin={handin} submission={stands} groupId={groupId} rows={rows} onChange={fresh} />}
      <Earlier handin={handin} groupId={groupId} portfolio={portfolio} />
    </section>
  );
}

function Standing({ handin, submission, rows, onChange }: { handin: HandIn; submission: Schema["SubmissionLine"]; groupId: number; rows: boolean; onChange: () => Promise<void> }) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const takeBack = async () => {
    try {
      await data(client.POST("/api/submissions/{submission_id}/take-back", { params: { path: { submission_id: submission.id } } }));
      await onChange();
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  const accepted = handin.status === "accepted";
  return (
    <div className={`flex flex-wrap items-start gap-4 rounded-lg border border-edge p-4 ${accepted ? "bg-accepted-soft" : "bg-in-soft"}`}>
      <span className="hung">
        <Coat state={{ ...handin, locked: true }} size={44} />
      </span>
      <div className="min-w-52 flex-1 text-base" role="status">
        <p className="font-bold">
          {accepted ? "Accepted" : "Handed in"} {moment(accepted && submission.outcome_at ? submission.outcome_at : submission.at)}
          {handin.late && `, ${lateness(handin)}`}
        </p>
        <p className="figures flex flex-wrap items-center gap-2">
          <ReceiptText aria-hidden size={18} /> Receipt <strong>{submission.receipt}</strong>
        </p>
        <p className="flex items-center gap-2 text-ink-soft">
          <Lock aria-hidden size={16} className="shrink-0" />
          {staysWords(accepted, rows)}
        </p>
        {submission.links > 0 && (
          <p className="text-ink-soft">
            {plural(submission.links, "link")} in it: the address is kept as it was, but what it leads to may change.
          </p>
        )}
        {problem && <Notice title={problem.title} fix={problem.fix} />}
      </div>
      {handin.status === "handed_in" && (
        <Button big icon={<Undo2 aria-hidden size={18} />} onClick={() => void takeBack()}>
          {TEXTS.takeBack}
        </Button>
      )}
    </div>
  );
}

function Earlier({ handin, groupId, portfolio }: { handin: HandIn; groupId: number; portfolio: number }) {
  if (handin.submissions.length === 0) return null;
  return (
    <ol aria-label="All submissions" className="flex flex-col">
      {handin.submissions.map((one) => (
        <li key={one.id} className="flex flex-wrap items-center gap-x-3">
          <Link
            to={`/g/${groupId}/portfolio/${portfolio}/submission/${one.id}`}
            className="flex min-h-11 items-center font-semibold text-in underline"
          >
            Submission {one.number}, {moment(one.at)}
          </Link>
          <span className="figures text-quiet">
            {one.receipt}
            {one.voided_at ? " · taken back" : one.outcome ? ` · ${STATUS[one.outcome].toLowerCase()}` : ""}
          </span>
        </li>
      ))}
    </ol>
  );
}
