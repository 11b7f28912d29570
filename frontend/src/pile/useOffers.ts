/** The phrases that are offered while one types behind a semicolon: which, which of them is chosen, and what keys do. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { KeyboardEvent } from "react";
import type { Schema } from "../api/client";
import { phrasesQuery } from "../api/queries";
import { askedBefore, filledIn, fitting } from "./phrases";
import type { Phrase } from "./phrases";

interface Typed {
  desk: Schema["Desk"];
  groupId: number;
  value: string;
  /** Where one types. */
  caret: number;
  /** Puts a text in place of what was typed, with the caret behind it. */
  onPut: (value: string, caret: number) => void;
}

export function useOffers({ desk, groupId, value, caret, onPut }: Typed) {
  const phrases = useQuery(phrasesQuery(groupId, desk.handin.id));
  const [at, setAt] = useState(0);
  /** The semicolon whose list was closed: it stays closed until another is typed. */
  const [closed, setClosed] = useState<number | null>(null);
  const asked = askedBefore(value, caret);
  const from = asked && asked.from !== closed ? asked.from : null;
  const offered = asked && from !== null ? fitting(phrases.data ?? [], asked.letters) : [];
  const chosen = offered[Math.min(at, offered.length - 1)];

  const put = (one: Phrase) => {
    if (from === null) return;
    const said = filledIn(one.text, desk);
    setAt(0);
    onPut(value.slice(0, from) + said + value.slice(caret), from + said.length);
  };
  const keys = (event: KeyboardEvent) => {
    if (!chosen || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
    const acts: Record<string, () => void> = {
      ArrowDown: () => setAt((at + 1) % offered.length),
      ArrowUp: () => setAt((at + offered.length - 1) % offered.length),
      Enter: () => put(chosen),
      Tab: () => put(chosen),
      Escape: () => setClosed(from),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  return {
    offered,
    chosen,
    /** Whether letters were typed that something should fit. */
    looked: from !== null && asked?.letters !== "",
    put,
    keys,
    begin: () => setAt(0),
    close: () => setClosed(from),
    open: () => setClosed(null),
  };
}
