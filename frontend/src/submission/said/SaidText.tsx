/** Words of a submission: what is said on them is marked, and words that are chosen can be commented on. */
import { Highlighter, MessageSquare, PenLine } from "lucide-react";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import type { ReactNode } from "react";
import { isTyped, useLetterKeys } from "../../ui/keys";
import { newKey } from "../../ui/newKey";
import type { Schema } from "../../api/client";
import { begin, surfaceOf, useSaying } from "./said";
import type { Annotation, Said, Target } from "./said";
import { SAID } from "./saidTexts";
import { chosenIn, rangeOf } from "./wordsIn";

/** The looks of marked words; a sheet of its own, since the build knows nothing of this pseudo-element. */
const LOOKS = `
::highlight(said-comment) { background-color: var(--color-today); color: var(--color-ink); text-decoration: underline 2px var(--color-copper); }
::highlight(said-rust) { background-color: var(--color-tint-0); color: var(--color-tint-0-ink); text-decoration: underline 3px; }
::highlight(said-sea) { background-color: var(--color-tint-1); color: var(--color-tint-1-ink); text-decoration: underline 3px; }
::highlight(said-plum) { background-color: var(--color-tint-6); color: var(--color-tint-6-ink); text-decoration: underline 3px; }
::highlight(said-active) { background-color: var(--color-ink); color: var(--color-paper); }
`;
const sheet = new CSSStyleSheet();
sheet.replaceSync(LOOKS);
document.adoptedStyleSheets.push(sheet);

interface Props {
  said: Said;
  target: Target;
  children: ReactNode;
}

interface Chosen {
  quote: Schema["QuoteShape"];
  /** Where the choice of what to do stands, within what it lies in. */
  top: number;
  left: number;
}

export function SaidText({ said, target, children }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const here = said.list.filter((one) => one.target.words && surfaceOf(one.target) === surfaceOf(target));
  useMarks(box, here, said);
  const { writes } = said;
  useEffect(() => {
    if (!writes) return;
    const look = () => {
      const element = box.current;
      const quote = element && chosenIn(element);
      if (!quote) return setChosen(null);
      const at = document.getSelection()?.getRangeAt(0).getBoundingClientRect();
      const within = element.getBoundingClientRect();
      setChosen({ quote, top: (at?.bottom ?? 0) - within.top + 4, left: Math.min(Math.max((at?.left ?? 0) - within.left, 0), Math.max(within.width - 330, 0)) });
    };
    document.addEventListener("selectionchange", look);
    return () => document.removeEventListener("selectionchange", look);
  }, [writes]);
  return (
    <div className="relative">
      <div ref={box} data-words onClick={(event) => pressed(event.clientX, event.clientY, box.current, here, said)} role="presentation">
        {children}
      </div>
      {chosen && <Choice said={said} target={{ ...target, words: chosen.quote }} chosen={chosen} onDone={() => document.getSelection()?.removeAllRanges()} />}
    </div>
  );
}

/** A press on marked words opens what is said on them. */
function pressed(x: number, y: number, element: Element | null, here: Annotation[], said: Said): void {
  if (!element || document.getSelection()?.isCollapsed === false) return;
  const found = here.find((one) => {
    const range = one.target.words && rangeOf(element, one.target.words);
    return range && [...range.getClientRects()].some((at) => x >= at.left && x <= at.right && y >= at.top && y <= at.bottom);
  });
  if (found) said.choose(found.id);
}

/** By what an annotation marks its words. */
function markOf(one: Annotation, active: number | null): string {
  if (one.id === active) return "said-active";
  return one.kind === "highlight" ? `said-${one.colour || "rust"}` : "said-comment";
}

function useMarks(box: React.RefObject<HTMLDivElement | null>, here: Annotation[], said: Said): void {
  const words = said.composing?.target;
  const shown = JSON.stringify([here.map((one) => [markOf(one, said.active), one.target.words]), words?.words ?? null]);
  useEffect(() => {
    const element = box.current;
    const registry = (CSS as { highlights?: HighlightRegistry }).highlights;
    if (!element || !registry) return;
    const [marks, composing] = JSON.parse(shown) as [[string, Schema["QuoteShape"]][], Schema["QuoteShape"] | null];
    const made: [string, Range][] = [];
    for (const [name, quote] of composing ? [...marks, ["said-active", composing] as [string, Schema["QuoteShape"]]] : marks) {
      const range = rangeOf(element, quote);
      if (!range) continue;
      const kept = registry.get(name) ?? new Highlight();
      kept.add(range);
      registry.set(name, kept);
      made.push([name, range]);
    }
    return () => made.forEach(([name, range]) => registry.get(name)?.delete(range));
  }, [box, shown]);
}

function Choice({ said, target, chosen, onDone }: { said: Said; target: Target; chosen: Chosen; onDone: () => void }) {
  const { keep } = useSaying(said.groupId, said.submission);
  const letters = useLetterKeys();
  const { compose, colour } = said;
  const start = (kind: "comment" | "suggestion") => {
    compose(begin(target, { kind, wording: kind === "suggestion" ? chosen.quote.exact : "" }));
    onDone();
  };
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== "c" || !letters || isTyped(event)) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      compose(begin(target));
      document.getSelection()?.removeAllRanges();
    };
    document.addEventListener("keydown", listen, true);
    return () => document.removeEventListener("keydown", listen, true);
  }, [letters, compose, target]);
  const highlight = () => {
    void keep(newKey(), { kind: "highlight", target, text: "", wording: null, strokes: [], colour, criterion: "", version: 0 });
    onDone();
  };
  const look = "flex min-h-8 items-center gap-1.5 rounded-sm px-2 text-sm font-semibold hover:bg-ground";
  return (
    <div role="toolbar" aria-label={SAID.comment} style={{ top: chosen.top, left: chosen.left }} className="absolute z-20 flex rounded-md border border-control bg-paper p-0.5 whitespace-nowrap shadow-lg">
      <button type="button" className={look} onMouseDown={(event) => event.preventDefault()} onClick={() => start("comment")}>
        <MessageSquare aria-hidden size={15} />
        {SAID.commentHere}
      </button>
      <button type="button" className={look} onMouseDown={(event) => event.preventDefault()} onClick={highlight}>
        <Highlighter aria-hidden size={15} />
        {SAID.highlight}
      </button>
      <button type="button" className={look} onMouseDown={(event) => event.preventDefault()} onClick={() => start("suggestion")}>
        <PenLine aria-hidden size={15} />
        {SAID.suggest}
      </button>
    </div>
  );
}
