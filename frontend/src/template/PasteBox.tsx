/** A text that is pasted into a form: read by the server, then put into the form's fields, where it can be changed. */
import { ClipboardPaste } from "lucide-react";
import { useId, useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { OUTLINE } from "./outlineTexts";

interface Props {
  /** On the button that opens it. */
  open: string;
  label: string;
  hint: string;
  rows: number;
  /** Reads the text and takes what is in it. */
  onRead: (text: string) => Promise<void>;
}

export function PasteBox({ open: words, label, hint, rows, onRead }: Props) {
  const [text, setText] = useState<string | null>(null);
  const hintId = useId();
  const read = useMutation({ mutationFn: onRead, onSuccess: () => setText(null) });
  if (text === null) {
    return (
      <Button icon={<ClipboardPaste aria-hidden size={16} />} onClick={() => setText("")}>
        {words}
      </Button>
    );
  }
  return (
    <div className="flex basis-full flex-col gap-2 rounded-md border border-edge bg-ground p-3">
      <label className="font-bold">
        {label}
        <textarea
          // It opens where somebody has pressed to paste.
          // eslint-disable-next-line jsx-a11y/no-autofocus
          autoFocus
          rows={rows}
          value={text}
          aria-describedby={hintId}
          onChange={(event) => setText(event.target.value)}
          className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 font-normal whitespace-pre [tab-size:8]"
        />
      </label>
      <p id={hintId} className="text-sm text-ink-soft">
        {hint}
      </p>
      {read.error instanceof Problem && <Notice title={read.error.title} fix={read.error.fix} />}
      <div className="flex gap-2">
        <Button disabled={!text.trim() || read.isPending} onClick={() => read.mutate(text)}>
          {OUTLINE.takeOver}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            read.reset();
            setText(null);
          }}
        >
          {OUTLINE.cancel}
        </Button>
      </div>
    </div>
  );
}
