/** The words of writing. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("writing", {
  back: "What you typed here before is back.",
  backOverOlder: "What you typed here before is back. It was changed by somebody else meanwhile: look through it before you save.",
  merged: "Put together with what was written elsewhere",
  history: "History",
  saved: "Saved",
  saving: "Saving …",
  typing: "Not saved yet",
  away: "Kept on this device; goes up by itself",
  keepMine: "Keep mine",
  takeOther: "Take the other",
  both: "Put both together",
  mine: "Your text on this device",
  theirs: "The text that was saved elsewhere",
  twoTexts: "This text was changed in two places",
  twoHint: "Nothing is lost: choose one, or put them together and tidy up.",
  copy: "Copy my text",
  copied: "Copied.",
  leftBehind: "What you typed last was not saved before the pocket was locked.",
  leftBehindFix: "Copy it from here if you need it. What was handed in is what stands above.",
  letGo: "Let it go",
  theTextCouldNotBe: "The text could not be saved.",
  countCharactersLimitIsThe: message<{ count: number; limit: number }>("{count, number} characters; {limit, number} is the most"),
  empty: "(empty)",
  cancel: "Cancel",
  sentencesOfAsked: message<{ sentences: number; asked: string }>("{sentences, number} of {asked}"),
  wordsOfAsked: message<{ words: number; asked: string }>("{words, number} of {asked}"),
});

/** The history of a text. */
export const HISTORY = catalogue("writing.history", {
  title: "History of this text",
  none: "Nothing has been written yet.",
  revisions: "How it stood",
  me: "You",
  now: "as it is now",
  compare: "Show what changed since",
  nothing: "(nothing to compare with)",
  empty: "(empty)",
  back: "Bring this one back",
});
