/** The words of the chips. */
import { catalogue, message } from "../language/catalogue";

export const WANTED = catalogue("ui.wanted", {
  artefacts: message<{ done: number; wanted: number }>("{done, number} of {wanted, plural, one {# artefact} other {# artefacts}}"),
  /** The same in a student's words. */
  things: message<{ done: number; wanted: number }>("{done, number} of {wanted, plural, one {# thing} other {# things}}"),
  links: message<{ done: number; wanted: number }>("{done, number} of {wanted, plural, one {# link} other {# links}}"),
  reflection: "reflection",
  sentencesAtLeast: message<{ least: number }>("at least {least, plural, one {# sentence} other {# sentences}}"),
  wordsAtLeast: message<{ least: number }>("at least {least, plural, one {# word} other {# words}}"),
  sentencesFromTo: message<{ least: number; most: number }>("{least, number}–{most, number} sentences"),
  wordsFromTo: message<{ least: number; most: number }>("{least, number}–{most, number} words"),
  withLength: message<{ what: string; length: string }>("{what} · {length}"),
  sentencesOf: message<{ what: string; count: number; length: string }>("{what} · {count, plural, one {# sentence} other {# sentences}} of {length}"),
  wordsOf: message<{ what: string; count: number; length: string }>("{what} · {count, plural, one {# word} other {# words}} of {length}"),
  countOfSentences: message<{ what: string; count: number; least: number }>("{what} · {count, number} of {least, plural, one {# sentence} other {# sentences}}"),
  countOfWords: message<{ what: string; count: number; least: number }>("{what} · {count, number} of {least, plural, one {# word} other {# words}}"),
});
