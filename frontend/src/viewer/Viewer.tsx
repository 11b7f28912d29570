/** Looking at an artefact in the page: pictures, pages, tables, texts, sound and video. */
import { useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../api/client";
import { viewDocumentQuery, viewQuery } from "./queries";
import type { Of } from "./queries";
import { Picture } from "./Picture";
import { fileAddress, sizeWords } from "./files";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { Player } from "../ui/reading/Player";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { plainText, RichText } from "../ui/reading/RichText";
import { Failed } from "../ui/Waiting";
import { TEXTS } from "./texts";
import { together } from "../ui/words";

type Artefact = Schema["ArtefactShape"];

export const VIEWER = {
  making: TEXTS.itIsBeingMadeReadable,
  take: TEXTS.downloadItToOpenIt,
  none: TEXTS.thereIsNoViewerFor,
  download: TEXTS.downloadTheOriginal,
  pages: TEXTS.pages,
} as const;

export function Viewer({ artefact, onClose }: { artefact: Artefact; onClose: () => void }) {
  return (
    <Modal title={artefact.title} onClose={onClose} wide>
      <Shown artefact={artefact} />
      {artefact.kind !== "text" && artefact.kind !== "link" && (
        <a href={`${fileAddress(artefact)}?download=true`} download className="inline-flex min-h-11 items-center gap-2 self-start font-semibold text-in underline">
          <Download aria-hidden size={16} />
          {VIEWER.download} ({sizeWords(artefact.size)})
        </a>
      )}
    </Modal>
  );
}

/** An artefact in full, without the dialog around it. */
export function Shown({ artefact }: { artefact: Artefact }) {
  if (artefact.kind === "picture") {
    return <Picture src={fileAddress(artefact)} alt={artefact.title} width={artefact.width ?? undefined} height={artefact.height ?? undefined} className="mx-auto h-auto w-auto max-w-full rounded-md border border-edge" />;
  }
  if (artefact.kind === "video" || artefact.kind === "sound") return <Player video={artefact.kind === "video"} src={fileAddress(artefact)} label={artefact.title} className="mx-auto max-h-[75vh]" />;
  if (artefact.kind === "text") {
    return (
      <div>
        <ReadAloud text={plainText(artefact.html)} />
        <RichText html={artefact.html} className="reading text-base" />
      </div>
    );
  }
  return artefact.kind === "link" ? null : <Converted file={{ of: "artefacts", id: artefact.id, title: artefact.title }} />;
}

/** A file that the viewer shows: an artefact's, one that staff give with a pocket, or one in the cupboard. */
export interface Viewable {
  of: Of;
  id: number;
  title: string;
}

/** A file as pages, a text or tables; it says so while it is made readable, and where it cannot be. */
export function Converted({ file }: { file: Viewable }) {
  const view = useQuery(viewQuery(file));
  if (view.isError) return <Failed error={view.error} again={() => void view.refetch()} />;
  if (!view.data || view.data.state === "waiting") {
    return (
      <div role="status" className="flex flex-col items-start gap-3">
        <progress aria-label={VIEWER.making} className="w-64 accent-in" />
        <p>{VIEWER.making}</p>
      </div>
    );
  }
  if (view.data.state === "none") return <p>{view.data.why ? `${view.data.why} ${VIEWER.take}` : VIEWER.none}</p>;
  if (view.data.state === "failed") return <Notice look="info" title={view.data.why} fix={VIEWER.take} />;
  return view.data.kind === "pages" ? <Pages file={file} pages={view.data.pages} /> : <Document file={file} />;
}

function Pages({ file, pages }: { file: Viewable; pages: number }) {
  return (
    <ol aria-label={VIEWER.pages} className="flex flex-col items-center gap-4">
      {Array.from({ length: pages }, (_, at) => (
        <li key={at}>
          <img src={`/api/${file.of}/${file.id}/view/pages/${at + 1}`} alt={TEXTS.titlePageAtOfPages({ title: file.title, at: at + 1, pages })} loading="lazy" className="min-h-40 max-w-full border border-edge shadow-sm" />
          <p className="figures mt-1 text-center text-sm text-quiet">
            {TEXTS.atOfPages({ at: at + 1, pages })}
          </p>
        </li>
      ))}
    </ol>
  );
}

function Document({ file }: { file: Viewable }) {
  const found = useQuery(viewDocumentQuery(file));
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  if (!found.data) return null;
  const { kind, note, html, text, left_out: left } = found.data;
  return (
    <>
      {note && <Notice look="info" title={note} />}
      {kind === "html" && (
        <>
          <ReadAloud text={plainText(html)} />
          <RichText html={html} className="reading text-base" />
        </>
      )}
      {kind === "text" && <pre className="overflow-x-auto rounded-md border border-edge bg-ground p-4 text-sm break-words whitespace-pre-wrap">{text}</pre>}
      {kind === "text" && left > 0 && <p className="text-quiet">{TEXTS.signsLeft({ left })}</p>}
      {kind === "tables" && <Tables tables={found.data.tables ?? []} />}
    </>
  );
}

function Tables({ tables }: { tables: Schema["ViewTable"][] }) {
  const [at, setAt] = useState(0);
  const table = tables[at];
  if (!table) return null;
  const [head, ...rows] = table.rows;
  const left = [table.rows_left_out > 0 ? TEXTS.rowsLeftOutRows({ rows_left_out: table.rows_left_out }) : "", table.columns_left_out > 0 ? TEXTS.columnsLeftOutColumns({ columns_left_out: table.columns_left_out }) : ""].filter(Boolean);
  return (
    <>
      {tables.length > 1 && (
        <div role="group" aria-label={TEXTS.tables} className="flex flex-wrap gap-2">
          {tables.map((one, place) => (
            <button key={place} type="button" aria-pressed={place === at} onClick={() => setAt(place)} className={`min-h-9 rounded-md border px-3 font-semibold ${place === at ? "border-ink bg-ink text-paper" : "border-edge"}`}>
              {one.name || TEXTS.tablePlace({ place: place + 1 })}
            </button>
          ))}
        </div>
      )}
      {head ? (
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keys
        <div role="region" aria-label={table.name || TEXTS.table} tabIndex={0} className="overflow-x-auto">
          <table className="border-collapse text-sm">
            <thead>
              <tr>
                {head.map((cell, place) => (
                  <th key={place} className="border border-edge bg-ground px-2 py-1 text-left">
                    {cell}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row, line) => (
                <tr key={line}>
                  {row.map((cell, place) => (
                    <td key={place} className="border border-edge px-2 py-1 align-top whitespace-pre-wrap">
                      {cell}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <p>{TEXTS.thisTableIsEmpty}</p>
      )}
      {left.length > 0 && <p className="text-quiet">{TEXTS.rowsColumnsLeft({ left: together(left) })}</p>}
    </>
  );
}
