/** What is not on the server yet, kept in the browser's own database, by the account that typed it. */
import { createStore, del, entries, get, set } from "idb-keyval";

/** A text that was typed, the version it was typed over, and what that version said. */
export interface Draft {
  text: string;
  base: number;
  was?: string;
}

const store = createStore("coat-peg", "drafts");

function key(person: number, name: string): string {
  return `${person}/${name}`;
}

/** Keep a draft; a browser without a database goes on without one. */
export async function keepDraft(person: number, name: string, draft: Draft): Promise<void> {
  try {
    await set(key(person, name), draft, store);
  } catch {
    // Private windows may have no database: saving to the server still happens.
  }
}

/** The draft of this person, if there is one. */
export async function findDraft(person: number, name: string): Promise<Draft | undefined> {
  try {
    return await get<Draft>(key(person, name), store);
  } catch {
    return undefined;
  }
}

/** Every draft of this person, by name. */
export async function allDrafts(person: number): Promise<[string, Draft][]> {
  try {
    const mine = `${person}/`;
    const found = await entries<string, Draft>(store);
    return found.filter(([name]) => name.startsWith(mine)).map(([name, draft]) => [name.slice(mine.length), draft]);
  } catch {
    return [];
  }
}

/** Forget everything of this person on this device. */
export async function dropDrafts(person: number): Promise<void> {
  for (const [name] of await allDrafts(person)) await dropDraft(person, name);
}

/** Forget a draft: it is on the server, or the person let it go. */
export async function dropDraft(person: number, name: string): Promise<void> {
  try {
    await del(key(person, name), store);
  } catch {
    // Nothing was kept.
  }
}
