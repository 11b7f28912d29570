/** An artefact to look at: a picture, a link, or a file to download. */
import { Download, ExternalLink, File, Link2 } from "lucide-react";
import type { Schema } from "../api/client";

type Shape = Schema["ArtefactShape"];

/** A size in words. */
export function sizeWords(bytes: number): string {
  if (bytes < 1024) return `${bytes} bytes`;
  return bytes < 1024 * 1024 ? `${Math.round(bytes / 1024)} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

/** The address of its bytes. */
export function fileAddress(artefact: Shape): string {
  return `/api/artefacts/${artefact.id}/file`;
}

/** Small, for cards and panels; decorative, since the title stands beside it. */
export function Thumbnail({ artefact, tall = false }: { artefact: Shape; tall?: boolean }) {
  const box = `flex w-full items-center justify-center overflow-hidden bg-today ${tall ? "h-52" : "h-28"}`;
  if (artefact.kind === "picture") {
    return (
      <span className={box}>
        <img
          src={`/api/artefacts/${artefact.id}/thumbnails/${tall ? "large" : "small"}`}
          alt=""
          loading="lazy"
          className="size-full object-cover object-top"
        />
      </span>
    );
  }
  const Icon = artefact.kind === "link" ? Link2 : File;
  return (
    <span className={box}>
      <Icon aria-hidden size={40} strokeWidth={1.5} className="text-ink-soft" />
    </span>
  );
}

/** How to open it. */
export function OpenArtefact({ artefact }: { artefact: Shape }) {
  const link = "inline-flex min-h-8 min-w-0 max-w-full items-center gap-2 font-semibold text-in underline";
  if (artefact.kind === "link") {
    return (
      <a href={artefact.link} target="_blank" rel="noopener noreferrer nofollow" className={link}>
        <ExternalLink aria-hidden size={16} className="shrink-0" />
        <span className="truncate">{artefact.link}</span>
      </a>
    );
  }
  if (artefact.kind === "picture") {
    return (
      <a href={fileAddress(artefact)} target="_blank" rel="noopener" className={link}>
        <ExternalLink aria-hidden size={16} className="shrink-0" />
        Open in full
      </a>
    );
  }
  return (
    <a href={fileAddress(artefact)} download className={link}>
      <Download aria-hidden size={16} className="shrink-0" />
      Download ({sizeWords(artefact.size)})
    </a>
  );
}
