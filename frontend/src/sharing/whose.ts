/** Whose words stand where: the authors of each passage, and the places in the editor that are a person's. */
import type { Node as PMNode, Schema as PMSchema } from "@tiptap/pm/model";
import type { Schema } from "../api/client";
import { count } from "../writing/count";
import { ContentEmbed, ContentString, ContentType, XmlElement, XmlText } from "yjs";
import type { Item, XmlFragment } from "yjs";

/** Ticks from–to of a writer id, by a person, at a time. */
export interface Span {
  start: number;
  end: number;
  person: number;
  at: number;
}

/** Words of one person from–to in the editor. ``at`` 0: not sent yet. */
export interface Piece {
  from: number;
  to: number;
  person: number;
  at: number;
}

/** Who wrote ticks of a writer id. */
export class Authors {
  private readonly spans = new Map<number, Span[]>();

  /** ``mine`` is this device's writer id, ``me`` who writes under it: what it wrote and nobody told of yet. */
  constructor(
    private readonly mine: number | null,
    private readonly me: number,
  ) {}

  readonly add = (told: Omit<Schema["SharedUpdateShape"], "data">): void => {
    this.put(told.client, { start: told.start, end: told.end, person: told.person, at: Date.parse(told.at) });
  };

  private put(client: number, span: Span): void {
    if (span.end <= span.start) return;
    const kept = this.spans.get(client) ?? [];
    // Nearly always it is the newest.
    const at = (kept.at(-1)?.start ?? -1) < span.start ? -1 : kept.findIndex((one) => one.start >= span.start);
    if (at >= 0 && kept[at]?.start === span.start) kept[at] = span;
    else kept.splice(at < 0 ? kept.length : at, 0, span);
    this.spans.set(client, kept);
  }

  /** Many at once: five numbers each, as the server tells them. */
  addAll(numbers: number[]): void {
    for (let at = 0; at + 4 < numbers.length; at += 5) {
      const [client = 0, start = 0, end = 0, person = 0, seconds = 0] = numbers.slice(at, at + 5);
      this.put(client, { start, end, person, at: seconds * 1000 });
    }
  }

  /** The authors of ticks, cut where they change: how many ticks each. */
  of(client: number, clock: number, length: number): { person: number; at: number; length: number }[] {
    const found = [];
    let at = clock;
    for (const span of this.spans.get(client) ?? []) {
      if (at >= clock + length) break;
      if (span.end <= at) continue;
      if (span.start > at) {
        found.push({ ...this.unknown(client), length: Math.min(span.start, clock + length) - at });
        at = span.start;
        if (at >= clock + length) break;
      }
      const until = Math.min(span.end, clock + length);
      found.push({ person: span.person, at: span.at, length: until - at });
      at = until;
    }
    if (at < clock + length) found.push({ ...this.unknown(client), length: clock + length - at });
    return found;
  }

  private unknown(client: number): { person: number; at: number } {
    return { person: client === this.mine ? this.me : 0, at: 0 };
  }
}

/** The pieces of each passage, in order. Empty while the editor and the page do not stand alike. */
export function passages(fragment: XmlFragment, doc: PMNode, authors: Authors): Piece[][] {
  const elements = fragment.toArray().filter((one): one is XmlElement => one instanceof XmlElement);
  if (elements.length !== doc.childCount) return [];
  let at = 0;
  return elements.map((one, place) => {
    const pieces: Piece[] = [];
    walk(one, at + 1, doc.type.schema, authors, pieces);
    at += doc.child(place).nodeSize;
    return pieces;
  });
}

/** Go through an element from a place in the editor; returns the place behind what it holds. */
function walk(element: XmlElement | XmlText, from: number, schema: PMSchema, authors: Authors, pieces: Piece[]): number {
  let at = from;
  for (let item: Item | null = element._start; item; item = item.right) {
    if (item.deleted) continue;
    at = step(item, at, schema, authors, pieces);
  }
  return at;
}

function step(item: Item, at: number, schema: PMSchema, authors: Authors, pieces: Piece[]): number {
  const { content } = item;
  if (content instanceof ContentString) {
    let from = at;
    for (const one of authors.of(item.id.client, item.id.clock, content.str.length)) {
      add(pieces, { from, to: from + one.length, person: one.person, at: one.at });
      from += one.length;
    }
    return from;
  }
  if (content instanceof ContentEmbed) return at + 1;
  if (!(content instanceof ContentType)) return at;
  const { type } = content;
  if (type instanceof XmlText) return walk(type, at, schema, authors, pieces);
  if (!(type instanceof XmlElement)) return at;
  return schema.nodes[type.nodeName]?.isLeaf ? at + 1 : walk(type, at + 1, schema, authors, pieces) + 1;
}

function add(pieces: Piece[], piece: Piece): void {
  const last = pieces.at(-1);
  if (last && last.to === piece.from && last.person === piece.person && last.at === piece.at) last.to = piece.to;
  else pieces.push(piece);
}

/** How many words each wrote of what stands there, by person. */
export function wordsOf(found: Piece[][], doc: PMNode): Map<number, number> {
  const texts = new Map<number, string>();
  for (const pieces of found) {
    let before = 0;
    for (const { from, to, person } of pieces) {
      const text = texts.get(person) ?? "";
      if (person > 0) texts.set(person, text + (before === person ? "" : "\n") + doc.textBetween(from, to, "\n", "\n"));
      before = person;
    }
  }
  return new Map([...texts].map(([person, text]) => [person, count(text).words]));
}

/** Who wrote in a passage, in the order of their words, each with when they last did. 0: just now. */
export function writersOf(pieces: Piece[]): { person: number; at: number }[] {
  const found = new Map<number, number>();
  for (const { person, at } of pieces) {
    if (person <= 0) continue;
    const before = found.get(person);
    found.set(person, before === 0 || at === 0 ? 0 : Math.max(before ?? at, at));
  }
  return [...found].map(([person, at]) => ({ person, at }));
}
