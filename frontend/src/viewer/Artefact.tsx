/** An artefact to look at: a picture, a link, a text, or something to open in the viewer. */
import { Download, ExternalLink, Eye, File, FileText, Film, Link2, Mic, NotebookPen } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { plainText } from "../ui/reading/RichText";
import { fileAddress, sizeWords } from "./files";
import { Picture } from "./Picture";
import { TEXTS } from "./texts";

const Viewer = lazy(() => patiently(() => import("./Viewer")).then((view) => ({ default: view.Viewer })));

type Shape = Schema["ArtefactShape"];

const ICONS = { picture: File, scan: FileText, sound: Mic, video: Film, file: File, link: Link2, text: NotebookPen };

/** Small, for cards and panels; decorative, since the title stands beside it. */
// eslint-disable-next-line complexity -- one branch for each kind of artefact
export function Thumbnail({ artefact, tall = false, small = false }: { artefact: Shape; tall?: boolean; small?: boolean }) {
  const pictured = artefact.kind === "picture" || artefact.kind === "scan";
  const box = `flex w-full items-center justify-center overflow-hidden bg-today ${tall && pictured ? "h-52" : small ? "h-20" : "h-28"}`;
  if (pictured) {
    return (
      <span className={box}>
        <Picture
          src={`/api/artefacts/${artefact.id}/thumbnails/${tall ? "large" : "small"}`}
          alt=""
          loading="lazy"
          className="size-full object-cover object-top"
        />
      </span>
    );
  }
  if (artefact.kind === "text" && artefact.html) {
    return (
      <span className={`${box} items-start justify-start p-3`}>
        <span className="line-clamp-3 text-sm break-words text-ink-soft">{plainText(artefact.html)}</span>
      </span>
    );
  }
  const Icon = ICONS[artefact.kind];
  return (
    <span className={box}>
      <Icon aria-hidden size={40} strokeWidth={1.5} className="text-ink-soft" />
    </span>
  );
}

/** How to open it. */
export function OpenArtefact({ artefact }: { artefact: Shape }) {
  const [open, setOpen] = useState(false);
  const link = "inline-flex min-h-11 min-w-0 max-w-full items-center gap-2 font-semibold text-in underline";
  if (artefact.kind === "link") {
    return (
      <a href={artefact.link} target="_blank" rel="noopener noreferrer nofollow" className={link}>
        <ExternalLink aria-hidden size={16} className="shrink-0" />
        <span className="truncate">{artefact.link}</span>
      </a>
    );
  }
  return (
    <span className="flex flex-wrap gap-x-4">
      <button type="button" className={link} aria-label={TEXTS.lookAtItTitle({ title: artefact.title })} onClick={() => setOpen(true)}>
        <Eye aria-hidden size={16} className="shrink-0" />
        {TEXTS.lookAtIt}
      </button>
      {artefact.kind !== "text" && artefact.kind !== "picture" && (
        <a href={`${fileAddress(artefact)}?download=true`} download className={link}>
          <Download aria-hidden size={16} className="shrink-0" />
          {TEXTS.downloadSize({ size: sizeWords(artefact.size) })}
        </a>
      )}
      {open && (
        <Suspense>
          <Viewer artefact={artefact} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </span>
  );
}
