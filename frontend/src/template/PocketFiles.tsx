/** Pictures and files that are given with a pocket, beside its directions or as a starter. */
import { useMutation } from "@tanstack/react-query";
import { File, ImageIcon, Paperclip, Trash2 } from "lucide-react";
import { useRef } from "react";
import { Problem } from "../api/problem";
import { sizeWords } from "../viewer/files";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useGiving } from "./giving";
import type { Given } from "./giving";
import type { Laid } from "./texts";
import { TEXTS } from "./texts";
import type { TemplateDraft } from "./useTemplateDraft";

interface Props {
  /** As it would stand. */
  pocket: Laid;
  draft: TemplateDraft;
  groupId: number;
  may: boolean;
  /** What the files are for. */
  use: Given["role"];
  title: string;
  hint: string;
  /** The key of the version that has them; none: everybody has them. */
  version?: string;
}

export function PocketFiles({ pocket, draft, groupId, may, use, title, hint, version = "" }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const giving = useGiving(groupId, pocket.id, draft);
  const add = useMutation({ mutationFn: (file: File) => giving.give(file, use, version) });
  const files = pocket.files.filter((one) => one.role === use && one.version === version);
  const error = add.error ?? giving.error;
  if (!may && files.length === 0) return null;
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <h2 className="text-sm font-bold">
        {title} <span className="font-normal text-quiet">{hint}</span>
      </h2>
      {files.length > 0 && (
        <ul className="flex flex-col gap-1">
          {files.map((one) => {
            const Icon = one.kind === "picture" ? ImageIcon : File;
            return (
              <li key={one.id} className="flex items-center gap-2">
                <Icon aria-hidden size={16} className="shrink-0 text-ink-soft" />
                <a href={`/api/pocket-files/${one.id}`} target="_blank" rel="noopener" className="min-w-0 truncate text-in underline">
                  {one.title}
                </a>
                <span className="shrink-0 text-quiet">{sizeWords(one.size)}</span>
                {may && (
                  <button type="button" aria-label={TEXTS.takeAwayTitle({ title: one.title })} className="ml-auto flex size-8 shrink-0 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={() => giving.takeAway(one)}>
                    <Trash2 aria-hidden size={15} />
                  </button>
                )}
              </li>
            );
          })}
        </ul>
      )}
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      {may && (
        <div>
          <input
            ref={chooser}
            type="file"
            hidden
            aria-label={TEXTS.titleChooseAFile({ title })}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) add.mutate(file);
              event.target.value = "";
            }}
          />
          <Button icon={<Paperclip aria-hidden size={16} />} disabled={add.isPending} onClick={() => chooser.current?.click()}>
            {add.isPending ? TEXTS.onItsWay : TEXTS.addAPictureOrFile}
          </Button>
        </div>
      )}
    </section>
  );
}
