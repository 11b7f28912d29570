/**
 * Files on their way up: kept in the browser's own database until the server has them, by the account that chose them.
 * Of several tabs one leads, by a lock that the browser gives: it sends what is kept, the others show it and hand theirs over.
 * What a browser keeps nowhere (a private window) is sent by the tab that has it.
 */
import { createStore, del, entries, set } from "idb-keyval";
import { useSyncExternalStore } from "react";
import { DetailedError, Upload } from "tus-js-client";
import { client, csrfToken, data } from "../api/client";
import { connection, onConnection, setConnection } from "../api/connection";
import { Problem, problemOf } from "../api/problem";
import { newKey } from "../ui/newKey";
import { TEXTS } from "./texts";

const AGAIN = 3000;
/** Milliseconds between tries while the server is away. */
const AT_ONCE = 1;
/** Files that go up side by side. One after the other they lie in the pocket in the order in which they were chosen. */

const MEGABYTE = 1024 * 1024;
const PART = 2 * MEGABYTE;
const LARGE = 64 * MEGABYTE;
const LARGE_PART = 8 * MEGABYTE;
/** Bytes sent at a time, of most files and of large ones: what a cut line loses. A large film should not take a thousand requests. */

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
  /** It lies in its pocket; a picture is being made ready still. */
  arrived: boolean;
}

const store = createStore("coat-peg-files", "queue");
const waiting = new Map<string, Kept>();
const running = new Set<string>();
let shown: Entry[] = [];
const listeners = new Set<() => void>();
const finished = new Set<(wish: Wish, note: string) => void>();

/** What the leading tab tells the others. */
type Told = { what: "look" } | { what: "again"; id: string } | { what: "gone"; id: string; note: string | null; wish: Wish | null } | { what: "at"; id: string; share: number; arrived: boolean; problem: Record<string, unknown> | null };

let leads = false;
const others = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("coat-peg-files");

function tell(told: Told): void {
  others?.postMessage(told);
}

if (others) {
  others.onmessage = ({ data: told }: MessageEvent<Told>) => {
    if (told.what === "look") {
      if (leads) void load();
    } else if (told.what === "again") {
      if (leads) again(told.id);
    } else if (told.what === "at") {
      const problem = told.problem ? new Problem(told.problem, Number(told.problem.status)) : null;
      patch(told.id, { share: told.share, problem, arrived: told.arrived }, false);
    } else {
      waiting.delete(told.id);
      show((all) => all.filter((one) => one.id !== told.id));
      const { wish, note } = told;
      if (wish) finished.forEach((hear) => hear(wish, note ?? ""));
    }
  };
}

/** Be the one tab that sends, as soon as no other is; for as long as this page is open. */
function lead(): void {
  if (leads || asking) return;
  asking = true;
  // A browser without locks has each tab send what it has, as one tab does; the server knows an upload by its key.
  if (!("locks" in navigator)) {
    leads = true;
    return;
  }
  void navigator.locks.request("coat-peg-files", async () => {
    leads = true;
    await load();
    await new Promise(() => undefined);
  });
}

let asking = false;
let owner = 0;

function show(change: (all: Entry[]) => Entry[]): void {
  shown = change(shown);
  listeners.forEach((listener) => listener());
}

function patch(id: string, change: Partial<Entry>, aloud = true): void {
  show((all) => all.map((one) => (one.id === id ? { ...one, ...change } : one)));
  const one = shown.find((each) => each.id === id);
  if (aloud && leads && one) tell({ what: "at", id, share: one.share, arrived: one.arrived, problem: one.problem ? { title: one.problem.title, fix: one.problem.fix, status: one.problem.status } : null });
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

async function forget(one: Kept, note: string | null = null): Promise<void> {
  waiting.delete(one.id);
  // The others hear what arrived; the bytes themselves they have no need of.
  tell({ what: "gone", id: one.id, note, wish: note === null ? null : { ...one, file: new Blob() } });
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
    void keep(one).then((safe) => {
      patch(one.id, { safe });
      if (safe && !leads) tell({ what: "look" });
      next();
    });
  }
}

function add(one: Kept, safe: boolean): void {
  waiting.set(one.id, one);
  show((all) => [...all, { id: one.id, wish: one, share: 0, problem: null, safe, arrived: false }]);
}

/** Go on with what this person's earlier pages left behind; what is somebody else's waits for them. */
export async function resume(person: number): Promise<void> {
  for (const one of [...waiting.values()]) if (one.person !== person) waiting.delete(one.id);
  show((all) => all.filter((one) => waiting.has(one.id)));
  owner = person;
  await load();
  lead();
}

/** Take up what is kept for this person. */
async function load(): Promise<void> {
  let found: [string, Kept][] = [];
  try {
    found = await entries<string, Kept>(store);
  } catch {
    return;
  }
  for (const one of found.map(([, kept]) => kept).sort((a, b) => a.at - b.at)) {
    if (one.person === owner && !waiting.has(one.id)) add(one, true);
  }
  next();
}

/** Try one again that was refused. */
export function again(id: string): void {
  const one = waiting.get(id);
  if (!one) return;
  one.address = null;
  patch(id, { problem: null, share: 0, arrived: false });
  if (!leads) tell({ what: "again", id });
  next();
}

/** Let one go. */
export function drop(id: string): void {
  const one = waiting.get(id);
  if (one) void forget(one);
}

/** What of this person is on its way, by the names of the files. */
export function onTheWay(person: number): string[] {
  const arrived = new Set(shown.filter((one) => one.arrived).map((one) => one.id));
  return [...waiting.values()].filter((one) => one.person === person && !arrived.has(one.id)).map((one) => one.name);
}

/** Let everything of this person go: nothing of theirs stays on this device. */
export async function dropAll(person: number): Promise<void> {
  for (const one of [...waiting.values()]) if (one.person === person) await forget(one);
  try {
    const found = await entries<string, Kept>(store);
    for (const [name, one] of found) if (one.person === person) await del(name, store);
  } catch {
    // Nothing was kept.
  }
}

function next(): void {
  for (const one of [...waiting.values()].sort((a, b) => a.at - b.at)) {
    if (running.size >= AT_ONCE) return;
    const entry = shown.find((each) => each.id === one.id);
    // What is kept is the leading tab's to send; what could not be kept only this one has.
    if (!running.has(one.id) && entry && !entry.problem && !entry.arrived && (leads || !entry.safe)) void run(one);
  }
}

async function run(one: Kept): Promise<void> {
  running.add(one.id);
  try {
    await bytes(one);
    await settled(one);
  } catch (error) {
    const problem = error instanceof Problem ? error : new Problem({ title: TEXTS.theFileCouldNotBe }, 500);
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
  if (blocked) throw new Problem({ title: TEXTS.waitingForTheConnection }, 0);
  await new Promise<void>((resolve, reject) => {
    const upload = new Upload(one.file, {
      endpoint: "/api/uploads",
      uploadUrl: one.address,
      retryDelays: null,
      chunkSize: one.file.size > LARGE ? LARGE_PART : PART,
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
        if (!waiting.has(one.id)) void upload.abort(true).then(() => reject(new Problem({ title: TEXTS.letGo }, 500)));
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
  return new Problem({ title: TEXTS.theConnectionWasLost }, 0);
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
    key: one.id,
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
  const told = await became(one);
  if (told.done && !told.ready) {
    patch(one.id, { arrived: true, share: 1 });
    finished.forEach((hear) => hear(one, told.note));
    setTimeout(() => void watch(one), READY);
    return;
  }
  await forget(one, told.note);
  finished.forEach((hear) => hear(one, told.note));
}

function became(one: Kept) {
  return data(client.POST("/api/uploads/{key}/settle", { params: { path: { key: one.address?.split("/").pop() ?? "" } } }));
}

const READY = 1500;
/** Milliseconds between two looks whether a picture is ready. */

/** A picture lies in its pocket and is being made ready: kept here until it is, so that a broken one is told with its name. */
async function watch(one: Kept): Promise<void> {
  if (!waiting.has(one.id)) return;
  try {
    if ((await became(one)).ready) await forget(one, "");
    else setTimeout(() => void watch(one), READY);
  } catch (error) {
    const problem = error instanceof Problem ? error : new Problem({ title: TEXTS.theFileCouldNotBe }, 500);
    if (problem.away || problem.status === 401 || problem.status === 423) setTimeout(() => void watch(one), AGAIN);
    else patch(one.id, { problem, arrived: false });
  }
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
