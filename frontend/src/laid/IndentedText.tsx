/** A field for lines that stand further in: Enter keeps how far, Tab and Shift with Tab change it, Escape lets Tab leave. */
import { useId, useLayoutEffect, useRef, useState } from "react";
import type { KeyboardEvent } from "react";

const STEP = "  ";

interface Props {
  label: string;
  hint: string;
  rows?: number;
  value: string;
  onChange: (value: string) => void;
}

export function IndentedText({ label, hint, rows = 14, value, onChange }: Props) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [leaving, setLeaving] = useState(false);
  const place = useRef<[number, number] | null>(null);
  const hintId = useId();
  // The field is given its text anew: the caret goes back to where the key has put it.
  useLayoutEffect(() => {
    if (place.current) field.current?.setSelectionRange(...place.current);
    place.current = null;
  }, [value]);
  const put = (text: string, start: number, end: number) => {
    place.current = [start, end];
    onChange(text);
  };
  const onTab = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (leaving) return;
    event.preventDefault();
    const moved = indented(value, event.currentTarget.selectionStart, event.currentTarget.selectionEnd, event.shiftKey);
    put(moved.text, moved.start, moved.end);
  };
  const onEnter = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    event.preventDefault();
    if (event.ctrlKey || event.metaKey) {
      event.currentTarget.form?.requestSubmit();
      return;
    }
    const { selectionStart: start, selectionEnd: end } = event.currentTarget;
    const before = value.slice(0, start);
    const far = /^[ \t]*/.exec(before.slice(before.lastIndexOf("\n") + 1))?.[0] ?? "";
    put(`${before}\n${far}${value.slice(end)}`, start + 1 + far.length, start + 1 + far.length);
  };
  const onEscape = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (leaving) return;
    event.stopPropagation();
    setLeaving(true);
  };
  const keys: Record<string, typeof onTab> = { Tab: onTab, Enter: onEnter, Escape: onEscape };
  return (
    <label className="flex flex-1 flex-col font-bold md:not-low:min-h-0">
      {label}
      <textarea
        ref={field}
        data-autofocus
        rows={rows}
        spellCheck
        aria-describedby={hintId}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => !event.nativeEvent.isComposing && keys[event.key]?.(event)}
        onBlur={() => setLeaving(false)}
        className="mt-1 min-h-24 flex-1 resize-y rounded-md border border-control bg-paper px-3 py-2 font-normal whitespace-pre [tab-size:2]"
      />
      <span id={hintId} className="mt-1 text-sm font-normal text-ink-soft">
        {hint}
      </span>
    </label>
  );
}

/** The lines of a selection moved in or out by one step, and where the selection is then. */
export function indented(text: string, start: number, end: number, out: boolean): { text: string; start: number; end: number } {
  const from = text.lastIndexOf("\n", start - 1) + 1;
  const until = text.indexOf("\n", end) < 0 ? text.length : text.indexOf("\n", end);
  const lines = text.slice(from, until).split("\n");
  const moved = lines.map((line) => (out ? line.replace(/^(?: {1,2}|\t)/, "") : STEP + line));
  const first = (moved[0]?.length ?? 0) - (lines[0]?.length ?? 0);
  const all = moved.join("\n").length - (until - from);
  return { text: text.slice(0, from) + moved.join("\n") + text.slice(until), start: Math.max(from, start + first), end: Math.max(from, end + all) };
}
