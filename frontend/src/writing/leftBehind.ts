/** Texts that an earlier page typed and never got to the server: a crash, a closed lid, a lost connection. */
import { connection, onConnection } from "../api/connection";
import { Problem } from "../api/problem";
import { isOpen } from "./autosave";
import { allDrafts, dropDraft } from "./drafts";
import { saverOf } from "./saving";

/** Send what can be sent without asking; returns how many were. What two devices wrote, or what was locked, waits for its field. */
export async function sendLeftBehind(person: number): Promise<number> {
  let sent = 0;
  for (const [name, draft] of await allDrafts(person)) {
    const save = isOpen(name) ? null : saverOf(name);
    if (!save) continue;
    try {
      await save(draft.text, draft.base, draft.was ?? "");
      await dropDraft(person, name);
      sent += 1;
    } catch (error) {
      if (error instanceof Problem && error.away) return sent;
    }
  }
  return sent;
}

/** Do so now and whenever the connection is back; returns how to stop. */
export function watchLeftBehind(person: number, onSent: (number: number) => void): () => void {
  const go = () => {
    if (connection() === "there") void sendLeftBehind(person).then((number) => number > 0 && onSent(number));
  };
  go();
  return onConnection(go);
}
