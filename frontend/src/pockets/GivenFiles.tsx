/** What the staff give with a pocket: pictures to look at, files to open, starters to work from. */
import { Download } from "lucide-react";
import type { Schema } from "../api/client";
import { sizeWords } from "../viewer/files";
import { TEXTS } from "./texts";

export function GivenFiles({ files }: { files: Schema["PocketFileShape"][] }) {
  if (files.length === 0) return null;
  const beside = files.filter((one) => one.role === "directions");
  const starters = files.filter((one) => one.role === "starter");
  return (
    <div className="flex flex-col gap-3">
      {beside.length > 0 && (
        <ul aria-label={TEXTS.givenWithTheDirections} className="flex flex-wrap items-start gap-3">
          {beside.map((one) => (
            <li key={one.id}>{one.kind === "picture" ? <Picture file={one} /> : <Open file={one} />}</li>
          ))}
        </ul>
      )}
      {starters.length > 0 && (
        <section aria-label={TEXTS.startFromThis} className="rounded-lg border border-edge bg-paper p-3 text-base">
          <h2 className="text-base">{TEXTS.startFromThis}</h2>
          <p className="text-ink-soft">{TEXTS.openItMakeItYours}</p>
          <ul className="mt-2 flex flex-wrap gap-3">
            {starters.map((one) => (
              <li key={one.id}>
                <Open file={one} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Picture({ file }: { file: Schema["PocketFileShape"] }) {
  return (
    <a href={`/api/pocket-files/${file.id}`} target="_blank" rel="noopener" className="block">
      <img src={`/api/pocket-files/${file.id}/thumbnail`} alt={file.title} className="max-h-56 max-w-full rounded-md border border-edge bg-paper" />
    </a>
  );
}

function Open({ file }: { file: Schema["PocketFileShape"] }) {
  return (
    <a
      href={`/api/pocket-files/${file.id}`}
      download={file.kind === "picture" ? file.title : undefined}
      className="inline-flex min-h-11 max-w-full items-center gap-2 rounded-md border border-edge bg-paper px-4 font-semibold hover:border-control"
    >
      <Download aria-hidden size={18} className="shrink-0" />
      <span className="min-w-0 truncate">{file.title}</span>
      <span className="shrink-0 font-normal text-quiet">{sizeWords(file.size)}</span>
    </a>
  );
}
