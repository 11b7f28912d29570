/** One's own ink on one surface: drawn, erased, undone; kept as it is drawn. */
import { useCallback, useEffect, useRef, useState } from "react";
import { Problem } from "../../api/problem";
import { newKey } from "../../ui/newKey";
import { surfaceOf, useSaying } from "./said";
import type { Annotation, Said, Target } from "./said";
import type { Stroke } from "./inkPath";

const REST = 700;
/** Milliseconds without a stroke after which ink is kept. */

/** Under which key, and over which version, ink is kept; its id once it is. */
interface Kept {
  key: string;
  version: number;
  id: number | null;
}

/** What is drawn here by this person and not shown yet. */
function mine(list: Annotation[], target: Target): Annotation | undefined {
  return list.find((one) => one.kind === "ink" && one.mine && !one.shown && surfaceOf(one.target) === surfaceOf(target));
}

function keptOf(own: Annotation | undefined): Kept {
  return own ? { key: own.key, version: own.version, id: own.id } : { key: newKey(), version: 0, id: null };
}

const NONE: Stroke[] = [];

export function useInk(said: Said, target: Target) {
  const { keep, remove } = useSaying(said.groupId, said.submission);
  const own = mine(said.list, target);
  /** What is drawn and perhaps not kept yet; null: as it is kept. */
  const [drawn, setDrawn] = useState<Stroke[] | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const strokes = drawn ?? own?.strokes ?? NONE;
  const now = useRef(strokes);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const waiting = useRef(false);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const at = useRef<Kept | null>(null);
  useEffect(() => {
    now.current = strokes;
  }, [strokes]);

  /** Keep what is drawn by now, or take it back where nothing is. */
  const save = async () => {
    const kept = (at.current ??= keptOf(own));
    const sent = now.current;
    try {
      if (sent.length === 0) {
        at.current = null;
        if (kept.id !== null) remove(kept.id);
        return;
      }
      const made = await keep(kept.key, { kind: "ink", target, text: "", wording: null, strokes: sent, colour: "", criterion: "", version: kept.version });
      at.current = { key: made.key, version: made.version, id: made.id };
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  const newest = useRef(save);
  useEffect(() => {
    newest.current = save;
  });
  const push = useCallback(() => {
    clearTimeout(timer.current);
    if (!waiting.current) return;
    waiting.current = false;
    saving.current = saving.current.then(() => newest.current());
  }, []);
  useEffect(() => {
    window.addEventListener("pagehide", push);
    return () => {
      window.removeEventListener("pagehide", push);
      push();
    };
  }, [push]);

  const change = useCallback(
    (next: Stroke[]) => {
      now.current = next;
      setDrawn(next);
      setProblem(null);
      waiting.current = true;
      clearTimeout(timer.current);
      timer.current = setTimeout(push, REST);
    },
    [push],
  );
  const { undoable } = said;
  const to = (next: Stroke[]) => {
    const before = now.current;
    undoable(() => change(before));
    change(next);
  };
  return {
    strokes,
    problem,
    draw: (stroke: Stroke) => to([...now.current, stroke]),
    erase: (gone: Stroke[]) => {
      if (gone.length > 0) to(now.current.filter((one) => !gone.includes(one)));
    },
  };
}
