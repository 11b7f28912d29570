/** What is typed into a form is kept in the browser, under the account that typed it, until it is saved or let go. */
import { useCallback, useEffect, useRef, useState } from "react";
import { usePersonId } from "../api/session";
import { dropDraft, findDraft, keepDraft } from "./drafts";

/**
 * Keep ``value`` while it is ``changed``, with the version it was typed over; bring it back where an earlier page left it.
 * Returns how to let it go, once it is saved.
 */
export function useDraft<T>(name: string, value: T, base: number, changed: boolean, restore: (value: T, base: number) => void): () => void {
  const person = usePersonId();
  const text = JSON.stringify(value);
  // Nothing is kept or let go before an earlier draft was looked for; what was typed until then is kept from then on.
  const [looked, setLooked] = useState(false);
  const bringBack = useRef(restore);
  useEffect(() => {
    bringBack.current = restore;
  }, [restore]);
  useEffect(() => {
    let over = false;
    void findDraft(person, name).then((draft) => {
      if (over) return;
      setLooked(true);
      if (draft) bringBack.current(JSON.parse(draft.text) as T, draft.base);
    });
    return () => {
      over = true;
    };
  }, [person, name]);
  useEffect(() => {
    if (!looked) return;
    if (changed) void keepDraft(person, name, { text, base });
    else void dropDraft(person, name);
  }, [person, name, text, base, changed, looked]);
  return useCallback(() => void dropDraft(person, name), [person, name]);
}

/** What an earlier page left, with what was typed here before it was found: a field typed in just now stands. */
export function together<T extends object>(kept: T, now: T, fresh: Partial<T>): T {
  const typed = Object.entries(now).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(fresh[key as keyof T]));
  return { ...kept, ...Object.fromEntries(typed) };
}
