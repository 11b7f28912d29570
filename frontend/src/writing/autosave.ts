/** A text field over a keeper; and all keepers of the page, to save before handing in. */
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { connection, onConnection } from "../api/connection";
import { Keeper } from "./keeper";
import type { Save, Saved } from "./keeper";

const open = new Set<Keeper>();

const others = new Set<() => Promise<boolean>>();

/** Have something else saved whenever all texts are; returns how to stop. */
export function alsoSave(push: () => Promise<boolean>): () => void {
  others.add(push);
  return () => void others.delete(push);
}

/** Whether a field shows the text of this name. */
export function isOpen(name: string): boolean {
  return [...open].some((keeper) => keeper.name === name);
}

/** Save everything that is typed but not saved; false where something could not be. */
export async function saveAll(): Promise<boolean> {
  return (await unsaved()) === 0;
}

/** Try to save everything; how many texts could not be. */
export async function unsaved(): Promise<number> {
  const done = await Promise.all([...[...open].map((keeper) => keeper.push()), ...[...others].map((push) => push())]);
  return done.filter((one) => !one).length;
}

interface Options {
  name: string;
  person: number;
  server: Saved;
  writable: boolean;
  save: Save;
}

/** The text, its state, and what a person can do with it. */
export function useAutosave({ name, person, server, writable, save }: Options) {
  const [keeper] = useState(() => new Keeper(name, person, server, save));
  const { text, state } = useSyncExternalStore(keeper.subscribe, keeper.snapshot);
  const first = useRef({ server, writable });

  useEffect(() => keeper.saveWith(save), [keeper, save]);

  const { text: serverText, version } = server;
  useEffect(() => keeper.adopt({ text: serverText, version }), [keeper, serverText, version]);

  const { at } = state;
  useEffect(() => {
    if (writable) keeper.unlock({ text: serverText, version });
    else keeper.lock();
    // Also when a save that was under way has come back refused.
  }, [at, keeper, serverText, version, writable]);

  useEffect(() => {
    open.add(keeper);
    void keeper.begin(first.current.server, first.current.writable);
    const leave = () => void keeper.push();
    const stop = onConnection(() => {
      if (connection() === "there") void keeper.push();
    });
    document.addEventListener("visibilitychange", leave);
    window.addEventListener("pagehide", leave);
    return () => {
      open.delete(keeper);
      stop();
      document.removeEventListener("visibilitychange", leave);
      window.removeEventListener("pagehide", leave);
      keeper.end();
    };
  }, [keeper]);

  return { text, state, change: keeper.change, settle: keeper.settle, keeper };
}
