/** Pictures and files that are given with a pocket, beside its directions or as a starter. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { File, ImageIcon, Paperclip, Trash2 } from "lucide-react";
import { useRef } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { upload } from "../api/upload";
import { sizeWords } from "../viewer/files";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import type { Laid } from "./texts";
import { TEXTS } from "./texts";

type Given = Schema["PocketFileShape"];

interface Props {
  pocket: Laid;
  groupId: number;
  may: boolean;
  /** What the files are for. */
  use: Given["role"];
  title: string;
  hint: string;
  /** The key of the version that has them; none: everybody has them. */
  version?: string;
}

/** Give a file with a pocket, or with one version of it. */
export function giveFile(groupId: number, pocket: number, file: File, role: Given["role"], version = ""): Promise<Given> {
  return upload<Given>(`/api/groups/${groupId}/template/pockets/${pocket}/files`, file, { role, version });
}

export function PocketFiles({ pocket, groupId, may, use, title, hint, version = "" }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const chooser = useRef<HTMLInputElement>(null);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const add = useMutation({
    mutationFn: (file: File) => giveFile(groupId, pocket.id, file, use, version),
    onSuccess: fresh,
  });
  const path = (file_id: number) => ({ params: { path: { group_id: groupId, file_id } } });
  const remove = useMutation({
    mutationFn: (file: Given) => data(client.DELETE("/api/groups/{group_id}/template/files/{file_id}", path(file.id))),
    onSuccess: async (_, file) => {
      await fresh();
      say(TEXTS.titleIsTakenAwayFrom({ title: file.title }), () => void data(client.POST("/api/groups/{group_id}/template/files/{file_id}/restore", path(file.id))).finally(fresh));
    },
  });
  const files = pocket.files.filter((one) => one.role === use && one.version === version);
  const error = add.error ?? remove.error;
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
                  <button type="button" aria-label={TEXTS.takeAwayTitle({ title: one.title })} className="ml-auto flex size-8 shrink-0 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={() => remove.mutate(one)}>
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
