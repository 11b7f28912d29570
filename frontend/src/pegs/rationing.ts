/** While the board is scrolled, the pegs of only so many rows come in a frame: names are there at once. */
import { useEffect, useRef, useState } from "react";

const AT_ONCE = 4;
/** Rows whose pegs are drawn in one frame. */

/** The rows of those in view, by their ids, whose pegs are drawn: all of them, but while it is scrolled those that had their turn. */
export function useRationed(inView: number[], scrolled: boolean): (id: number) => boolean {
  const [full, setFull] = useState<ReadonlySet<number>>(new Set());
  const latest = useRef({ inView, scrolled });
  const asked = useRef(false);
  useEffect(() => {
    latest.current = { inView, scrolled };
    if (asked.current || inView.every((one) => full.has(one))) return;
    // What is asked for is not called off by the next turn of the wheel: rows that stay in view have their turn.
    asked.current = true;
    requestAnimationFrame(() => {
      asked.current = false;
      setFull((before) => withNext(before, latest.current));
    });
  });
  return (id) => !scrolled || full.has(id);
}

/** Those in view that are drawn already, and the next few; all of them where nothing moves. */
function withNext(full: ReadonlySet<number>, { inView, scrolled }: { inView: number[]; scrolled: boolean }): ReadonlySet<number> {
  const waiting = inView.filter((one) => !full.has(one));
  const next = scrolled ? waiting.slice(0, AT_ONCE) : waiting;
  return new Set([...inView.filter((one) => full.has(one)), ...next]);
}
