/** A field for a reflection: counts while typing, saves itself, never loses a word. */
import { useEffect, useId, useRef } from "react";
import type { ReactNode } from "react";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { useAutosave } from "./autosave";
import type { Save, Saved } from "./keeper";
import type { Asked } from "./TextShell";
import { TextShell } from "./TextShell";

interface Props {
  name: string;
  person: number;
  label: string;
  server: Saved;
  writable: boolean;
  length: Asked;
  limit: number;
  rows: number;
  save: Save;
  tools?: ReactNode;
}

export function WritingField({ name, person, label, server, writable, length, limit, rows, save, tools }: Props) {
  const { text, state, change, settle, keeper } = useAutosave({ name, person, server, writable, save });
  const id = useId();
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    const area = field.current;
    if (!area) return;
    area.style.height = "auto";
    area.style.height = `${area.scrollHeight + 2}px`;
  }, [text]);
  return (
    <TextShell
      id={id}
      label={label}
      text={text}
      state={state}
      length={length}
      limit={limit}
      onSettle={settle}
      onLetGo={keeper.letGo}
      tools={
        <>
          <ReadAloud text={text} />
          {tools}
        </>
      }
    >
      <textarea
        ref={field}
        id={id}
        rows={rows}
        value={text}
        readOnly={!writable}
        aria-describedby={`${id}-state`}
        onChange={(event) => change(event.target.value)}
        className="mt-1 block w-full resize-none overflow-hidden rounded-md border border-control bg-paper px-3 py-2 text-base leading-6 read-only:border-edge read-only:bg-ground"
      />
    </TextShell>
  );
}
