/** Feedback and score; accept or send back; the next one opens by itself. */
import { useQueryClient } from "@tanstack/react-query";
import { Check, Undo2 } from "lucide-react";
import { useCallback, useEffect, useId, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { pileQuery } from "../api/queries";
import { marks, useGroup } from "../app/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { listed } from "../ui/words";
import { scoreOf, useMark } from "./mark";
import type { DraftState } from "./mark";
import { SendBackDialog } from "./SendBackDialog";
import { TEXTS } from "./texts";

type Shape = Schema["Desk"];
const FIELD = "mt-1 w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal";

export function MarkPanel({ desk, groupId, onNext }: { desk: Shape; groupId: number; onNext: () => void }) {
  const group = useGroup();
  const open = desk.status === "handed_in" && desk.newest;
  if (!marks(group)) return null;
  return (
    <aside
      aria-label="Marking"
      className="flex w-[300px] shrink-0 flex-col border-l border-line bg-paper max-lg:w-full max-lg:border-t max-lg:border-l-0 lg:overflow-y-auto"
    >
      {open ? <Marking desk={desk} groupId={groupId} onNext={onNext} /> : <Closed desk={desk} groupId={groupId} onNext={onNext} />}
    </aside>
  );
}

function Marking({ desk, groupId, onNext }: { desk: Shape; groupId: number; onNext: () => void }) {
  const mark = useMark(desk, groupId);
  const { finish } = mark;
  const queries = useQueryClient();
  const say = useSay();
  const id = useId();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [sending, setSending] = useState(false);
  const name = listed(desk.student);
  const points = desk.handin.points;

  const give = useCallback(
    async (run: () => Promise<Schema["ReviewedShape"]>, done: string) => {
      setBusy(true);
      setProblem(null);
      try {
        const reviewed = await run();
        finish();
        const also = reviewed.released.length > 0 ? ` This also unlocked what was handed in for ${reviewed.released.join(", ")}.` : "";
        const reopen = async () => {
          await data(client.POST("/api/submissions/{submission_id}/reopen", { params: { path: { submission_id: desk.id } } }));
          await queries.invalidateQueries({ queryKey: ["group", groupId] });
        };
        say(`${name}, ${desk.handin.title}: ${done}.${also}`, () => void reopen());
        // Off the pile at once, so that "next" never comes back to this one.
        queries.setQueryData(pileQuery(groupId).queryKey, (pile) =>
          pile && { ...pile, waiting: pile.waiting.filter((one) => one.submission !== desk.id) },
        );
        onNext();
        await queries.invalidateQueries({ queryKey: ["group", groupId] });
      } catch (error) {
        setProblem(error instanceof Problem ? error : null);
        setBusy(false);
      }
    },
    [desk.handin.title, desk.id, finish, groupId, name, onNext, queries, say],
  );

  const body = useCallback(() => {
    const score = scoreOf(mark.fields.score);
    if (score === undefined) {
      setProblem(new Problem({ title: `“${mark.fields.score}” is not a number.`, fix: `Give 0 to ${points ?? 0}.` }, 422));
      return null;
    }
    return { feedback: mark.fields.feedback, score, version: mark.version.current.version };
  }, [mark.fields, mark.version, points]);

  const accept = useCallback(() => {
    const sent = body();
    if (!sent || busy) return;
    const path = { params: { path: { submission_id: desk.id } } };
    void give(() => data(client.POST("/api/submissions/{submission_id}/accept", { ...path, body: sent })), "accepted");
  }, [body, busy, desk.id, give]);

  const sendBack = (pockets: number[], due_again: string | null) => {
    setSending(false);
    const sent = body();
    if (!sent || busy) return;
    const path = { params: { path: { submission_id: desk.id } } };
    void give(
      () => data(client.POST("/api/submissions/{submission_id}/send-back", { ...path, body: { ...sent, pockets, due_again } })),
      "sent back",
    );
  };

  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key === "Enter" && (event.ctrlKey || event.metaKey) && !sending) {
        event.preventDefault();
        accept();
      }
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [accept, sending]);

  return (
    <>
      <div className="flex flex-1 flex-col gap-4 p-4">
        {points !== null && (
          <label className="block font-bold">
            {TEXTS.score} <span className="font-normal text-quiet">of {points} points</span>
            <input
              value={mark.fields.score}
              inputMode="decimal"
              autoComplete="off"
              onChange={(event) => mark.change({ score: event.target.value })}
              className={`${FIELD} figures block max-w-28`}
            />
          </label>
        )}
        <div>
          <label htmlFor={id} className="font-bold">
            {TEXTS.feedback}
          </label>
          <textarea
            id={id}
            rows={9}
            value={mark.fields.feedback}
            onChange={(event) => mark.change({ feedback: event.target.value })}
            className={FIELD}
          />
          <DraftLine state={mark.state} />
        </div>
        {mark.state instanceof Problem && <DraftProblem problem={mark.state} mark={mark} />}
        {problem && <Notice title={problem.title} fix={problem.fix} />}
      </div>
      <div className="sticky bottom-0 flex flex-col gap-2 border-t border-line bg-paper p-4">
        <Button look="main" className="min-h-10" icon={<Check aria-hidden size={18} />} disabled={busy} onClick={accept}>
          {TEXTS.accept} <kbd className="font-sans text-xs font-normal">Ctrl ↵</kbd>
        </Button>
        <div className="flex gap-2">
          <Button className="min-h-9 flex-1" icon={<Undo2 aria-hidden size={16} />} disabled={busy} onClick={() => setSending(true)}>
            {TEXTS.sendBack}
          </Button>
          <Button className="min-h-9 flex-1" onClick={onNext}>
            {TEXTS.skip}
          </Button>
        </div>
      </div>
      <SendBackDialog open={sending} desk={desk} feedback={mark.fields.feedback} onClose={() => setSending(false)} onSend={sendBack} />
    </>
  );
}

function DraftLine({ state }: { state: DraftState }) {
  return (
    <p role="status" className="mt-1 min-h-5 text-xs text-quiet">
      {state === "saved" && TEXTS.draft}
      {state === "away" && TEXTS.draftAway}
    </p>
  );
}

function DraftProblem({ problem, mark }: { problem: Problem; mark: ReturnType<typeof useMark> }) {
  if (problem.kind !== "stale") return <Notice title={problem.title} fix={problem.fix} />;
  const version = Number(problem.more.version);
  const theirs = {
    feedback: typeof problem.more.feedback === "string" ? problem.more.feedback : "",
    score: typeof problem.more.score === "number" ? String(problem.more.score) : "",
  };
  return (
    <Notice title={TEXTS.twoDrafts}>
      <p className="mt-1 whitespace-pre-wrap">
        {theirs.score && `${theirs.score} points. `}
        {theirs.feedback}
      </p>
      <div className="mt-2 flex gap-2">
        <Button onClick={() => mark.settle(version)}>{TEXTS.mine}</Button>
        <Button onClick={() => mark.settle(version, theirs)}>{TEXTS.theirs}</Button>
      </div>
    </Notice>
  );
}

/** A submission that is not to be marked now: decided, taken back, excused, or followed by another. */
function Closed({ desk, groupId, onNext }: { desk: Shape; groupId: number; onNext: () => void }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const decided = desk.newest && (desk.status === "accepted" || desk.status === "sent_back");
  const reopen = async () => {
    try {
      await data(client.POST("/api/submissions/{submission_id}/reopen", { params: { path: { submission_id: desk.id } } }));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <div className="flex flex-col gap-3 p-4">
      <p className="text-base">
        {decided ? `This is ${desk.status === "accepted" ? "accepted" : "sent back"}.` : "There is nothing to decide here now."}
      </p>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <Button look="main" className="min-h-10" onClick={onNext}>
        Next to mark
      </Button>
      {decided && (
        <Button className="min-h-9" icon={<Undo2 aria-hidden size={16} />} onClick={() => void reopen()}>
          {TEXTS.reopen}
        </Button>
      )}
    </div>
  );
}
