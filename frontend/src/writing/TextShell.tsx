/** What stands around every text that saves itself: its label, its counts, how far it is saved, and what to do where it is not. */
import { CircleAlert, Cloud, CloudOff, Copy, LoaderCircle, PenLine } from "lucide-react";
import { useDeferredValue, useMemo } from "react";
import type { ReactNode } from "react";
import { Button } from "../ui/Button";
import { lengthWords } from "../ui/Chips";
import { clock } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { plainText, RichText } from "../ui/reading/RichText";
import { useSay } from "../ui/Toasts";
import { count } from "./count";
import type { Saved, SaveState } from "./keeper";
import { TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

export interface Asked {
  measure: string;
  least: number;
  most: number | null;
}

interface Props {
  id: string;
  label: string;
  /** Names the field where that is no label element's work. */
  heading?: boolean;
  text: string;
  rich?: boolean;
  state: SaveState;
  length: Asked;
  limit: number;
  onSettle: (text: string, over: Saved) => void;
  onLetGo: () => void;
  /** What can be done with the text besides writing it. */
  tools?: ReactNode;
  children: ReactNode;
}

export function TextShell({ id, label, heading = false, text, rich = false, state, length, limit, onSettle, onLetGo, tools, children }: Props) {
  const plain = () => (rich ? plainText(text) : text);
  return (
    <div className="rounded-md border-l-3 border-brass pl-3">
      {heading ? (
        <p aria-hidden className="font-bold">
          {label}
        </p>
      ) : (
        <label htmlFor={id} className="font-bold">
          {label}
        </label>
      )}
      {children}
      <div id={`${id}-state`} className="mt-1 flex flex-wrap items-center justify-between gap-x-4 gap-y-1 text-sm text-quiet">
        <Counted text={text} rich={rich} length={length} limit={limit} />
        <State state={state} />
      </div>
      {tools && <div className="mt-1 -ml-2 flex flex-wrap items-center gap-x-1">{tools}</div>}
      {state.at === "two" && <TwoTexts mine={text} theirs={state.theirs} rich={rich} onSettle={onSettle} />}
      {state.at === "refused" && <NotSaved title={state.problem.title} fix={state.problem.fix} text={plain()} />}
      {state.at === "left" && (
        <NotSaved title={TEXTS.leftBehind} fix={TEXTS.leftBehindFix} text={rich ? plainText(state.text) : state.text} shown onLetGo={onLetGo} />
      )}
    </div>
  );
}

function Counted({ text: now, rich, length, limit }: { text: string; rich: boolean; length: Asked; limit: number }) {
  // A long text is counted between two keys, not before each.
  const late = useDeferredValue(now);
  const text = useMemo(() => (rich ? plainText(late) : late), [late, rich]);
  const counts = useMemo(() => count(text), [text]);
  const asked = lengthWords(length);
  const words = length.measure === "sentences" ? TEXTS.sentencesOfAsked({ sentences: counts.sentences, asked }) : TEXTS.wordsOfAsked({ words: counts.words, asked });
  if (text.length > limit) {
    return (
      <span className="font-semibold text-overdue">
        {TEXTS.countCharactersLimitIsThe({ count: text.length, limit })}
      </span>
    );
  }
  return (
    <span className="figures inline-flex items-center gap-2">
      {asked && <Reached number={length.measure === "sentences" ? counts.sentences : counts.words} length={length} />}
      {asked ? words : COUNTED.words({ count: counts.words })}
    </span>
  );
}

/** How much of what is asked is there, as a bar that fills. */
function Reached({ number, length }: { number: number; length: Asked }) {
  const met = number >= length.least && (length.most === null || number <= length.most);
  return <progress aria-hidden max={length.least} value={Math.min(number, length.least)} className={`h-2 w-16 ${met ? "accent-accepted" : "accent-copper"}`} />;
}

function State({ state }: { state: SaveState }) {
  const line = "flex items-center gap-1.5";
  return (
    <span className={line}>
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
          <Cloud aria-hidden size={15} /> {state.merged ? TEXTS.merged : TEXTS.saved} {clock(state.when)}
        </>
      )}
      {/* Spoken is only what wants something of the writer: not every pause that was saved. */}
      <span role="status" className={line}>
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
    </span>
  );
}

function TwoTexts({ mine, theirs, rich, onSettle }: { mine: string; theirs: Saved; rich: boolean; onSettle: (text: string, over: Saved) => void }) {
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
            {rich ? <RichText html={one.text || `<p>${TEXTS.empty}</p>`} className="flex-1" /> : <p className="flex-1 break-words whitespace-pre-wrap">{one.text || TEXTS.empty}</p>}
            <Button big onClick={() => onSettle(one.text, theirs)}>
              {one.act}
            </Button>
          </div>
        ))}
      </div>
      <Button big look="quiet" onClick={() => onSettle(rich ? mine + theirs.text : `${mine}\n\n${theirs.text}`, theirs)}>
        {TEXTS.both}
      </Button>
    </section>
  );
}

interface NotSavedProps {
  title: string;
  fix: string;
  text: string;
  /** The text is not what the field shows. */
  shown?: boolean;
  onLetGo?: () => void;
}

function NotSaved({ title, fix, text, shown = false, onLetGo }: NotSavedProps) {
  const say = useSay();
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    say(TEXTS.copied);
  };
  return (
    <div className="mt-3">
      <Notice title={title} fix={fix}>
        {shown && <p className="mt-2 rounded-md bg-paper p-3 break-words whitespace-pre-wrap">{text}</p>}
        <div className="mt-2 flex flex-wrap gap-2">
          <Button icon={<Copy aria-hidden size={16} />} onClick={() => void copy()}>
            {TEXTS.copy}
          </Button>
          {onLetGo && (
            <Button look="quiet" onClick={onLetGo}>
              {TEXTS.letGo}
            </Button>
          )}
        </div>
      </Notice>
    </div>
  );
}
