/** Feedback and score; accept or send back; the next one opens by itself. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Check, Undo2 } from "lucide-react";
import { useCallback, useEffect, useId, useLayoutEffect, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { annotationsQuery, wholePileQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { isTyped, useLetterKeys } from "../ui/keys";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { listed } from "../ui/words";
import type { SaveState } from "../writing/keeper";
import { markOf, packed, unpacked, useMark } from "../submission/mark";
import type { Fields } from "../submission/mark";
import { Agreeing } from "./Agreeing";
import { ForAll, useForAll } from "./ForAll";
import { OwnScore } from "./OwnScore";
import { FOR_ALL } from "./forAllTexts";
import { PhraseField } from "./PhraseField";
import { PhrasesDialog } from "./PhrasesDialog";
import { asPhrase } from "./phrases";
import { RubricLevels } from "./RubricLevels";
import { SendBackDialog } from "./SendBackDialog";
import { RUBRIC } from "../submission/rubricTexts";
import { SAID } from "../submission/said/saidTexts";
import { TEXTS } from "./texts";
import { toFeedback } from "./toFeedback";
import { TWO } from "./twoTexts";
import { useOffPile } from "./usePile";

type Shape = Schema["Desk"];
const FIELD = "mt-1 w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal";

/** What else was unlocked by it, in words. */
function unlocked(titles: string[]): string {
  return titles.length > 0 ? TEXTS.thisAlsoUnlockedWhatWas({ released: titles.join(", ") }) : "";
}

interface PanelProps {
  desk: Shape;
  groupId: number;
  onNext: () => void;
  /** On to the next one past others that were decided with this one. */
  onPast: (also: number[]) => void;
}

export function MarkPanel({ desk, groupId, onNext, onPast }: PanelProps) {
  const group = useGroup();
  const open = desk.status === "handed_in" && desk.newest;
  if (!may(group, "mark")) return null;
  return (
    <aside
      aria-label={TEXTS.marking}
      className="flex w-[300px] shrink-0 flex-col border-l border-line bg-paper max-lg:w-full max-lg:border-t max-lg:border-l-0 lg:overflow-y-auto"
    >
      {open && desk.two?.done && desk.two.marks.length === 0 ? (
        <DoneAlready desk={desk} groupId={groupId} onNext={onNext} />
      ) : open ? (
        <Marking desk={desk} groupId={groupId} onNext={onNext} onPast={onPast} />
      ) : (
        <Closed desk={desk} groupId={groupId} onNext={onNext} />
      )}
    </aside>
  );
}

// eslint-disable-next-line complexity -- one branch for each way in which it is decided
function Marking({ desk, groupId, onNext, onPast }: PanelProps) {
  const rubric = desk.handin.rubric ?? null;
  const mark = useMark({ id: desk.id, points: desk.handin.points ?? null, byRubric: rubric !== null, draft: desk.draft }, groupId);
  const { keeper } = mark;
  const queries = useQueryClient();
  const say = useSay();
  const offPile = useOffPile(groupId);
  const id = useId();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [together, setTogether] = useForAll(desk.id);
  /** What is to be sent back is asked about: with what is typed, or with what two agreed on. */
  const [sending, setSending] = useState<{ agreed?: Fields } | null>(null);
  /** What a new phrase begins with, while the phrases are open. */
  const [phrases, setPhrases] = useState<string | null>(null);
  const name = listed(desk.student);
  const points = desk.handin.points;

  /** Save what is typed, then give the outcome over it; what another marker wrote meanwhile is shown instead. */
  const give = useCallback(
    async (run: (body: Schema["AgreedIn"]) => Promise<Schema["ReviewedShape"]>, done: string, agreed?: Fields) => {
      if (busy) return;
      setBusy(true);
      setProblem(null);
      try {
        if (!agreed) await keeper.push();
        const { at } = keeper.snapshot().state;
        if (at === "two" || at === "refused") {
          setBusy(false);
          return;
        }
        const body = markOf(agreed ?? unpacked(keeper.snapshot().text), rubric !== null, points ?? null);
        const reviewed = await run({ ...body, version: keeper.version, alone: "", for_all: together.forAll, apart: together.apart });
        keeper.forget();
        const reopen = async () => {
          await data(client.POST("/api/submissions/{submission_id}/reopen", { params: { path: { submission_id: desk.id }, query: { for_all: true } } }));
          await Promise.all([queries.invalidateQueries({ queryKey: ["group", groupId] }), queries.invalidateQueries({ queryKey: wholePileQuery.queryKey })]);
        };
        say(`${name}, ${desk.handin.title}: ${done}.${unlocked(reviewed.released)}`, () => void reopen());
        for (const one of [desk.id, ...reviewed.also]) offPile(one);
        onPast(reviewed.also);
        await queries.invalidateQueries({ queryKey: ["group", groupId] });
      } catch (error) {
        setProblem(error instanceof Problem ? error : null);
        setBusy(false);
      }
    },
    [busy, desk.handin.title, desk.id, groupId, keeper, name, offPile, onPast, points, queries, rubric, say, together],
  );

  const accept = useCallback(
    (agreed?: Fields, alone = "") => {
      const path = { params: { path: { submission_id: desk.id } } };
      void give((body) => data(client.POST("/api/submissions/{submission_id}/accept", { ...path, body: { ...body, alone } })), "accepted", agreed);
    },
    [desk.id, give],
  );

  const sendBack = (pockets: number[], due_again: string | null) => {
    setSending(null);
    const path = { params: { path: { submission_id: desk.id } } };
    void give(
      (body) => data(client.POST("/api/submissions/{submission_id}/send-back", { ...path, body: { ...body, pockets, due_again } })),
      TEXTS.sentBack,
      sending?.agreed,
    );
  };

  /** One of two who mark independently: theirs is done, and off their pile. */
  const done = useCallback(async () => {
    setProblem(null);
    try {
      await keeper.push();
      await data(client.POST("/api/submissions/{submission_id}/draft/done", { params: { path: { submission_id: desk.id } }, body: { done: true, version: keeper.version } }));
      offPile(desk.id);
      onNext();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  }, [desk.id, groupId, keeper, offPile, onNext, queries]);
  const two = desk.two ?? null;

  const letters = useLetterKeys();
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (letters && event.key === "f" && !isTyped(event)) {
        event.preventDefault();
        toFeedback();
      }
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters]);
  // With what is shown, not after it: it would decide on the submission before.
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== "Enter" || !(event.ctrlKey || event.metaKey) || document.querySelector("[role=dialog]")) return;
      event.preventDefault();
      if (two?.marks.length) return;
      if (two) void done();
      else if (event.shiftKey) setSending({});
      else accept();
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [accept, done, two]);

  const asking = sending && <SendBackDialog open desk={desk} feedback={sending.agreed?.feedback ?? mark.fields.feedback} onClose={() => setSending(null)} onSend={sendBack} />;
  if (two?.marks.length) {
    return (
      <>
        <Agreeing desk={desk} marks={two.marks} busy={busy} problem={problem} onAccept={(agreed) => accept(agreed)} onSendBack={(agreed) => setSending({ agreed })} />
        {asking}
      </>
    );
  }

  return (
    <>
      <div className="flex flex-1 flex-col gap-4 p-4">
        {two && <Notice look="info" title={TWO.independent} fix={two.count > 0 ? TWO.otherDone : undefined} />}
        <Score desk={desk} mark={mark} />
        <OwnScore desk={desk} fields={mark.fields} onChange={mark.change} />
        <ForAll desk={desk} fields={together} onChange={setTogether} />
        <div>
          <div className="flex items-baseline justify-between gap-2">
            <label htmlFor={id} className="font-bold">
              {TEXTS.feedback}
            </label>
            <button type="button" className="-my-1 flex min-h-8 items-center gap-1.5 rounded-sm px-1 text-sm text-in underline" onClick={() => setPhrases(asPhrase(chosenInFeedback(), desk.student.given_name))}>
              {TEXTS.phrases}
              <kbd aria-hidden className="rounded-sm border border-edge px-1 font-sans text-xs text-quiet no-underline">;</kbd>
            </button>
          </div>
          <PhraseField id={id} desk={desk} groupId={groupId} value={mark.fields.feedback} onChange={(feedback) => mark.change({ feedback })} className={FIELD} />
          <DraftLine state={mark.state} />
        </div>
        <DraftProblem mark={mark} />
        {problem && <Notice title={problem.title} fix={problem.fix} />}
      </div>
      <Decisions desk={desk} busy={busy} onAccept={accept} onDone={() => void done()} onSendBack={() => setSending({})} onNext={onNext} />
      {phrases !== null && <PhrasesDialog groupId={groupId} handin={desk.handin} begun={phrases} onClose={() => setPhrases(null)} />}
      {asking}
    </>
  );
}

interface DecisionsProps {
  desk: Shape;
  busy: boolean;
  onAccept: (agreed?: Fields, alone?: string) => void;
  onDone: () => void;
  onSendBack: () => void;
  onNext: () => void;
}

/** Accept or send back; of two who mark independently: one's own mark is done. */
function Decisions({ desk, busy, onAccept, onDone, onSendBack, onNext }: DecisionsProps) {
  const two = desk.two ?? null;
  return (
    <div className="sticky bottom-0 low:static flex flex-col gap-2 border-t border-line bg-paper p-4">
      <Button look="main" className="min-h-10 flex-wrap py-1" icon={<Check aria-hidden size={18} />} disabled={busy} onClick={() => (two ? onDone() : onAccept())}>
        {two ? TWO.done : TEXTS.accept} <kbd className="font-sans text-xs font-normal">{TEXTS.ctrl}</kbd>
      </Button>
      <div className="flex flex-wrap gap-2">
        {!two && (
          <Button className="min-h-9 flex-1" icon={<Undo2 aria-hidden size={16} />} disabled={busy} onClick={onSendBack}>
            {TEXTS.sendBack}
          </Button>
        )}
        <Button className="min-h-9 flex-1" onClick={onNext}>
          {TEXTS.skip}
        </Button>
      </div>
      {two?.alone && <Alone busy={busy} onAccept={(why) => onAccept(undefined, why)} />}
    </div>
  );
}

/** A lead decides without the other marker, and says why. */
function Alone({ busy, onAccept }: { busy: boolean; onAccept: (why: string) => void }) {
  const [why, setWhy] = useState("");
  return (
    <details>
      <summary className="min-h-8 cursor-pointer text-sm font-semibold">{TWO.alone}</summary>
      <label className="block text-sm font-bold">
        {TWO.aloneWhy}
        <input value={why} maxLength={500} autoComplete="off" onChange={(event) => setWhy(event.target.value)} className={FIELD} />
      </label>
      <Button className="mt-2" disabled={busy || !why.trim()} onClick={() => onAccept(why)}>
        {TWO.acceptAlone}
      </Button>
    </details>
  );
}

/** One's own independent mark is done; the other one is not. */
function DoneAlready({ desk, groupId, onNext }: { desk: Shape; groupId: number; onNext: () => void }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const takeUp = async () => {
    try {
      await data(client.POST("/api/submissions/{submission_id}/draft/done", { params: { path: { submission_id: desk.id } }, body: { done: false, version: desk.draft?.version ?? 0 } }));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <div className="flex flex-col gap-3 p-4">
      <p className="text-base font-bold">{TWO.isDone}</p>
      <p>{TWO.waits}</p>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <Button look="main" className="min-h-10" onClick={onNext}>
        {TWO.next}
      </Button>
      <Button className="min-h-9" onClick={() => void takeUp()}>
        {TWO.takeUp}
      </Button>
    </div>
  );
}

/** The levels of the rubric, or the points; nothing where there are none. */
function Score({ desk, mark }: { desk: Shape; mark: ReturnType<typeof useMark> }) {
  const { rubric, points } = desk.handin;
  if (rubric) {
    return <Judged desk={desk} mark={mark} rubric={rubric} />;
  }
  if (points === null) return null;
  return (
    <label className="block font-bold">
      {TEXTS.score} <span className="font-normal text-quiet">{TEXTS.ofPointsPoints({ points })}</span>
      <input
        value={mark.fields.score}
        inputMode="decimal"
        autoComplete="off"
        onChange={(event) => mark.change({ score: event.target.value })}
        className={`${FIELD} figures block max-w-28`}
      />
    </label>
  );
}

/** The levels, and how many of them rest on something that is said on the work. */
function Judged({ desk, mark, rubric }: { desk: Shape; mark: ReturnType<typeof useMark>; rubric: Schema["RubricShape"] }) {
  const said = useQuery(annotationsQuery(desk.group, desk.id));
  const judged = Object.entries(mark.fields.levels).flatMap(([key, level]) => (level.length > 0 ? [key] : []));
  const pinned = judged.filter((key) => said.data?.some((one) => one.criterion === key)).length;
  const { points } = desk.handin;
  return (
    <div className="flex flex-col gap-2">
      <RubricLevels rubric={rubric} levels={mark.fields.levels} own={desk.judged} ownIs={RUBRIC.theirs({ name: desk.student.given_name })} score={desk.draft?.score ?? null} points={points ?? null} onChange={(levels) => mark.change({ levels })} />
      {judged.length > 0 && <p className="figures text-sm text-quiet">{SAID.pinned({ pinned, count: judged.length })}</p>}
    </div>
  );
}

/** What is chosen in the feedback's field. */
function chosenInFeedback(): string {
  const field = document.querySelector<HTMLTextAreaElement>("[data-feedback]");
  return field ? field.value.slice(field.selectionStart, field.selectionEnd) : "";
}

function DraftLine({ state }: { state: SaveState }) {
  return (
    <p role="status" className="mt-1 min-h-5 text-xs text-quiet">
      {state.at === "saved" && TEXTS.draft}
      {state.at === "away" && TEXTS.draftAway}
    </p>
  );
}

function DraftProblem({ mark: { state, fields, keeper } }: { mark: ReturnType<typeof useMark> }) {
  if (state.at === "refused") return <Notice title={state.problem.title} fix={state.problem.fix} />;
  if (state.at !== "two") return null;
  const { feedback, score } = unpacked(state.theirs.text);
  const settle = (text: string) => keeper.settle(text, state.theirs);
  return (
    <Notice title={TEXTS.twoDrafts}>
      <p className="mt-1 whitespace-pre-wrap">
        {score && TEXTS.scorePoints({ score })}
        {feedback}
      </p>
      <div className="mt-2 flex gap-2">
        <Button onClick={() => settle(packed(fields))}>{TEXTS.mine}</Button>
        <Button onClick={() => settle(state.theirs.text)}>{TEXTS.theirs}</Button>
      </div>
    </Notice>
  );
}

/** For all to whom it was given at one press, or for this one alone. */
function Reopen({ desk, onReopen }: { desk: Shape; onReopen: (forAll: boolean) => void }) {
  const along = desk.with_it?.with_outcome ?? 0;
  const icon = <Undo2 aria-hidden size={16} />;
  return (
    <>
      {along > 0 && (
        <Button className="min-h-9" icon={icon} onClick={() => onReopen(true)}>
          {FOR_ALL.reopenAll({ count: along + 1 })}
        </Button>
      )}
      <Button className="min-h-9" icon={icon} onClick={() => onReopen(false)}>
        {along > 0 ? FOR_ALL.reopenOne({ name: desk.student.given_name }) : TEXTS.reopen}
      </Button>
    </>
  );
}

/** A submission that is not to be marked now: decided, taken back, excused, or followed by another. */
function Closed({ desk, groupId, onNext }: { desk: Shape; groupId: number; onNext: () => void }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const decided = desk.newest && (desk.status === "accepted" || desk.status === "sent_back");
  const reopen = async (for_all: boolean) => {
    try {
      await data(client.POST("/api/submissions/{submission_id}/reopen", { params: { path: { submission_id: desk.id }, query: { for_all } } }));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <div className="flex flex-col gap-3 p-4">
      <p className="text-base">
        {decided ? TEXTS.thisIs({ statusIs: desk.status === "accepted" }) : TEXTS.thereIsNothingToDecide}
      </p>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <Button look="main" className="min-h-10" onClick={onNext}>
        {TEXTS.nextToMark}
      </Button>
      {decided && <Reopen desk={desk} onReopen={(forAll) => void reopen(forAll)} />}
    </div>
  );
}
