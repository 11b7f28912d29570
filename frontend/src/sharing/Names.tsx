/** The names beside each passage, in the margin: who wrote in it and when; where somebody writes now, their peg picture. */
import type { Editor } from "@tiptap/react";
import { MoreHorizontal } from "lucide-react";
import { useLayoutEffect, useState } from "react";
import { clock, localDay, shortDay, today } from "../ui/dates";
import { Actions } from "../ui/menus";
import { PegPicture } from "../ui/people/PegPicture";
import type { Writer } from "./session";
import { TEXTS } from "./texts";
import { writersOf } from "./whose";
import type { Piece } from "./whose";

const MOST = 3;
/** Names beside one passage. */

interface Props {
  editor: Editor;
  passages: Piece[][];
  people: Writer[];
  /** Who wrote a moment ago. */
  now: number[];
  /** What can be done with a passage. */
  act: PassageAct | null;
}

export interface PassageAct {
  name: string;
  run: (place: number, words: string) => void;
}

export function Names({ editor, passages, people, now, act }: Props) {
  const newest = newestOf(passages);
  const tops = useTops(editor, passages);
  if (passages.every((pieces) => writersOf(pieces).length === 0)) return null;
  const named = new Map(people.map((one) => [one.person, one]));
  return (
    <div className="pointer-events-none absolute inset-0" role="list" aria-label={TEXTS.besideEach}>
      {passages.map((pieces, place) => {
        const writers = writersOf(pieces).slice(0, MOST);
        const top = tops[place];
        if (writers.length === 0 || top === undefined) return null;
        return (
          <div key={place} role="listitem" style={{ top }} className="absolute right-2 flex w-34 items-start gap-1 @max-xl:left-4 @max-xl:right-4 @max-xl:w-auto">
            <div className="min-w-0 flex-1 text-xs leading-4 @max-xl:flex @max-xl:gap-3">
              <span className="sr-only" data-theirs="">{TEXTS.beside({ begins: beginning(editor, place) })}</span>
              {writers.map(({ person, at }) => (
                <Name key={person} writer={named.get(person)} at={at} now={at === 0 || (now.includes(person) && newest.get(person) === at)} />
              ))}
            </div>
            {act && <Acts name={act.name} names={writers.map(({ person }) => named.get(person)?.name ?? TEXTS.somebody).join(", ")} act={() => act.run(place, wordsAt(editor, place))} />}
          </div>
        );
      })}
    </div>
  );
}

function wordsAt(editor: Editor, place: number): string {
  const passage = editor.state.doc.child(place);
  return passage.textBetween(0, passage.content.size, " ", " ");
}

const BEGINNING = 40;
/** Letters of a passage by which it is named. */

function beginning(editor: Editor, place: number): string {
  if (editor.isDestroyed || place >= editor.state.doc.childCount) return "";
  return editor.state.doc.child(place).textContent.slice(0, BEGINNING);
}

/** When each wrote last, over all passages. */
function newestOf(passages: Piece[][]): Map<number, number> {
  const found = new Map<number, number>();
  for (const { person, at } of passages.flat()) found.set(person, Math.max(at, found.get(person) ?? at));
  return found;
}

function Name({ writer, at, now }: { writer: Writer | undefined; at: number; now: boolean }) {
  return (
    <p className={`flex min-w-0 items-center gap-1 ${now ? "font-bold text-copper" : "text-quiet"}`}>
      {now && writer && <PegPicture picture={writer.picture} tint={writer.tint} size={16} />}
      <span className="truncate">{TEXTS.label({ name: writer?.name ?? TEXTS.somebody, when: now ? TEXTS.now : whenOf(at) })}</span>
    </p>
  );
}

function whenOf(at: number): string {
  const moment = new Date(at).toISOString();
  return localDay(moment) === today() ? clock(moment) : shortDay(localDay(moment));
}

function Acts({ name, names, act }: { name: string; names: string; act: () => void }) {
  return (
    <Actions
      face={{ label: TEXTS.passageOf({ names }), className: "pointer-events-auto -mt-1 flex size-7 shrink-0 pointer-coarse:-mt-3 pointer-coarse:size-11 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink", content: <MoreHorizontal aria-hidden size={16} /> }}
      anchor="bottom end"
      className="py-1"
      items={[
        <button key="away" type="button" onClick={act} className="block min-h-9 w-full px-4 py-1.5 text-left data-focus:bg-today">
          {name}
        </button>,
      ]}
    />
  );
}

/** Where each passage begins, in pixels from the top of the editor. */
function useTops(editor: Editor, passages: Piece[][]): (number | undefined)[] {
  const [tops, setTops] = useState<(number | undefined)[]>([]);
  useLayoutEffect(() => {
    if (editor.isDestroyed) return;
    const text = editor.view.dom;
    const measure = () => {
      const now = [...text.children].map((one) => (one instanceof HTMLElement ? one.offsetTop : undefined));
      setTops((before) => (before.length === now.length && before.every((one, at) => one === now[at]) ? before : now));
    };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(text);
    for (const one of text.children) watch.observe(one);
    return () => watch.disconnect();
  }, [editor, passages]);
  return tops;
}
