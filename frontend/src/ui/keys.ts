/** Keys of one letter: each can be turned off for good (WCAG 2.2, 2.1.4), and none is heard while somebody types. */
import { useReading } from "./reading/reading";

/** Whether keys of one letter do something for this person. */
export function useLetterKeys(): boolean {
  return useReading().keys;
}

/** Whether a key belongs to what has the focus: a field, or a dialog over the page. */
export function isTyped(event: KeyboardEvent): boolean {
  const at = event.target;
  const field = at instanceof HTMLElement && (at.isContentEditable || at.closest("input, textarea, select, [contenteditable]") !== null);
  return field || event.ctrlKey || event.metaKey || event.altKey || document.querySelector("[role=dialog]") !== null;
}
