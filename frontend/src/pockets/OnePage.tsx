/** The whole portfolio on one page: read from top to bottom, printed, each submission of it found by its day. */
import { useQueries } from "@tanstack/react-query";
import { Printer } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { pocketQuery } from "../api/queries";
import { LogTable } from "../log/LogTable";
import { Button } from "../ui/Button";
import { localDay, moment } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { isDay } from "../ui/days/parseDay";
import { PutInBy } from "../ui/people/PutInBy";
import { Reflection } from "../ui/reading/Reflection";
import { RichText } from "../ui/reading/RichText";
import { Failed, Waiting } from "../ui/Waiting";
import { OpenArtefact } from "../viewer/Artefact";
import { Picture } from "../viewer/Picture";
import { stateWords } from "./stateWords";
import { TEXTS, WHOLE } from "./texts";

type Portfolio = Schema["PortfolioShape"];
type Pocket = Schema["OpenedPocket"];
type Submission = Schema["SubmissionLine"] & { title: string };

export function OnePage({ groupId, portfolio }: { groupId: number; portfolio: Portfolio }) {
  const found = useQueries({ queries: portfolio.pockets.map((one) => pocketQuery(groupId, portfolio.id, one.id)) });
  const failed = found.find((one) => one.isError);
  if (failed) return <Failed error={failed.error} again={() => void failed.refetch()} />;
  const pockets = found.flatMap((one) => one.data ?? []);
  if (pockets.length < portfolio.pockets.length) return <Waiting />;
  return (
    <article className="on-a4 mx-auto flex w-full max-w-4xl flex-col gap-6 p-6 text-base max-sm:p-4">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h1 className="text-2xl break-words">{portfolio.cover.title || portfolio.student.full_name}</h1>
          <p className="text-ink-soft">
            {[portfolio.cover.title && portfolio.student.full_name, portfolio.group.name].filter(Boolean).join(" · ")} · {TEXTS.inPockets({ met: portfolio.met, wanted: portfolio.wanted })}
          </p>
        </div>
        <Button big className="print:hidden" icon={<Printer aria-hidden size={18} />} onClick={() => window.print()}>
          {WHOLE.print}
        </Button>
      </div>
      <Submissions pockets={pockets} base={`/g/${groupId}/portfolio/${portfolio.id}`} />
      {portfolio.sections.map((section) => (
        <section key={section.id} aria-label={section.title} className="flex flex-col gap-5">
          <h2 className="border-b-2 border-ink pb-1 text-xl break-words">{section.title}</h2>
          {portfolio.pockets.map((line, at) => {
            const pocket = pockets[at];
            return line.section_id === section.id && pocket ? <One key={line.id} line={line} pocket={pocket} /> : null;
          })}
        </section>
      ))}
    </article>
  );
}

/** What was handed in, newest first; of one day where one is chosen. */
function Submissions({ pockets, base }: { pockets: Pocket[]; base: string }) {
  const [day, setDay] = useState("");
  const all = new Map<number, Submission>();
  for (const pocket of pockets) for (const handin of pocket.handins) for (const one of handin.submissions) if (!one.voided_at) all.set(one.id, { ...one, title: handin.title });
  if (all.size === 0) return null;
  const ordered = [...all.values()].sort((one, other) => other.at.localeCompare(one.at));
  const shown = isDay(day) ? ordered.filter((one) => localDay(one.at) === day) : ordered;
  return (
    <section aria-label={WHOLE.submissions} className="rounded-lg border border-edge bg-paper p-4">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 className="text-lg">{WHOLE.submissions}</h2>
        <DateField label={WHOLE.ofDay} row value={day} onChange={setDay} className="print:hidden" />
      </div>
      {shown.length === 0 && <p className="mt-2 text-quiet">{WHOLE.noneThatDay}</p>}
      <ul className="mt-2">
        {shown.map((one) => (
          <li key={one.id} className="flex flex-wrap justify-between gap-x-4 border-t border-line py-1.5">
            <Link to={`${base}/submission/${one.id}`} className="min-w-0 font-semibold break-words text-in underline">
              {WHOLE.submission({ title: one.title, number: one.number })}
            </Link>
            <span className="figures text-ink-soft">
              {moment(one.at)} · {WHOLE.became[one.outcome ?? "waits"]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function One({ line, pocket }: { line: Portfolio["pockets"][number]; pocket: Pocket }) {
  const empty = pocket.evidence.length === 0 && !pocket.log?.rows.length;
  return (
    <section aria-label={pocket.title}>
      <h3 className="flex flex-wrap items-baseline gap-x-3 text-lg">
        <span className="min-w-0 break-words">{pocket.title}</span>
        <span className="text-sm font-normal text-quiet">{stateWords(line)}</span>
      </h3>
      {empty && <p className="text-quiet">{WHOLE.nothingYet}</p>}
      <div className="mt-2 flex flex-col gap-5">
        {pocket.evidence.map((one) => (
          <Evidence key={one.id} one={one} prompt={pocket.prompt} />
        ))}
        {pocket.log && pocket.log.rows.length > 0 && <LogTable log={pocket.log} />}
      </div>
    </section>
  );
}

function Evidence({ one, prompt }: { one: Pocket["evidence"][number]; prompt: string }) {
  const { artefact } = one;
  return (
    <div className="flex flex-col gap-2">
      {artefact && <Artefact artefact={artefact} />}
      <PutInBy by={one.by} />
      {artefact ? one.text && <Reflection text={one.text} title={prompt || undefined} /> : one.html ? <RichText html={one.html} /> : <p className="break-words whitespace-pre-wrap">{one.text}</p>}
    </div>
  );
}

function Artefact({ artefact }: { artefact: Schema["ArtefactShape"] }) {
  if (artefact.kind === "picture" || artefact.kind === "scan")
    return <Picture src={`/api/artefacts/${artefact.id}/thumbnails/large`} alt={artefact.title} className="max-h-[60vh] max-w-full self-start rounded-md border border-line object-contain print:max-h-[220mm]" />;
  return (
    <div>
      <p className="font-semibold break-words">{artefact.title}</p>
      {artefact.kind === "text" ? <RichText html={artefact.html} /> : <OpenArtefact artefact={artefact} />}
    </div>
  );
}
