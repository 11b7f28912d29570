/** A line to type into, in its place in the outline: Enter makes one and waits for the next, Escape puts it away. */
import { useState } from "react";

interface Props {
  label: string;
  placeholder?: string;
  /** Resolves once it is made; what was typed stays where it was refused. */
  onLine: (text: string) => Promise<unknown>;
  /** Several lines that were pasted. */
  onLines?: (text: string) => void;
  /** Put away by the key, or left empty. */
  onClose: (byKey: boolean) => void;
}

export function AddLine({ label, placeholder, onLine, onLines, onClose }: Props) {
  const [text, setText] = useState("");
  const [busy, setBusy] = useState(false);
  const make = async () => {
    const line = text.trim();
    if (!line || busy) return;
    setBusy(true);
    try {
      await onLine(line);
      setText((now) => (now.trim() === line ? "" : now));
    } catch {
      // It is told beside the outline; the line stays to be changed.
    } finally {
      setBusy(false);
    }
  };
  return (
    <input
      // It opens where somebody has pressed to type.
      // eslint-disable-next-line jsx-a11y/no-autofocus
      autoFocus
      aria-label={label}
      placeholder={placeholder}
      autoComplete="off"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          event.preventDefault();
          void make();
        } else if (event.key === "Escape") {
          event.preventDefault();
          onClose(true);
        }
      }}
      onPaste={(event) => {
        const pasted = event.clipboardData.getData("text/plain");
        if (!onLines || !/\n\s*\S/.test(pasted)) return;
        event.preventDefault();
        onLines([text, pasted].filter((one) => one.trim()).join("\n"));
      }}
      onBlur={() => {
        if (!text.trim()) onClose(false);
      }}
      className="mx-4 my-1 min-h-9 rounded-md border border-control bg-paper px-3"
    />
  );
}
