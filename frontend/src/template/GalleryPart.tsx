/** Under the outline: where templates come from, publishing this one, and what is new in the one adopted. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { LibraryBig, Share2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { galleryStateQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";

const GalleryDialog = lazy(() => patiently(() => import("./GalleryDialog")).then((part) => ({ default: part.GalleryDialog })));
const WORDS: Record<Schema["NoveltyShape"]["what"], string> = { added: TEXTS.new, changed: TEXTS.changed, gone: TEXTS.noLongerThere };

export function GalleryPart({ groupId, title }: { groupId: number; title: string }) {
  const [open, setOpen] = useState(false);
  const [publishing, setPublishing] = useState(false);
  const state = useQuery(galleryStateQuery(groupId));
  if (!state.data) return null;
  return (
    <div className="mt-4 flex flex-col gap-3 border-t border-line px-4 pt-4">
      {state.data.news.length > 0 && <News groupId={groupId} state={state.data} />}
      {publishing ? (
        <Publish groupId={groupId} kept={state.data.published} title={title} onClose={() => setPublishing(false)} />
      ) : (
        <div className="flex flex-wrap gap-2">
          <Button icon={<LibraryBig aria-hidden size={16} />} onClick={() => setOpen(true)}>
            {TEXTS.bringInATemplate}
          </Button>
          <Button icon={<Share2 aria-hidden size={16} />} onClick={() => setPublishing(true)}>
            {state.data.published ? TEXTS.inTheGallery : TEXTS.publish}
          </Button>
        </div>
      )}
      {open && (
        <Suspense>
          <GalleryDialog groupId={groupId} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </div>
  );
}

function News({ groupId, state }: { groupId: number; state: Schema["GalleryState"] }) {
  const queries = useQueryClient();
  const path = { params: { path: { group_id: groupId } } };
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const bring = useMutation({
    mutationFn: (key: string) => data(client.POST("/api/groups/{group_id}/template/news/bring", { ...path, body: { key } })),
    onSuccess: fresh,
  });
  const leave = useMutation({ mutationFn: () => data(client.POST("/api/groups/{group_id}/template/news/seen", path)), onSuccess: fresh });
  const error = bring.error ?? leave.error;
  return (
    <section aria-label={TEXTS.newInTheGallery} className="rounded-md bg-today p-3">
      <h2 className="text-sm">
        {TEXTS.changesInAdopted({ count: state.news.length, adopted: state.adopted ?? "" })}
      </h2>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      <ul className="mt-1 flex flex-col gap-1">
        {state.news.map((one) => (
          <li key={one.key} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 truncate" title={one.fields.join(", ")}>
              <span className="text-quiet">{WORDS[one.what]}:</span> {one.title}
            </span>
            <Button disabled={bring.isPending} onClick={() => bring.mutate(one.key)}>
              {TEXTS.bringIn}<span className="sr-only"> {one.title}</span>
            </Button>
          </li>
        ))}
      </ul>
      <Button look="quiet" className="-ml-3" disabled={leave.isPending} onClick={() => leave.mutate()}>
        {TEXTS.leaveTheRest}
      </Button>
    </section>
  );
}

interface PublishProps {
  groupId: number;
  kept: Schema["PublishIn"] | null;
  title: string;
  onClose: () => void;
}

function Publish({ groupId, kept, title, onClose }: PublishProps) {
  const [name, setName] = useState(kept?.title ?? title);
  const [description, setDescription] = useState(kept?.description ?? "");
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { group_id: groupId } } };
  const done = async (words: string) => {
    await queries.invalidateQueries({ queryKey: ["group", groupId] });
    await queries.invalidateQueries({ queryKey: ["gallery"] });
    say(words);
    onClose();
  };
  const publish = useMutation({
    mutationFn: () => data(client.PUT("/api/groups/{group_id}/template/gallery", { ...path, body: { title: name, description } })),
    onSuccess: () => done(TEXTS.nameIsInTheGallery({ name })),
  });
  const withdraw = useMutation({
    mutationFn: () => data(client.DELETE("/api/groups/{group_id}/template/gallery", path)),
    onSuccess: () => done(TEXTS.itIsOutOfThe),
  });
  const error = publish.error ?? withdraw.error;
  const field = "mt-1 block w-full rounded-md border border-control bg-paper px-3 font-normal";
  return (
    <form
      aria-label={TEXTS.publishInTheGallery}
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        publish.mutate();
      }}
    >
      <label className="font-bold">
        {TEXTS.nameInTheGallery}
        <input value={name} onChange={(event) => setName(event.target.value)} className={`${field} min-h-9`} />
      </label>
      <label className="font-bold">
        {TEXTS.whatItIsFor}
        <textarea rows={2} value={description} onChange={(event) => setDescription(event.target.value)} className={`${field} py-2`} />
      </label>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      <div className="flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={publish.isPending}>
          {kept ? TEXTS.publishANewVersion : TEXTS.publish}
        </Button>
        {kept && (
          <Button disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
            {TEXTS.takeItOut}
          </Button>
        )}
        <Button look="quiet" onClick={onClose}>
          {TEXTS.cancel}
        </Button>
      </div>
    </form>
  );
}
