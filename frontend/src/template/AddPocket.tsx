/** The way to a new pocket at the end of its section: a button that becomes a line to type into. */
import { Plus } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Schema } from "../api/client";
import { AddLine } from "./AddLine";
import type { Edits } from "./edits";
import { OUTLINE } from "./outlineTexts";
import { TEXTS } from "./texts";
import type { Kind, Laid } from "./texts";

interface Props {
  section: Schema["LaidSection"];
  open: boolean;
  edits: Edits;
  onOpen: (open: boolean) => void;
  onMade: (pocket: number) => void;
  onLines: (text: string) => void;
}

export function AddPocket({ section, open, edits, onOpen, onMade, onLines }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const escaped = useRef(false);
  useEffect(() => {
    if (!open && escaped.current) button.current?.focus();
    escaped.current = false;
  }, [open]);
  if (!open) {
    const words = OUTLINE.addTo({ section: section.title });
    return (
      <button ref={button} type="button" className="ml-3 inline-flex min-h-7 items-center gap-1 rounded-sm px-2 text-xs font-semibold text-ink-soft hover:bg-ground" aria-label={words} title={words} onClick={() => onOpen(true)}>
        <Plus aria-hidden size={14} /> {TEXTS.addPocket}
      </button>
    );
  }
  const add = async (text: string) => {
    onMade(await edits.addLine(text.replace(/[:\s]+$/, ""), kindBefore(section.pockets), section.id));
  };
  const close = (byKey: boolean) => {
    escaped.current = byKey;
    onOpen(false);
  };
  return <AddLine label={OUTLINE.addLine({ section: section.title })} placeholder={OUTLINE.linePlaceholder} onLine={add} onLines={onLines} onClose={close} />;
}

/** A new pocket takes the kind of the one before; of a log, which says its columns, it does not. */
function kindBefore(pockets: Laid[]): Kind {
  return pockets.filter((one) => !one.retired && one.kind !== "log").at(-1)?.kind ?? "evidence";
}
