/** A field for a reflection or a page: counts while typing, saves itself, never loses a word. */
import { CircleAlert, Cloud, CloudOff, Copy, LoaderCircle, PenLine } from "lucide-react";
import { useEffect, useId, useRef } from "react";
import { Button } from "../ui/Button";
import { clock } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { lengthWords } from "../ui/Chips";
import { useAutosave } from "./autosave";
import type { Saved, SaveState } from "./keeper";
import { count } from "./count";
import { TEXTS } from "./texts";

interface Props {
  name: string;
  person: number;
  label: string;
  server: Saved;
  writable: boolean;
  length: { measure: string; least: number; most: number | null };
  limit: number;
  rows: number;
  save: (text: string, version: number) => Promise<Saved>;
}

export function WritingField({ name, person, label, server, writable, length, limit, rows, save }: Props) {
  const { text, state, change, settle } = useAutosave({ name, person, server, writable, save });
  const id = useId();
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    const area = field.current;
    if (!area) return;
    area.style.height = "auto";
    area.style.height = `${area.scrollHeight + 2}px`;
  }, [text]);
  return (
    <div className="rounded-md border-l-3 border-brass pl-3">
      <label htmlFor={id} className="font-bold">
        {label}
      </label>
      <textarea
        ref={field}
        id={id}
        rows={rows}
        value={text}
        readOnly={!writable}
        aria-describedby={`${id}-state`}
        onChange={(event) => change(event.target.value)}
        className="mt-1 block w-full resize-none overflow-hidden rounded-md border border-control bg-paper px-3 py-2 text-base leading-6 read-only:border-edge read-only:bg-ground"
      />
      <div id={`${id}-state`} className="mt-1 flex flex-wrap items-center justify-between gap-x-4 gap-y-1 text-sm text-quiet">
        <Counted text={text} length={length} limit={limit} />
        <State state={state} />
      </div>
      {state.at === "two" && <TwoTexts mine={text} theirs={state.theirs} onSettle={settle} />}
      {state.at === "refused" && <NotSaved state={state} text={text} />}
    </div>
  );
}

function Counted({ text, length, limit }: { text: string; length: Props["length"]; limit: number }) {
  const counts = count(text);
  const asked = lengthWords(length);
  const words = length.measure === "sentences" ? `${counts.sentences} of ${asked}` : `${counts.words} of ${asked}`;
  if (text.length > limit) {
    return (
      <span className="font-semibold text-overdue">
        {text.length} characters; {limit} is the most
      </span>
    );
  }
  return <span className="figures">{asked ? words : `${counts.words} word${counts.words === 1 ? "" : "s"}`}</span>;
}

function State({ state }: { state: SaveState }) {
  const line = "flex items-center gap-1.5";
  return (
    <span role="status" className={line}>
      {state.at === "typing" && (
        <>
          <PenLine aria-hidden size={15} /> {TEXTS.typing}
        </>
      )}
      {state.at === "saving" && (
        <>
          <LoaderCircle aria-hidden size={15} /> {TEXTS.saving}
        </>
      )}
      {state.at === "saved" && (
        <>
          <Cloud aria-hidden size={15} /> {TEXTS.saved} {clock(state.when)}
        </>
      )}
      {state.at === "away" && (
        <span className={`${line} rounded-sm bg-late px-2 text-late-ink`}>
          <CloudOff aria-hidden size={15} /> {TEXTS.away}
        </span>
      )}
      {(state.at === "refused" || state.at === "two") && (
        <span className={`${line} text-overdue`}>
          <CircleAlert aria-hidden size={15} /> {TEXTS.typing}
        </span>
      )}
    </span>
  );
}

function TwoTexts({ mine, theirs, onSettle }: { mine: string; theirs: Saved; onSettle: (text: string, over: Saved) => void }) {
  return (
    <section aria-label={TEXTS.twoTexts} className="mt-3 rounded-md border border-copper bg-copper-soft p-3">
      <h4 className="font-bold">{TEXTS.twoTexts}</h4>
      <p>{TEXTS.twoHint}</p>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {[
          { title: TEXTS.mine, text: mine, act: TEXTS.keepMine },
          { title: TEXTS.theirs, text: theirs.text, act: TEXTS.takeOther },
        ].map((one) => (
          <div key={one.act} className="flex flex-col gap-2 rounded-md bg-paper p-3">
            <h5 className="font-bold">{one.title}</h5>
            <p className="flex-1 break-words whitespace-pre-wrap">{one.text || "(empty)"}</p>
            <Button big onClick={() => onSettle(one.text, theirs)}>
              {one.act}
            </Button>
          </div>
        ))}
      </div>
      <Button big look="quiet" onClick={() => onSettle(`${mine}\n\n${theirs.text}`, theirs)}>
        {TEXTS.both}
      </Button>
    </section>
  );
}

function NotSaved({ state, text }: { state: Extract<SaveState, { at: "refused" }>; text: string }) {
  const say = useSay();
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    say(TEXTS.copied);
  };
  return (
    <div className="mt-3">
      <Notice title={state.problem.title} fix={state.problem.fix}>
        <div className="mt-2">
          <Button icon={<Copy aria-hidden size={16} />} onClick={() => void copy()}>
            {TEXTS.copy}
          </Button>
        </div>
      </Notice>
    </div>
  );
}
