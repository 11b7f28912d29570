/** Files on their way up: kept in the browser's own database until the server has them, by the account that chose them. */
import { createStore, del, entries, set } from "idb-keyval";
import { useSyncExternalStore } from "react";
import { DetailedError, Upload } from "tus-js-client";
import { client, csrfToken, data } from "../api/client";
import { connection, onConnection, setConnection } from "../api/connection";
import { Problem, problemOf } from "../api/problem";
import { newKey } from "../ui/newKey";

const AGAIN = 3000;
/** Milliseconds between tries while the server is away. */
const AT_ONCE = 1;
/** Files that go up side by side. One after the other they lie in the pocket in the order in which they were chosen. */

/** What a file is to become. */
export interface Wish {
  group: number;
  portfolio: number;
  pocket: number;
  file: Blob;
  name: string;
  turn?: number;
  crop?: string;
  batch?: string;
  place?: number;
  places?: number;
  spoken?: boolean;
  evidence?: number;
  /** The evidence whose artefact it is a newer form of. */
  replaces?: number;
}

interface Kept extends Wish {
  id: string;
  person: number;
  at: number;
  /** Where it goes on, once it has begun. */
  address: string | null;
}

/** A file on its way as a list shows it; ``share`` from 0 to 1. */
export interface Entry {
  id: string;
  wish: Wish;
  share: number;
  problem: Problem | null;
  /** It is in the browser's own database too. */
  safe: boolean;
}

const store = createStore("coat-peg-files", "queue");
const waiting = new Map<string, Kept>();
const running = new Set<string>();
let shown: Entry[] = [];
const listeners = new Set<() => void>();
const finished = new Set<(wish: Wish, note: string) => void>();

function show(change: (all: Entry[]) => Entry[]): void {
  shown = change(shown);
  listeners.forEach((listener) => listener());
}

function patch(id: string, change: Partial<Entry>): void {
  show((all) => all.map((one) => (one.id === id ? { ...one, ...change } : one)));
}

function key(one: Kept): string {
  return `${one.person}/${one.id}`;
}

async function keep(one: Kept): Promise<boolean> {
  try {
    await set(key(one), one, store);
    return true;
  } catch {
    return false; // a private window, or no room: it goes up all the same while this page is open
  }
}

async function forget(one: Kept): Promise<void> {
  waiting.delete(one.id);
  show((all) => all.filter((entry) => entry.id !== one.id));
  try {
    await del(key(one), store);
  } catch {
    // Nothing was kept.
  }
}

/** Files of this person that go up from now on. */
export function send(person: number, wishes: Wish[]): void {
  for (const wish of wishes) {
    const one: Kept = { ...wish, id: newKey(), person, at: Date.now(), address: null };
    add(one, false);
    void keep(one).then((safe) => patch(one.id, { safe }));
  }
  next();
}

function add(one: Kept, safe: boolean): void {
  waiting.set(one.id, one);
  show((all) => [...all, { id: one.id, wish: one, share: 0, problem: null, safe }]);
}

/** Go on with what this person's earlier pages left behind; what is somebody else's waits for them. */
export async function resume(person: number): Promise<void> {
  for (const one of [...waiting.values()]) if (one.person !== person) waiting.delete(one.id);
  show((all) => all.filter((one) => waiting.has(one.id)));
  let found: [string, Kept][] = [];
  try {
    found = await entries<string, Kept>(store);
  } catch {
    return;
  }
  for (const one of found.map(([, kept]) => kept).sort((a, b) => a.at - b.at)) {
    if (one.person === person && !waiting.has(one.id)) add(one, true);
  }
  next();
}

/** Try one again that was refused. */
export function again(id: string): void {
  const one = waiting.get(id);
  if (!one) return;
  one.address = null;
  patch(id, { problem: null, share: 0 });
  next();
}

/** Let one go. */
export function drop(id: string): void {
  const one = waiting.get(id);
  if (one) void forget(one);
}

function next(): void {
  for (const one of [...waiting.values()].sort((a, b) => a.at - b.at)) {
    if (running.size >= AT_ONCE) return;
    const entry = shown.find((each) => each.id === one.id);
    if (!running.has(one.id) && entry && !entry.problem) void run(one);
  }
}

async function run(one: Kept): Promise<void> {
  running.add(one.id);
  try {
    await bytes(one);
    await settled(one);
  } catch (error) {
    const problem = error instanceof Problem ? error : new Problem({ title: "The file could not be sent." }, 500);
    if (!waiting.has(one.id)) return;
    if (problem.away || problem.status === 401 || problem.status === 423 || problem.status === 409) later();
    else patch(one.id, { problem });
  } finally {
    running.delete(one.id);
    setTimeout(next, 0);
  }
}

let timer: ReturnType<typeof setTimeout> | undefined;
let blocked = false;

/** Everything rests for a moment, and then goes on where it was. */
function later(): void {
  blocked = true;
  clearTimeout(timer);
  timer = setTimeout(() => {
    blocked = false;
    next();
  }, AGAIN);
}

onConnection(() => {
  if (connection() === "there" && blocked) {
    clearTimeout(timer);
    blocked = false;
    next();
  }
});

/** Send the bytes that are not there yet, by the tus protocol. */
async function bytes(one: Kept): Promise<void> {
  if (blocked) throw new Problem({ title: "Waiting for the connection." }, 0);
  await new Promise<void>((resolve, reject) => {
    const upload = new Upload(one.file, {
      endpoint: "/api/uploads",
      uploadUrl: one.address,
      retryDelays: null,
      storeFingerprintForResuming: false,
      metadata: metadata(one),
      onBeforeRequest: (request) => request.setHeader("X-CSRFToken", csrfToken()),
      onUploadUrlAvailable: () => {
        if (one.address === upload.url) return;
        one.address = upload.url;
        if (waiting.has(one.id)) void keep(one);
      },
      onProgress: (sent, total) => {
        patch(one.id, { share: total ? sent / total : 0 });
        if (!waiting.has(one.id)) void upload.abort(true).then(() => reject(new Problem({ title: "Let go." }, 500)));
      },
      onSuccess: () => {
        setConnection("there");
        resolve();
      },
      onError: (error) => {
        const answer = error instanceof DetailedError ? error.originalResponse : null;
        reject(answer ? problemOf(parsed(answer.getBody()), answer.getStatus()) : lost());
      },
    });
    upload.start();
  });
}

function lost(): Problem {
  setConnection("away");
  return new Problem({ title: "The connection was lost." }, 0);
}

function parsed(body: string): unknown {
  try {
    return JSON.parse(body);
  } catch {
    return null;
  }
}

function metadata(one: Kept): Record<string, string> {
  const all: Record<string, string | number | undefined> = {
    portfolio: one.portfolio,
    pocket: one.pocket,
    name: one.name,
    turn: one.turn,
    crop: one.crop,
    batch: one.batch,
    place: one.place,
    places: one.places,
    evidence: one.evidence,
    replaces: one.replaces,
    spoken: one.spoken ? 1 : undefined,
  };
  return Object.fromEntries(Object.entries(all).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])));
}

/** The bytes are there: hear what became of them, and make it so where the server ended just then. */
async function settled(one: Kept): Promise<void> {
  const name = one.address?.split("/").pop() ?? "";
  const told = await data(client.POST("/api/uploads/{key}/settle", { params: { path: { key: name } } }));
  await forget(one);
  finished.forEach((hear) => hear(one, told.note));
}

/** Be told of each file that has arrived; returns how to stop. */
export function onArrived(hear: (wish: Wish, note: string) => void): () => void {
  finished.add(hear);
  return () => finished.delete(hear);
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Everything on its way. */
export function useQueue(): Entry[] {
  return useSyncExternalStore(subscribe, () => shown);
}
