/** The words of what changed from one submission to the next. */
import { catalogue, message } from "../language/catalogue";

export const CHANGES = catalogue("pile.changes", {
  title: message<{ since: number }>("Changed since submission {since, number}"),
  nothing: message<{ since: number }>("Nothing has changed since submission {since, number}"),
  words: message<{ piece: string; new_words: number; gone_words: number }>("{piece} {new_words, plural, =0 {no new words} one {# new word} other {# new words}}, {gone_words, plural, =0 {none gone} other {# gone}}"),
  newPiece: message<{ piece: string }>("{piece} is new"),
  gonePiece: message<{ piece: string }>("{piece} is gone"),
  replaced: message<{ piece: string }>("{piece} is another file now"),
  row: "a row has changed",
  newRow: "a row is new",
  goneRow: "a row is gone",
});
