/** Handing in: one big button with a plain sentence, and the receipt. */
import { useQueryClient } from "@tanstack/react-query";
import { Lock, ReceiptText, Undo2, Upload } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Coat } from "../ui/Coat";
import { day, dayOf, due, moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { RichText } from "../ui/reading/RichText";
import { JudgeYourself } from "./JudgeYourself";
import { RubricDetails } from "./RubricTable";
import type { Judged } from "./RubricTable";
import { lateness, STATUS_WITHIN, together } from "../ui/words";
import { saveAll } from "../writing/autosave";
import { useDraft } from "../writing/useDraft";
import { ForThem } from "./ForThem";
import { GivenFiles } from "./GivenFiles";
import { TEXTS } from "./texts";

const WhoDidWhat = lazy(() => patiently(() => import("./WhoDidWhat")).then((view) => ({ default: view.WhoDidWhat })));

type HandIn = Schema["StudentHandIn"];

interface Props {
  handin: HandIn;
  groupId: number;
  portfolio: number;
  /** The names of files that are still coming up to a pocket it collects. */
  uploading: string[];
  /** More than one hand-in collects this pocket, so each says its title. */
  named: boolean;
  /** The pocket is a log: new rows stay possible. */
  rows: boolean;
  /** Its own hold stands on the pocket that is open. */
  held: boolean;
  /** What went wrong with the last press; kept above, since the bar moves to the top of the page once it is in. */
  problem: Problem | null;
  onProblem: (problem: Problem | null) => void;
}

/** When it is due, in words. */
export function dueWords(handin: Pick<HandIn, "status" | "due" | "due_time" | "due_in" | "due_again" | "overdue">): string {
  if (handin.status === "sent_back") {
    return handin.due_again ? TEXTS.handInAgainByDue({ due_again: dayOf(handin.due_again) }) : TEXTS.handInAgainWhenIt;
  }
  if (!handin.due) return TEXTS.noDueDate;
  const when = TEXTS.dueDue({ due: due(handin.due, handin.due_time) });
  if (handin.overdue) return TEXTS.whenWhichHasPassed({ when });
  if (!handin.due_in) return handin.due_in === null ? when : TEXTS.whenToday({ when });
  return TEXTS.whenInSchoolDays({ when, due_in: handin.due_in });
}

/** What the button takes: with more than the open pocket it names them all, since one press locks them all. */
function buttonWords(handin: HandIn): string {
  if (handin.together > 1) return TEXTS.handInForAll({ count: handin.together });
  const verb = handin.status === "sent_back" ? TEXTS.handInAgain : TEXTS.handIn;
  if (handin.pockets.length < 2) return verb;
  return handin.pockets.length > MOST_NAMED ? TEXTS.verbAllCountPockets({ verb, count: handin.pockets.length }) : TEXTS.verbPockets({ verb, pockets: together(handin.pockets.map((one) => one.title)) });
}

const MOST_NAMED = 3;

/** How many things are open in a pocket. */
function open(pocket: HandIn["wanting"][number]): number {
  return pocket.chips.reduce((sum, chip) => sum + chip.wanted - chip.done, 0);
}

function plain(handin: HandIn, rows: boolean): string {
  const [only, ...more] = handin.wanting;
  const many = handin.pockets.length > 1;
  if (only && many) return TEXTS.youCanHandInNow({ count: more.length + 1 });
  if (only) return TEXTS.youCanHandInNow2({ only: openWords(only) });
  if (handin.stays_open) return TEXTS.allHereOpen({ pockets: handin.pockets.length, until: untilWords(handin) });
  if (rows && !many) return TEXTS.allHereRows;
  return handin.status === "sent_back" ? TEXTS.allHereAgain({ pockets: handin.pockets.length }) : TEXTS.allHere({ pockets: handin.pockets.length });
}

/** What is open in one pocket, in words. */
function openWords(pocket: HandIn["wanting"][number]): string {
  const things = open(pocket);
  const rows = pocket.rows === 0 ? "" : TEXTS.rowsPluralOneOneRow({ rows: pocket.rows, columns: pocket.columns.join(", ") });
  const said = things === 0 ? "" : TEXTS.thingsOpen({ things });
  return [said, rows].filter(Boolean).join(", ");
}

/** Until when it stays open. */
function untilWords(handin: HandIn): string {
  return handin.due ? due(handin.due, handin.due_time) : "none";
}

/** Each pocket that is handed in: what becomes of it, and what is still open in it. Those that lack something come first. */
function Becomes({ handin }: { handin: HandIn }) {
  const open = new Map(handin.wanting.map((one) => [one.id, openWords(one)]));
  const ordered = [...handin.pockets.filter((one) => open.has(one.id)), ...handin.pockets.filter((one) => !open.has(one.id))];
  const shown = ordered.slice(0, MOST_SHOWN);
  return (
    <ul aria-label={TEXTS.whatBecomes} className="w-full text-base text-ink-soft">
      {shown.map((one) => {
        const then = TEXTS.becomes[one.then];
        const lacking = open.get(one.id);
        return (
          <li key={one.id} className={`break-words ${lacking ? "text-copper" : ""}`}>
            <span className="font-semibold">{one.title}:</span> {lacking ? TEXTS.becomesAndOpen({ then, open: lacking }) : then}
          </li>
        );
      })}
      {ordered.length > shown.length && <li>{TEXTS.andMorePockets({ count: ordered.length - shown.length })}</li>}
    </ul>
  );
}

const MOST_SHOWN = 6;

/** What became of it, when, and how late. */
function wentWords(handin: HandIn, submission: Schema["SubmissionLine"]): string {
  const accepted = handin.status === "accepted";
  const at = moment(accepted && submission.outcome_at ? submission.outcome_at : submission.at);
  return TEXTS.went({ accepted, at, late: handin.late, lateness: lateness(handin) });
}

/** What being locked means here. */
function staysWords(handin: HandIn, rows: boolean, held: boolean): string {
  const accepted = handin.status === "accepted";
  if (handin.again && !held) return TEXTS.staysOpenUntil({ until: untilWords(handin) });
  if (rows) return TEXTS.theRowsHandedInStay;
  if (!held) return TEXTS.thisPocketIsOpenAgain;
  return accepted ? TEXTS.itStaysLockedYouCan : TEXTS.lockedYouCanStillRead;
}

// eslint-disable-next-line complexity -- one branch for each state of a hand-in
export function HandInBar({ handin, groupId, portfolio, uploading, named, rows, held, problem, onProblem }: Props) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [judged, setJudged] = useState<Judged>({});
  useDraft(`judged/${handin.id}`, judged, 0, Object.keys(judged).length > 0, (kept) => setJudged((now) => ({ ...kept, ...now })));
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });

  const press = async (even_if_empty: boolean) => {
    setBusy(true);
    onProblem(null);
    try {
      if (!(await saveAll())) {
        const title = TEXTS.aTextIsNotSaved;
        throw new Problem({ title, fix: TEXTS.waitUntilItSaysSaved }, 409);
      }
      await data(
        client.POST("/api/portfolios/{portfolio_id}/handins/{handin_id}/submissions", {
          params: { path: { portfolio_id: portfolio, handin_id: handin.id } },
          body: { seen: handin.count, even_if_empty, judged },
        }),
      );
    } catch (error) {
      onProblem(error instanceof Problem ? error : null);
    } finally {
      await fresh();
      setBusy(false);
    }
  };

  const waits = handin.status === "sent_back" || handin.status === "working" || handin.status === "empty";
  const todo = waits && !handin.closed;
  const many = uploading.length === 0 && handin.pockets.length > 1;
  const stands = handin.submissions.findLast((one) => !one.voided_at);
  return (
    <section aria-label={TEXTS.verbPockets({ verb: TEXTS.handIn, pockets: handin.title })} className="flex flex-col gap-3">
      {named && <h2 className="text-base">{handin.title}</h2>}
      {handin.status === "not_open" && <p className="text-base">{TEXTS.youCanHandThisIn({ opens: day(handin.opens) })}</p>}
      {handin.status === "excused" && <p className="text-base">{TEXTS.youAreExcusedFromTitle({ title: handin.title })}</p>}
      {handin.directions && <RichText html={handin.directions} className="text-base" />}
      <GivenFiles files={handin.files} />
      {todo && handin.rubric?.by_student ? <JudgeYourself rubric={handin.rubric} judged={judged} onChange={setJudged} /> : <RubricDetails rubric={handin.rubric} />}
      <ModelAnswer handin={handin} />
      {handin.together > 1 && (
        <Suspense fallback={null}>
          <WhoDidWhat groupId={groupId} portfolio={portfolio} handin={handin.id} />
        </Suspense>
      )}
      {waits && handin.closed && handin.closes && (
        <p className="text-base">{TEXTS.closedOn({ closes: due(handin.closes, handin.closes_time) })}</p>
      )}
      {todo && handin.closes && <p className="text-ink-soft">{TEXTS.takesUntil({ closes: due(handin.closes, handin.closes_time) })}</p>}
      {todo && (
        <div className="flex flex-wrap items-center gap-4">
          <Button
            look="main"
            big
            icon={<Upload aria-hidden size={20} />}
            disabled={busy || uploading.length > 0}
            onClick={() => void press(false)}
          >
            {buttonWords(handin)}
          </Button>
          <p className="min-w-56 flex-1 text-base text-ink-soft">
            {uploading.length > 0
              ? TEXTS.countPluralOneUploadingIs({ uploading: uploading[0] ?? "", count: uploading.length })
              : handin.together > 1
                ? TEXTS.frozenForAll
                : plain(handin, rows)}
            {!handin.take_back && <span className="block">{TEXTS.standsThen}</span>}
          </p>
          {many && <Becomes handin={handin} />}
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
      {stands && !todo && <Standing handin={handin} submission={stands} rows={rows} held={held} onAgain={handin.again && !busy && uploading.length === 0 ? () => void press(false) : null} onChange={fresh} />}
      <Earlier handin={handin} groupId={groupId} portfolio={portfolio} />
    </section>
  );
}

/** What a good answer looks like, once students may see it. */
function ModelAnswer({ handin }: { handin: HandIn }) {
  if (!handin.model_answer) return null;
  return (
    <details className="rounded-lg border border-edge bg-paper p-3">
      <summary className="min-h-8 cursor-pointer text-base font-bold">{TEXTS.modelAnswer}</summary>
      <RichText html={handin.model_answer} className="mt-2 text-base" />
    </details>
  );
}

interface StandingProps {
  handin: HandIn;
  submission: Schema["SubmissionLine"];
  rows: boolean;
  held: boolean;
  /** Hands in once more; null where that cannot be. */
  onAgain: (() => void) | null;
  onChange: () => Promise<void>;
}

function Standing({ handin, submission, rows, held, onAgain, onChange }: StandingProps) {
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
        <Coat state={{ ...handin, locked: held }} size={44} />
      </span>
      <div className="min-w-52 flex-1 text-base" role="status">
        <p className="font-bold">
          {wentWords(handin, submission)}
        </p>
        <ForThem one={submission} />
        <p className="figures flex flex-wrap items-center gap-2">
          <ReceiptText aria-hidden size={18} />
          <span>{TEXTS.receipt({ number: <strong key="number">{submission.receipt}</strong> })}</span>
        </p>
        <p>
          <a href={`/api/submissions/${submission.id}/receipt.pdf`} className="inline-flex min-h-8 items-center font-semibold text-in underline">
            {TEXTS.receiptAsPdf}
          </a>
        </p>
        <p className="flex items-center gap-2 text-ink-soft">
          {(held || rows) && <Lock aria-hidden size={16} className="shrink-0" />}
          {staysWords(handin, rows, held)}
        </p>
        {submission.links > 0 && (
          <p className="text-ink-soft">
            {TEXTS.linksInItTheAddress({ links: submission.links })}
          </p>
        )}
        {problem && <Notice title={problem.title} fix={problem.fix} />}
      </div>
      {handin.again && (
        <Button big disabled={onAgain === null} icon={<Upload aria-hidden size={18} />} onClick={() => onAgain?.()}>
          {TEXTS.handInAgain}
        </Button>
      )}
      {handin.status === "handed_in" && handin.take_back && (
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
    <ol aria-label={TEXTS.allSubmissions} className="flex flex-col">
      {handin.submissions.map((one) => (
        <li key={one.id} className="flex flex-wrap items-center gap-x-3">
          <Link
            to={`/g/${groupId}/portfolio/${portfolio}/submission/${one.id}`}
            className="flex min-h-11 items-center font-semibold text-in underline"
          >
            {TEXTS.submissionNumberAt({ number: one.number, at: moment(one.at) })}
          </Link>
          <span className="figures text-quiet">
            {one.receipt}
            {one.voided_at ? TEXTS.takenBack : one.outcome ? ` · ${STATUS_WITHIN[one.outcome]}` : ""}
          </span>
        </li>
      ))}
    </ol>
  );
}
