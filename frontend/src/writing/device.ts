/** A name for this browser, so that a person's own drafts are told apart by where they were typed. It says nothing of anybody. */
import { newKey } from "../ui/newKey";

const NAME = "coat-peg-device";
let unkept = "";

export function thisDevice(): string {
  try {
    const kept = localStorage.getItem(NAME);
    if (kept) return kept;
    const made = newKey();
    localStorage.setItem(NAME, made);
    return made;
  } catch {
    // A browser that keeps nothing is another one each time it is opened.
    return (unkept ||= newKey());
  }
}
