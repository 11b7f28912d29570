/** Choosing many pegs: by the mouse, by keys, a row, a column, all that are shown. */
import { useCallback, useMemo, useRef, useState } from "react";
import type { KeyboardEvent, MouseEvent, PointerEvent } from "react";
import type { Board, Row } from "../filtering/filters";

export interface Place {
  row: number;
  column: number;
}

type Picked = ReadonlySet<string>;

const HELD = ["Shift", "Control", "Meta", "Alt"];
const NOBODY: Picked = new Set();

function nameOf(row: Row, handin: Board["handins"][number]): string {
  return `${row.id} ${handin.id}`;
}

/** The place of the peg that an event happened on; the head is row -1. */
export function placeOf(event: { target: EventTarget }): Place | null {
  const cell = event.target instanceof Element ? event.target.closest<HTMLElement>("[data-cell]")?.dataset["cell"] : undefined;
  const [row = NaN, column = NaN] = (cell ?? "").split(" ").map(Number);
  return Number.isNaN(row) || Number.isNaN(column) ? null : { row, column };
}

export type Picking = ReturnType<typeof usePicking>;

export function usePicking(rows: Row[], handins: Board["handins"], may: boolean) {
  const [on, setOn] = useState(false);
  const [all, setAll] = useState<Picked>(NOBODY);
  /** Where a stretch began, what was chosen before it, and whether it adds or takes away. */
  const stretch = useRef<{ from: Place; before: Picked; adds: boolean } | null>(null);
  const [painting, setPainting] = useState(false);

  // What a filter hides is not acted on.
  const picked = useMemo(() => {
    if (all.size === 0) return all;
    const shown = new Set(rows.flatMap((row) => handins.map((one) => nameOf(row, one))));
    return new Set([...all].filter((one) => shown.has(one)));
  }, [all, rows, handins]);

  const between = useCallback(
    (one: Place, other: Place) => {
      const span = (a: number, b: number) => [Math.max(0, Math.min(a, b)), Math.max(a, b)] as const;
      const [top, bottom] = span(one.row, other.row);
      const [left, right] = span(one.column, other.column);
      return rows.slice(top, bottom + 1).flatMap((row) => handins.slice(left, right + 1).map((handin) => nameOf(row, handin)));
    },
    [rows, handins],
  );
  const begin = (from: Place) => {
    const name = between(from, from)[0] ?? "";
    stretch.current = { from, before: picked, adds: !picked.has(name) };
  };
  const stretchTo = (to: Place) => {
    const { from, before, adds } = stretch.current ?? { from: to, before: picked, adds: true };
    const names = between(from, to);
    setAll(adds ? new Set([...before, ...names]) : new Set([...before].filter((one) => !names.includes(one))));
  };
  const toggle = (names: string[]) => {
    const whole = names.every((one) => picked.has(one));
    setAll(whole ? new Set([...picked].filter((one) => !names.includes(one))) : new Set([...picked, ...names]));
  };
  const clear = () => {
    setAll(NOBODY);
    stretch.current = null;
  };
  const pickColumn = (column: number) => toggle(between({ row: 0, column }, { row: rows.length - 1, column }));
  const pickRow = (row: number) => toggle(between({ row, column: 0 }, { row, column: handins.length - 1 }));

  /** What a key does that leads nowhere. */
  const actOf = (key: string, at: Place, held: boolean): (() => void) | undefined => {
    if (key === "a" && held) return () => toggle(between({ row: 0, column: 0 }, { row: rows.length - 1, column: handins.length - 1 }));
    if (key === " " && (on || held)) return () => (at.row < 0 ? pickColumn(at.column) : toggle(between(at, at)));
    return key === "Escape" && picked.size > 0 ? clear : undefined;
  };

  return {
    on,
    picked,
    setOn: (to: boolean) => {
      setOn(to);
      if (!to) clear();
    },
    clear,
    pickRow,
    /** Which columns of a row are chosen, as text: the same text, the same row. */
    inRow: (row: Row) => (picked.size === 0 ? "" : handins.map((one, place) => (picked.has(nameOf(row, one)) ? place : -1)).filter((place) => place >= 0).join(",")),
    /** The chosen cells as they stand. */
    cells: () =>
      rows.flatMap((row) =>
        handins.flatMap((one, place) => (picked.has(nameOf(row, one)) ? [{ handin: one.id, enrolment: row.id, status: row.cells[place]?.status ?? ("empty" as const) }] : [])),
      ),
    /** A key on the board at a place; true where it chose something. ``to`` is where an arrow leads. */
    key: (event: KeyboardEvent, at: Place, to: Place | null): boolean => {
      // A key that is only held begins nothing anew.
      if (!may || HELD.includes(event.key)) return false;
      const held = event.ctrlKey || event.metaKey;
      if (event.shiftKey && to && at.row >= 0) {
        stretch.current ??= { from: at, before: picked, adds: true };
        stretchTo({ row: Math.max(0, to.row), column: Math.max(0, to.column) });
        return false; // the arrow still leads there
      }
      stretch.current = null;
      const act = actOf(event.key, at, held);
      act?.();
      return act !== undefined;
    },
    /** For the grid: what the mouse chooses does not open anything. */
    mouse: may && {
      onPointerDownCapture: (event: PointerEvent) => {
        const at = placeOf(event);
        if (event.pointerType !== "mouse" || event.button !== 0 || !at || at.row < 0) return;
        if (event.shiftKey) stretchTo(at);
        else if (on || event.ctrlKey || event.metaKey) {
          begin(at);
          stretchTo(at);
          setPainting(true);
        } else stretch.current = { from: at, before: picked, adds: true };
      },
      onPointerMove: (event: PointerEvent) => {
        if (!painting) return;
        if (event.buttons !== 1) {
          setPainting(false);
          return;
        }
        const at = placeOf(event);
        if (at && at.row >= 0) stretchTo(at);
      },
      onClickCapture: (event: MouseEvent) => {
        const at = placeOf(event);
        const held = event.shiftKey || event.ctrlKey || event.metaKey;
        if (!at || !(on || held)) return;
        event.preventDefault();
        event.stopPropagation();
        setPainting(false);
        const byMouse = (event.nativeEvent as globalThis.PointerEvent).pointerType === "mouse";
        if (at.row < 0) pickColumn(at.column);
        else if (!byMouse) toggle(between(at, at));
      },
    },
  };
}
