/** The evidence of a submission, as it was handed in. */
import { Picture } from "../viewer/Picture";
import { lazy, Suspense, useLayoutEffect, useState } from "react";
import type { ReactNode } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { OpenArtefact, Thumbnail } from "../viewer/Artefact";
import { fileAddress } from "../viewer/files";
import { LogSums } from "../log/LogSums";
import { LogTable } from "../log/LogTable";
import { ChipList } from "../ui/Chips";
import { isTyped, useLetterKeys } from "../ui/keys";
import { PutInBy } from "../ui/people/PutInBy";
import { Player } from "../ui/reading/Player";
import { Reflection } from "../ui/reading/Reflection";
import { RichText } from "../ui/reading/RichText";
import { RowRemarks } from "./said/RowRemarks";
import { useSaid } from "./said/said";
import type { Said as SaidOnWork, Target } from "./said/said";
import { SAID } from "./said/saidTexts";
import { SaidDocument } from "./said/SaidDocument";
import { SaidList } from "./said/SaidList";
import { SaidPicture } from "./said/SaidPicture";
import { SaidRecording } from "./said/SaidRecording";
import { SaidText } from "./said/SaidText";
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
  const last = pocket.evidence.length - 1;
  useSteps(last > 0, (by) => setPlace(Math.min(Math.max(Math.min(place, last) + by, 0), last)));
  if (pocket.log) return <FrozenLog pocket={pocket} log={pocket.log} />;
  const shown = pocket.evidence[Math.min(place, last)];
  return (
    <div className="@container">
    <div className="grid gap-4 @[42rem]:grid-cols-[minmax(0,1fr)_minmax(240px,340px)]">
      <div className="min-w-0">
        {shown ? <Seen key={shown.id} evidence={shown} pocket={pocket.id} /> : <p className="rounded-md border border-edge bg-paper p-6 text-base">{TEXTS.nothingWasInThisPocket}</p>}
      </div>
      <Side pocket={pocket} shown={shown} onShow={setPlace} />
    </div>
    </div>
  );
}

/** Comma and full stop: the artefact before, the next one. */
function useSteps(several: boolean, step: (by: number) => void): void {
  const letters = useLetterKeys();
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const by = event.key === "," ? -1 : event.key === "." ? 1 : 0;
      if (!letters || !several || by === 0 || isTyped(event)) return;
      event.preventDefault();
      step(by);
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  });
}

function Check({ chips }: { chips: Pocket["chips"] }) {
  if (chips.length === 0) return null;
  return (
    <div>
      <h3 className="font-bold">{TEXTS.pocketCheck}</h3>
      <ChipList chips={chips} />
    </div>
  );
}

/** How much is said on an evidence, so that none is missed. */
function SaidOn({ said, pocket, evidence }: { said: SaidOnWork | null; pocket: number; evidence: number }) {
  const count = said?.list.filter((one) => one.target.pocket === pocket && one.target.evidence === evidence).length ?? 0;
  return count > 0 ? <span className="figures font-normal"> · {SAID.countOf({ count })}</span> : null;
}

/** What stands beside an evidence: the others of its pocket, the student's words about it, what was wanted, what is said. */
function Side({ pocket, shown, onShow }: { pocket: Pocket; shown: Evidence | undefined; onShow: (place: number) => void }) {
  const said = useSaid();
  return (
    <div className="flex min-w-0 flex-col gap-4">
      {pocket.evidence.length > 1 && (
        <div role="group" aria-label={TEXTS.artefacts} className="flex flex-wrap gap-2">
          {pocket.evidence.map((one, at) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={one === shown}
              onClick={() => onShow(at)}
              className={`max-w-full truncate rounded-md border px-3 py-1 font-semibold ${one === shown ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
            >
              {one.artefact?.title ?? TEXTS.text}
              <SaidOn said={said} pocket={pocket.id} evidence={one.id} />
            </button>
          ))}
        </div>
      )}
      {shown?.artefact && (
        <div className="flex flex-col gap-2 text-base">
          {shown.spoken && <Said spoken={shown.spoken} />}
          <Commented target={{ pocket: pocket.id, evidence: shown.id, part: "text" }}>
            <Reflection text={shown.text} title={pocket.prompt || TEXTS.reflection} />
          </Commented>
          {shown.text && <Counts evidence={shown} />}
        </div>
      )}
      <Check chips={pocket.chips} />
      {said && <SaidList said={said} pocket={pocket.id} target={shown ? targetOf(pocket, shown) : { pocket: pocket.id }} {...(shown ? { evidence: shown.id } : {})} />}
    </div>
  );
}

/** What a comment that is begun beside an evidence is on: its artefact, else its words. */
function targetOf(pocket: Pocket, evidence: Evidence): Target {
  return { pocket: pocket.id, evidence: evidence.id, part: evidence.artefact ? "artefact" : "text" };
}

/** Words on which something can be said. */
function Commented({ target, children }: { target: Target; children: ReactNode }) {
  const said = useSaid();
  return said ? (
    <SaidText said={said} target={target}>
      {children}
    </SaidText>
  ) : (
    children
  );
}

function FrozenLog({ pocket, log }: { pocket: Pocket; log: Schema["LogShape"] }) {
  const said = useSaid();
  return (
    <div className="flex flex-col gap-4">
      {pocket.before > 0 && <p className="text-quiet">{TEXTS.rowsBefore({ count: pocket.before })}</p>}
      {log.rows.length > 0 ? <LogTable log={log} {...(said ? { remark: (row) => <RowRemarks said={said} pocket={pocket.id} row={row} /> } : {})} /> : <p className="rounded-md border border-edge bg-paper p-6 text-base">{TEXTS.nothingWasInThisLog}</p>}
      <LogSums log={log} />
      {pocket.chips.length > 0 && <ChipList chips={pocket.chips} />}
      {said && <SaidList said={said} pocket={pocket.id} target={{ pocket: pocket.id }} />}
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
function Seen({ evidence, pocket }: { evidence: Evidence; pocket: number }) {
  const artefact = evidence.artefact;
  const said = useSaid();
  const on = (part: "text" | "artefact"): Target => ({ pocket, evidence: evidence.id, part });
  if (!artefact) {
    return (
      <div className="flex flex-col gap-2 rounded-md border border-edge bg-paper p-5 text-base">
        {evidence.spoken && <Said spoken={evidence.spoken} />}
        <Commented target={on("text")}>
          {evidence.html && !evidence.unchanged ? <RichText html={evidence.html} className="reading" /> : <Reflection text={evidence.text} title={evidence.unchanged ? TEXTS.unchangedFromTheStarter : TEXTS.text} />}
        </Commented>
        <Counts evidence={evidence} />
      </div>
    );
  }
  return (
    <figure className="flex flex-col gap-2">
      {evidence.unchanged && <p className="text-copper">{TEXTS.thisIsTheVeryFile}</p>}
      {artefact.kind === "picture" && said ? (
        <SaidPicture said={said} target={on("artefact")} artefact={artefact} />
      ) : artefact.kind === "picture" ? (
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
          {artefact.kind === "text" && (
            <Suspense>
              <Commented target={on("artefact")}>
                <Shown artefact={artefact} />
              </Commented>
            </Suspense>
          )}
          {(artefact.kind === "sound" || artefact.kind === "video") && <SaidRecording said={said} target={on("artefact")} artefact={artefact} />}
          {said && (artefact.kind === "scan" || artefact.kind === "file") ? <SaidDocument said={said} target={on("artefact")} artefact={artefact} /> : artefact.kind === "scan" && <Thumbnail artefact={artefact} tall />}
          <OpenArtefact artefact={artefact} />
          {artefact.kind === "link" && <p className="text-quiet">{TEXTS.theAddressIsAsIt}</p>}
        </div>
      )}
      <figcaption className="truncate text-quiet">{artefact.title}</figcaption>
      <PutInBy by={evidence.by} />
    </figure>
  );
}
