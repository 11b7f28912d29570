/** What the staff give with a pocket: pictures to look at, files to open, starters to work from. */
import { Download } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { sizeWords } from "../viewer/files";
import { GIVEN } from "./givenTexts";

const Converted = lazy(() => patiently(() => import("../viewer/Viewer")).then((view) => ({ default: view.Converted })));

type File = Schema["GivenFileShape"];

export function GivenFiles({ files }: { files: File[] }) {
  if (files.length === 0) return null;
  const beside = files.filter((one) => one.role === "directions");
  const starters = files.filter((one) => one.role === "starter");
  return (
    <div className="flex flex-col gap-3">
      {beside.length > 0 && (
        <ul aria-label={GIVEN.withTheDirections} className="flex flex-wrap items-start gap-3">
          {beside.map((one) => (
            <li key={one.id} className={READABLE.test(one.media_type) ? "w-full" : ""}>
              <Given file={one} />
            </li>
          ))}
        </ul>
      )}
      {starters.length > 0 && (
        <section aria-label={GIVEN.startFromThis} className="rounded-lg border border-edge bg-paper p-3 text-base">
          <h2 className="text-base">{GIVEN.startFromThis}</h2>
          <p className="text-ink-soft">{GIVEN.openItMakeItYours}</p>
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

/** Kinds that the viewer shows; a PDF at once, others when they are asked for. */
const READABLE = /^(application\/pdf|text\/|application\/vnd\.(openxmlformats|oasis))/;

function Given({ file }: { file: File }) {
  if (file.kind === "picture") return <Picture file={file} />;
  return READABLE.test(file.media_type) ? <Read file={file} /> : <Open file={file} />;
}

/** A document, read in its place; the original beside it. */
function Read({ file }: { file: File }) {
  const [open, setOpen] = useState(file.media_type === "application/pdf");
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)} className="rounded-lg border border-edge bg-paper">
      <summary className="min-h-11 cursor-pointer px-4 py-2.5 font-semibold break-words">{file.title}</summary>
      {open && (
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keys
        <div role="region" aria-label={file.title} tabIndex={0} className="max-h-[50vh] overflow-y-auto border-t border-line p-3">
          <Suspense fallback={<div className="min-h-40" />}>
            <Converted file={{ of: "given-files", id: file.id, title: file.title }} />
          </Suspense>
        </div>
      )}
      <p className="border-t border-line p-2">
        <Open file={file} />
      </p>
    </details>
  );
}

function Picture({ file }: { file: File }) {
  return (
    <a href={`/api/given-files/${file.id}`} target="_blank" rel="noopener" className="block">
      <img src={`/api/given-files/${file.id}/thumbnail`} alt={file.title} className="max-h-56 max-w-full rounded-md border border-edge bg-paper" />
    </a>
  );
}

function Open({ file }: { file: File }) {
  return (
    <a
      href={`/api/given-files/${file.id}`}
      download={file.kind === "picture" ? file.title : undefined}
      className="inline-flex min-h-11 max-w-full items-center gap-2 rounded-md border border-edge bg-paper px-4 font-semibold hover:border-control"
    >
      <Download aria-hidden size={18} className="shrink-0" />
      <span className="min-w-0 truncate">{file.title}</span>
      <span className="shrink-0 font-normal text-quiet">{sizeWords(file.size)}</span>
    </a>
  );
}
