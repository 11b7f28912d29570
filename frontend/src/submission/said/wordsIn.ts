/** Quoted words in what is shown: found whatever blanks and line breaks the page has made of it. */
import type { Schema } from "../../api/client";

type Quote = Schema["QuoteShape"];

const AROUND = 40;
/** Characters of what stands before and after that are sent along. */

/** The text below an element without blanks, and where each character of it stands. */
function bare(element: Element): { signs: string; places: [Text, number][] } {
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const places: [Text, number][] = [];
  let signs = "";
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
    for (let at = 0; at < node.data.length; at++) {
      const sign = node.data.charAt(at);
      if (/\s/u.test(sign)) continue;
      signs += sign;
      places.push([node, at]);
    }
  }
  return { signs, places };
}

const tight = (text: string) => text.replace(/\s+/gu, "");

function same(one: string, other: string): number {
  let count = 0;
  while (count < one.length && one[count] === other[count]) count++;
  return count;
}

const reversed = (text: string) => Array.from(text).toReversed().join("");

/** Where quoted words stand below an element; null where they do not. */
export function rangeOf(element: Element, quote: Quote): Range | null {
  const { signs, places } = bare(element);
  const wanted = tight(quote.exact);
  const [before, after] = [tight(quote.prefix), tight(quote.suffix)];
  let best: { at: number; alike: number } | null = null;
  for (let at = wanted ? signs.indexOf(wanted) : -1; at >= 0; at = signs.indexOf(wanted, at + 1)) {
    const alike = same(reversed(signs.slice(Math.max(0, at - before.length), at)), reversed(before)) + same(signs.slice(at + wanted.length, at + wanted.length + after.length), after);
    if (!best || alike > best.alike) best = { at, alike };
  }
  const first = best && places[best.at];
  const last = best && places[best.at + wanted.length - 1];
  if (!first || !last) return null;
  const range = document.createRange();
  range.setStart(...first);
  range.setEnd(last[0], last[1] + 1);
  return range;
}

/** What is chosen below an element, as it is sent; null where nothing is. */
export function chosenIn(element: Element): Quote | null {
  const selection = document.getSelection();
  if (!selection || selection.rangeCount === 0 || selection.isCollapsed) return null;
  const range = selection.getRangeAt(0);
  if (!element.contains(range.commonAncestorContainer)) return null;
  const exact = selection.toString().trim();
  if (!exact) return null;
  const around = (from: [Node, number], to: [Node, number]) => {
    const part = document.createRange();
    part.setStart(...from);
    part.setEnd(...to);
    return part.toString();
  };
  const prefix = around([element, 0], [range.startContainer, range.startOffset]).slice(-AROUND);
  const suffix = around([range.endContainer, range.endOffset], [element, element.childNodes.length]).slice(0, AROUND);
  return { exact, prefix, suffix, start: 0, end: 0 };
}
