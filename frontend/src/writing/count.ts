/** Words and sentences while typing, by the server's rule: a segment counts when it holds a letter or digit. */
const WORDS = new Intl.Segmenter("en", { granularity: "word" });
const SENTENCES = new Intl.Segmenter("en", { granularity: "sentence" });
const HAS_WORD = /[\p{L}\p{N}]/u;

function counted(segmenter: Intl.Segmenter, text: string): number {
  let number = 0;
  for (const { segment } of segmenter.segment(text)) if (HAS_WORD.test(segment)) number += 1;
  return number;
}

/** Words and sentences of a text. The server's count is the one that holds. */
export function count(text: string): { words: number; sentences: number } {
  return { words: counted(WORDS, text), sentences: counted(SENTENCES, text) };
}
