/** The evidence of a submission, as it was handed in. */
import { Picture } from "../viewer/Picture";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { OpenArtefact, Thumbnail } from "../viewer/Artefact";
import { fileAddress } from "../viewer/files";
import { LogSums } from "../log/LogSums";
import { LogTable } from "../log/LogTable";
import { ChipList } from "../ui/Chips";
import { Player } from "../ui/reading/Player";
import { Reflection } from "../ui/reading/Reflection";
import { RichText } from "../ui/reading/RichText";
import { TEXTS } from "./texts";

const Shown = lazy(() => patiently(() => import("../viewer/Viewer")).then((view) => ({ default: view.Shown })));

type Pocket = Schema["FrozenPocket"];
type Evidence = Schema["FrozenEvidence"];

export function FrozenPockets({ pockets }: { pockets: Pocket[] }) {
  return (
    <div className="flex flex-col gap-8">
      {pockets.map((pocket) => (
        <section key={pocket.id} aria-label={pocket.title}>
          {pockets.length > 1 && <h2 className="mb-2 text-lg">{pocket.title}</h2>}
          {pocket.version && <p className="mb-2 text-quiet">{TEXTS.versionVersion({ version: pocket.version })}</p>}
          <FrozenPocket pocket={pocket} />
        </section>
      ))}
    </div>
  );
}

function FrozenPocket({ pocket }: { pocket: Pocket }) {
  const [place, setPlace] = useState(0);
  if (pocket.log) return <FrozenLog pocket={pocket} log={pocket.log} />;
  const shown = pocket.evidence[Math.min(place, pocket.evidence.length - 1)];
  return (
    <div className="grid gap-4 xl:grid-cols-[minmax(0,1fr)_minmax(240px,340px)]">
      <div className="min-w-0">
        {shown ? <Seen evidence={shown} /> : <p className="rounded-md border border-edge bg-paper p-6 text-base">{TEXTS.nothingWasInThisPocket}</p>}
      </div>
      <div className="flex min-w-0 flex-col gap-4">
        {pocket.evidence.length > 1 && (
          <div role="group" aria-label={TEXTS.artefacts} className="flex flex-wrap gap-2">
            {pocket.evidence.map((one, at) => (
              <button
                key={one.id}
                type="button"
                aria-pressed={one === shown}
                onClick={() => setPlace(at)}
                className={`max-w-full truncate rounded-md border px-3 py-1 font-semibold ${one === shown ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
              >
                {one.artefact?.title ?? TEXTS.text}
              </button>
            ))}
          </div>
        )}
        {shown?.artefact && (
          <div className="flex flex-col gap-2 text-base">
            {shown.spoken && <Said spoken={shown.spoken} />}
            <Reflection text={shown.text} title={pocket.prompt || TEXTS.reflection} />
            {shown.text && <Counts evidence={shown} />}
          </div>
        )}
        {pocket.chips.length > 0 && (
          <div>
            <h3 className="font-bold">{TEXTS.pocketCheck}</h3>
            <ChipList chips={pocket.chips} />
          </div>
        )}
      </div>
    </div>
  );
}

function FrozenLog({ pocket, log }: { pocket: Pocket; log: Schema["LogShape"] }) {
  return (
    <div className="flex flex-col gap-4">
      {pocket.before > 0 && <p className="text-quiet">{TEXTS.rowsBefore({ count: pocket.before })}</p>}
      {log.rows.length > 0 ? <LogTable log={log} /> : <p className="rounded-md border border-edge bg-paper p-6 text-base">{TEXTS.nothingWasInThisLog}</p>}
      <LogSums log={log} />
      {pocket.chips.length > 0 && <ChipList chips={pocket.chips} />}
    </div>
  );
}

function Counts({ evidence }: { evidence: Evidence }) {
  return (
    <p className="figures mt-1 pl-3 text-sm text-quiet">
      {TEXTS.wordsWordsSentencesSentences({ words: evidence.words, sentences: evidence.sentences })}
    </p>
  );
}

/** A reflection as it was said. */
function Said({ spoken }: { spoken: NonNullable<Evidence["spoken"]> }) {
  return (
    <div className="border-l-3 border-brass pl-3">
      <p className="font-bold">{TEXTS.asItWasSaid}</p>
      <Player video={spoken.kind === "video"} src={fileAddress(spoken)} label={TEXTS.asItWasSaid} className="max-h-64" />
    </div>
  );
}

// eslint-disable-next-line complexity -- one branch for each kind of artefact
function Seen({ evidence }: { evidence: Evidence }) {
  const artefact = evidence.artefact;
  if (!artefact) {
    return (
      <div className="flex flex-col gap-2 rounded-md border border-edge bg-paper p-5 text-base">
        {evidence.spoken && <Said spoken={evidence.spoken} />}
        {evidence.html && !evidence.unchanged ? <RichText html={evidence.html} className="reading" /> : <Reflection text={evidence.text} title={evidence.unchanged ? TEXTS.unchangedFromTheStarter : TEXTS.text} />}
        <Counts evidence={evidence} />
      </div>
    );
  }
  return (
    <figure className="flex flex-col gap-2">
      {evidence.unchanged && <p className="text-copper">{TEXTS.thisIsTheVeryFile}</p>}
      {artefact.kind === "picture" ? (
        <a href={fileAddress(artefact)} target="_blank" rel="noopener" className="block">
          <Picture
            src={`/api/artefacts/${artefact.id}/thumbnails/large`}
            alt={artefact.title}
            width={artefact.width ?? undefined}
            height={artefact.height ?? undefined}
            className="mx-auto h-auto max-h-[70vh] w-auto max-w-full rounded-md border border-edge bg-paper"
          />
        </a>
      ) : (
        <div className="flex flex-col gap-3 rounded-md border border-edge bg-paper p-6">
          <p className="text-base font-bold break-words">{artefact.title}</p>
          {["text", "sound", "video"].includes(artefact.kind) && (
            <Suspense>
              <Shown artefact={artefact} />
            </Suspense>
          )}
          {artefact.kind === "scan" && <Thumbnail artefact={artefact} tall />}
          <OpenArtefact artefact={artefact} />
          {artefact.kind === "link" && <p className="text-quiet">{TEXTS.theAddressIsAsIt}</p>}
        </div>
      )}
      <figcaption className="truncate text-quiet">{artefact.title}</figcaption>
    </figure>
  );
}
