/** Words and sentences while typing, by the server's rule: a segment counts when it holds a letter or digit. */
const WORDS = new Intl.Segmenter("en", { granularity: "word" });
const SENTENCES = new Intl.Segmenter("en", { granularity: "sentence" });
const HAS_WORD = /[\p{L}\p{N}]/u;

interface Counts {
  words: number;
  sentences: number;
}

let lines = new Map<string, Counts>();
/** The lines of the text that was counted last: a key changes one of them. */

function counted(segmenter: Intl.Segmenter, text: string): number {
  let number = 0;
  for (const { segment } of segmenter.segment(text)) if (HAS_WORD.test(segment)) number += 1;
  return number;
}

/**
 * Words and sentences of a text. The server's count is the one that holds.
 *
 * Counted line by line: neither a word nor a sentence reaches over the end of a line (Unicode Standard Annex 29, WB3a and SB4).
 */
export function count(text: string): Counts {
  const known = new Map<string, Counts>();
  const all = { words: 0, sentences: 0 };
  for (const line of text.split("\n")) {
    const own = known.get(line) ?? lines.get(line) ?? { words: counted(WORDS, line), sentences: counted(SENTENCES, line) };
    known.set(line, own);
    all.words += own.words;
    all.sentences += own.sentences;
  }
  lines = known;
  return all;
}
