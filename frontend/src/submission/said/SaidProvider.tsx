/** What is said on one submission, for everything below it; and the keys to say more. */
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import type { ReactNode } from "react";
import { isTyped, useLetterKeys } from "../../ui/keys";
import { begin, SaidContext, useAnnotations } from "./said";
import type { Annotation, Colour, Composing, Said, Tool } from "./said";

interface Props {
  groupId: number;
  submission: number;
  /** Whether this person marks it, now. */
  writes?: boolean;
  mends?: boolean;
  criteria?: Said["criteria"];
  children: ReactNode;
}

const NONE: Annotation[] = [];
const NO_CRITERIA: Said["criteria"] = [];

export function SaidProvider({ groupId, submission, writes = false, mends = false, criteria = NO_CRITERIA, children }: Props) {
  const found = useAnnotations(groupId, submission);
  const list = found.data ?? NONE;
  const [active, choose] = useState<number | null>(null);
  const [tool, setTool] = useState<Tool>("look");
  const [colour, setColour] = useState<Colour>("rust");
  const [composing, compose] = useState<Composing | null>(null);
  const undos = useRef<(() => void)[]>([]);
  const said = useMemo(
    (): Said => ({
      submission,
      groupId,
      list,
      writes,
      criteria,
      mends,
      active,
      choose,
      tool,
      setTool,
      colour,
      setColour,
      composing,
      compose,
      undoable: (run) => undos.current.push(run),
      undo: () => undos.current.pop()?.(),
    }),
    [submission, groupId, list, writes, criteria, mends, active, tool, colour, composing],
  );
  useKeys(said);
  return <SaidContext value={said}>{children}</SaidContext>;
}

/** c comments, d draws, Ctrl Z takes a stroke back. */
function useKeys(said: Said): void {
  const letters = useLetterKeys();
  const { writes, tool, setTool, compose, undo } = said;
  useLayoutEffect(() => {
    if (!writes) return;
    const comment = () => {
      if (document.querySelector("[data-ink]")) setTool("spot");
      else compose(begin({}));
    };
    const act: Record<string, () => void> = { c: comment, d: () => setTool(tool === "ink" ? "look" : "ink") };
    const listen = (event: KeyboardEvent) => {
      const drawing = tool === "ink" || tool === "erase";
      const back = drawing && event.key === "z" && (event.ctrlKey || event.metaKey) && !(event.target as HTMLElement).closest("input, textarea");
      const run = back ? undo : letters && !isTyped(event) ? act[event.key] : undefined;
      if (!run) return;
      event.preventDefault();
      run();
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters, writes, tool, setTool, compose, undo]);
}
