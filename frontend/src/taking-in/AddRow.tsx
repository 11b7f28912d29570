/** One row of ways to put work in. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Camera, FilePlus2, FolderOpen, Link2, Mic, NotebookPen } from "lucide-react";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import type { ReactNode } from "react";
import { patiently } from "../api/patiently";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Notice } from "../ui/Notice";
import { LinkForm } from "./LinkForm";
import { RECORD, TEXTS } from "./texts";
import type { Extra } from "./uploads";

const photoDialog = () => patiently(() => import("./PhotoDialog"));
const recordDialog = () => patiently(() => import("./RecordDialog"));
const againDialog = () => patiently(() => import("./AgainDialog"));
const PhotoDialog = lazy(() => photoDialog().then((view) => ({ default: view.PhotoDialog })));
const RecordDialog = lazy(() => recordDialog().then((view) => ({ default: view.RecordDialog })));
const AgainDialog = lazy(() => againDialog().then((view) => ({ default: view.AgainDialog })));

const SOON = 1500;
/** Milliseconds after which the ways in are loaded, so that they are there when the connection is not. */

type Way = "photo" | "record" | "link" | "again";

interface Props {
  groupId: number;
  portfolio: number;
  pocket: Schema["OpenedPocket"];
  onFiles: (files: { file: Blob; name: string; extra?: Extra }[]) => void;
}

const PICTURE = /^image\/|\.(heic|heif)$/i;

/** Photos go through their dialog, where they can be turned and joined; other files go up at once. */
function isPicture(file: File): boolean {
  return file.type !== "image/svg+xml" && (PICTURE.test(file.type) || PICTURE.test(file.name));
}

// eslint-disable-next-line complexity -- one branch for each way in that a pocket may take
export function AddRow({ groupId, portfolio, pocket, onFiles }: Props) {
  const queries = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [way, setWay] = useState<Way | null>(null);
  const [photos, setPhotos] = useState<File[]>([]);
  const [over, setOver] = useState(false);
  const path = { portfolio_id: portfolio, pocket_id: pocket.id };
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const write = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/texts", { params: { path }, body: { title: TEXTS.newText } })),
    onSuccess: fresh,
  });
  const put = useMutation({
    mutationFn: (artefact: number) => data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/artefacts", { params: { path }, body: { artefact } })),
    onSuccess: fresh,
  });
  useEffect(() => {
    const timer = setTimeout(() => void Promise.allSettled([photoDialog(), recordDialog(), againDialog()]), SOON);
    return () => clearTimeout(timer);
  }, []);
  const takes = (...kinds: string[]) => pocket.kind !== "links" && (pocket.takes.length === 0 || kinds.some((kind) => pocket.takes.includes(kind)));
  const take = (files: File[]) => {
    const pictures = files.filter(isPicture);
    onFiles(files.filter((file) => !isPicture(file)).map((file) => ({ file, name: file.name })));
    if (pictures.length > 0) {
      setPhotos(pictures);
      setWay("photo");
    }
  };
  const close = () => {
    setWay(null);
    setPhotos([]);
  };
  const problem = write.error ?? put.error;
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- dropping is a short cut for the buttons inside
    <div
      role="group"
      aria-label={TEXTS.waysToAdd}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        if (pocket.kind !== "links") take([...event.dataTransfer.files]);
      }}
      className={`rounded-lg border border-dashed border-control p-2 ${over ? "bg-today" : "bg-paper"}`}
    >
      <div className="flex flex-wrap justify-center gap-x-2">
        {takes("picture") && <Add name={TEXTS.addPhoto} icon={<Camera aria-hidden size={20} />} act={() => setWay("photo")} />}
        {takes("picture", "file", "recording") && (
          <>
            <input
              ref={input}
              type="file"
              multiple
              hidden
              aria-label={TEXTS.addFile}
              onChange={(event) => {
                take([...(event.target.files ?? [])]);
                event.target.value = "";
              }}
            />
            <Add name={TEXTS.addFile} icon={<FilePlus2 aria-hidden size={20} />} act={() => input.current?.click()} />
          </>
        )}
        {takes("recording") && <Add name={TEXTS.addRecording} icon={<Mic aria-hidden size={20} />} act={() => setWay("record")} />}
        {(pocket.kind === "links" || takes("link")) && <Add name={TEXTS.addLink} open={way === "link"} icon={<Link2 aria-hidden size={20} />} act={() => setWay(way === "link" ? null : "link")} />}
        {pocket.kind !== "page" && takes("text") && <Add name={TEXTS.addText} icon={<NotebookPen aria-hidden size={20} />} act={() => write.mutate()} />}
        {pocket.kind !== "links" && <Add name={TEXTS.addAgain} icon={<FolderOpen aria-hidden size={20} />} act={() => setWay("again")} />}
      </div>
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      {way === "link" && <LinkForm groupId={groupId} portfolio={portfolio} pocket={pocket.id} onDone={close} />}
      <Suspense>
        {way === "photo" && (
          <PhotoDialog
            first={photos}
            onClose={close}
            onDone={(files) => {
              onFiles(files);
              close();
            }}
          />
        )}
        {way === "record" && (
          <RecordDialog
            title={RECORD.title}
            onClose={close}
            onDone={(file, name) => {
              onFiles([{ file, name }]);
              close();
            }}
          />
        )}
        {way === "again" && (
          <AgainDialog
            groupId={groupId}
            portfolio={portfolio}
            pocket={pocket.id}
            onClose={close}
            onChoose={(artefact) => {
              put.mutate(artefact.id);
              close();
            }}
          />
        )}
      </Suspense>
    </div>
  );
}

function Add({ name, icon, act, open }: { name: string; icon: ReactNode; act: () => void; open?: boolean }) {
  return (
    <button type="button" aria-expanded={open} className="inline-flex min-h-11 items-center gap-2 rounded-md px-3 text-base font-semibold hover:bg-today" onClick={act}>
      {icon}
      {name}
    </button>
  );
}
