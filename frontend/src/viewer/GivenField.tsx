/** Pictures and files that staff give with something: listed, opened, taken away, one more chosen. */
import { useMutation } from "@tanstack/react-query";
import { File as FileIcon, ImageIcon, Paperclip, Trash2 } from "lucide-react";
import { useRef } from "react";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { sizeWords } from "./files";
import { FIELD } from "./givenFieldTexts";

export type Given = Schema["GivenFileShape"];

interface Props {
  files: Given[];
  title: string;
  hint: string;
  may: boolean;
  /** Resolves once the file is given. */
  onGive: (file: File) => Promise<void>;
  onTakeAway: (file: Given) => void;
  /** Why the last could not be taken away. */
  error?: unknown;
}

export function GivenField({ files, title, hint, may, onGive, onTakeAway, error = null }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const add = useMutation({ mutationFn: onGive });
  if (!may && files.length === 0) return null;
  const wrong = add.error ?? error;
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <h2 className="text-sm font-bold">
        {title} <span className="font-normal text-quiet">{hint}</span>
      </h2>
      {files.length > 0 && (
        <ul className="flex flex-col gap-1">
          {files.map((one) => (
            <Line key={one.id} one={one} onTakeAway={may ? () => onTakeAway(one) : null} />
          ))}
        </ul>
      )}
      {wrong instanceof Problem && <Notice title={wrong.title} fix={wrong.fix} />}
      {may && (
        <div>
          <input
            ref={chooser}
            type="file"
            hidden
            aria-label={FIELD.choose({ title })}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) add.mutate(file);
              event.target.value = "";
            }}
          />
          <Button icon={<Paperclip aria-hidden size={16} />} disabled={add.isPending} onClick={() => chooser.current?.click()}>
            {add.isPending ? FIELD.onItsWay : FIELD.add}
          </Button>
        </div>
      )}
    </section>
  );
}

function Line({ one, onTakeAway }: { one: Given; onTakeAway: (() => void) | null }) {
  const Icon = one.kind === "picture" ? ImageIcon : FileIcon;
  return (
    <li className="flex items-center gap-2">
      <Icon aria-hidden size={16} className="shrink-0 text-ink-soft" />
      <a href={`/api/given-files/${one.id}`} target="_blank" rel="noopener" className="min-w-0 truncate text-in underline">
        {one.title}
      </a>
      <span className="shrink-0 text-quiet">{sizeWords(one.size)}</span>
      {onTakeAway && (
        <button type="button" aria-label={FIELD.takeAway({ title: one.title })} className="ml-auto flex size-8 shrink-0 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={onTakeAway}>
          <Trash2 aria-hidden size={15} />
        </button>
      )}
    </li>
  );
}
