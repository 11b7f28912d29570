/** Writing a comment or a wording: kept as a draft while it is typed, spoken where that is quicker. */
import { Mic } from "lucide-react";
import { lazy, Suspense, useCallback, useId, useState } from "react";
import type { Schema } from "../../api/client";
import { patiently } from "../../api/patiently";
import { Problem } from "../../api/problem";
import { upload } from "../../api/upload";
import { usePersonId } from "../../api/session";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";
import { useAutosave } from "../../writing/autosave";
import type { Save } from "../../writing/keeper";
import { useSaying } from "./said";
import type { Composing, Said } from "./said";
import { SAID } from "./saidTexts";

const RecordDialog = lazy(() => patiently(() => import("../../taking-in/RecordDialog")).then((view) => ({ default: view.RecordDialog })));

const LONGEST = 4000;
const VOICE = 180;
/** Seconds. */
const FIELD = "mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal";

/** Text, wording and criterion as the one text that is kept. */
const packed = (text: string, wording: string, criterion: string) => JSON.stringify([text, wording, criterion]);
const unpacked = (kept: string) => {
  const [text = "", wording = "", criterion = ""] = JSON.parse(kept) as string[];
  return [text, wording, criterion] as const;
};

// eslint-disable-next-line complexity -- one branch for each state of what is written
export function Composer({ said, begun }: { said: Said; begun: Composing }) {
  const person = usePersonId();
  const { keep, put } = useSaying(said.groupId, said.submission);
  const [voice, setVoice] = useState(begun.voice);
  const [speaking, setSpeaking] = useState(false);
  const [failed, setFailed] = useState<Problem | null>(null);
  const id = useId();
  const { kind, target, key } = begun;
  const suggests = kind === "suggestion";
  const save: Save = useCallback(
    async (kept, version) => {
      const [text, wording, criterion] = unpacked(kept);
      // Nothing is said yet, or no more: there is nothing to keep.
      if (!suggests && !text.trim() && !voice) return { text: kept, version };
      try {
        const made = await keep(key, { kind, target, text, wording: suggests ? wording : null, strokes: [], colour: "", criterion, version });
        return { text: kept, version: made.version };
      } catch (error) {
        if (!(error instanceof Problem && error.kind === "stale" && "text" in error.more)) throw error;
        const { text: other, wording: how } = error.more as { text: string; wording: string | null };
        const theirs = packed(other, how ?? "", criterion);
        throw new Problem({ type: "urn:coatpeg:stale", title: error.title, fix: error.fix, text: theirs, version: Number(error.more.version) }, error.status);
      }
    },
    [keep, key, kind, suggests, target, voice],
  );
  const { text: kept, state, keeper } = useAutosave({
    name: `said/${said.submission}/${key}`,
    person,
    server: { text: packed(begun.text, begun.wording, begun.criterion), version: begun.version },
    writable: true,
    save,
  });
  const [text, wording, criterion] = unpacked(kept);
  const done = async () => {
    if (await keeper.push()) said.compose(null);
  };
  const speak = async (recording: Blob, name: string) => {
    setSpeaking(false);
    setFailed(null);
    try {
      await keeper.push();
      const address = `/api/submissions/${said.submission}/annotations/${key}/voice`;
      const made = await upload<Schema["AnnotationShape"]>(address, new File([recording], name), { target: JSON.stringify(target) });
      put(made);
      keeper.settle(keeper.snapshot().text, { text: keeper.snapshot().text, version: made.version });
      setVoice(true);
    } catch (error) {
      setFailed(error instanceof Problem ? error : null);
    }
  };
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- keys of the fields in it
    <div
      role="group"
      aria-label={suggests ? SAID.suggest : SAID.comment}
      className="flex flex-col gap-2 rounded-md border-2 border-copper bg-paper p-3"
      onKeyDown={(event) => {
        if (event.key !== "Escape" && !(event.key === "Enter" && (event.ctrlKey || event.metaKey))) return;
        event.stopPropagation();
        event.preventDefault();
        void done();
      }}
    >
      {target.words && <p className="line-clamp-3 border-l-3 border-brass pl-2 text-sm text-ink-soft">{target.words.exact}</p>}
      {suggests && (
        <label className="font-bold" htmlFor={`${id}w`}>
          {SAID.wording}
          {/* eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to be written in */}
          <textarea id={`${id}w`} autoFocus rows={2} value={wording} maxLength={LONGEST} onFocus={(event) => event.target.select()} onChange={(event) => keeper.change(packed(text, event.target.value, criterion))} className={FIELD} />
        </label>
      )}
      <label className="font-bold" htmlFor={`${id}t`}>
        {voice ? SAID.gist : SAID.field}
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to be written in */}
        <textarea id={`${id}t`} autoFocus={!suggests} rows={3} value={text} maxLength={LONGEST} onChange={(event) => keeper.change(packed(event.target.value, wording, criterion))} className={FIELD} />
      </label>
      {said.criteria.length > 0 && target.pocket && (
        <label className="text-sm" htmlFor={`${id}c`}>
          {SAID.whyField}{" "}
          <select id={`${id}c`} value={criterion} onChange={(event) => keeper.change(packed(text, wording, event.target.value))} className="min-h-8 max-w-full rounded-md border border-control bg-paper px-2">
            <option value="">{SAID.noCriterion}</option>
            {said.criteria.map((one) => (
              <option key={one.key} value={one.key}>
                {one.title}
              </option>
            ))}
          </select>
        </label>
      )}
      {state.at === "refused" && <Notice title={state.problem.title} fix={state.problem.fix} />}
      {state.at === "two" && (
        <Notice title={SAID.two} fix={unpacked(state.theirs.text).join(" ")}>
          <Button onClick={() => keeper.settle(state.theirs.text, state.theirs)}>{SAID.takeTheirs}</Button>
          <Button onClick={() => keeper.settle(kept, state.theirs)}>{SAID.keepMine}</Button>
        </Notice>
      )}
      {failed && <Notice title={failed.title} fix={failed.fix} />}
      {voice && <p className="text-sm text-quiet">{SAID.voice}</p>}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void done()}>{SAID.done}</Button>
        {!suggests && (
          <Button look="quiet" icon={<Mic aria-hidden size={15} />} onClick={() => setSpeaking(true)}>
            {SAID.speak}
          </Button>
        )}
      </div>
      {speaking && (
        <Suspense>
          <RecordDialog soundOnly longest={VOICE} title={SAID.speakTitle} onDone={(recording, name) => void speak(recording, name)} onClose={() => setSpeaking(false)} />
        </Suspense>
      )}
    </div>
  );
}
