/** What an outline would lay out: its sections and pockets as they will stand, and what to know or mend of it. */
import type { Schema } from "../api/client";
import { heading, TYPES } from "../log/cells";
import { RichText } from "../ui/reading/RichText";
import { lengthWords } from "../ui/Chips";
import { together } from "../ui/words";
import { read } from "./standIns";
import { asksFor, KINDS, READ, TAKES } from "./texts";

type Found = Schema["ReadOutline"];

export function Understood({ found }: { found: Found | null }) {
  return (
    <section aria-label={READ.understood} className="flex flex-col gap-3 md:not-low:min-h-0">
      <h2 className="text-base">{READ.understood}</h2>
      {found && <Notes notes={found.problems} wrong />}
      {/* What scrolls must be reached by the keyboard. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
      <div tabIndex={0} className="min-h-40 flex-1 overflow-y-auto rounded-md border border-edge bg-paper">
        {found ? found.sections.map((section, at) => <Section key={at} section={section} into={found.into} />) : <p className="p-4 text-quiet">{READ.nothingYet}</p>}
      </div>
      {found && <Notes notes={found.notes} />}
    </section>
  );
}

function Section({ section, into }: { section: Schema["ReadSection"]; into: string }) {
  return (
    <div>
      <h3 className="border-b border-line bg-ground px-3 py-1.5 text-sm break-words">
        {section.title || READ.into({ section: into })}
        {section.repeats && <span className="font-normal text-ink-soft"> · {READ.repeats}</span>}
      </h3>
      <ul>
        {section.pockets.map((one) => (
          <Pocket key={one.line} settings={one.settings} />
        ))}
      </ul>
    </div>
  );
}

function Pocket({ settings }: { settings: Schema["PocketSettings"] }) {
  const Icon = KINDS[settings.kind].icon;
  const columns = settings.log?.columns ?? [];
  return (
    <li className="border-b border-line px-3 py-2">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <Icon aria-hidden size={16} className="shrink-0 self-center text-ink-soft" />
        <span className="min-w-0 font-semibold break-words">{read(settings.title)}</span>
        <span className="text-sm text-quiet">
          {said(settings)}
        </span>
      </p>
      {columns.length > 0 && <p className="pl-6 text-sm text-ink-soft">{columns.map((one) => `${heading(one)}: ${one.type === "choice" ? (one.choices ?? []).join(" / ") : TYPES[one.type]}`).join(" · ")}</p>}
      {settings.directions && <RichText html={settings.directions} className="pl-6 text-sm text-ink-soft" />}
    </li>
  );
}

/** What a pocket is and asks for, in a few words. */
export function said(settings: Schema["PocketSettings"]): string {
  const { kind, measure, least, most = null, takes = [], counts } = settings;
  const length = lengthWords({ measure, least, most });
  const only = takes.length > 0 ? READ.takesOnly({ kinds: together(takes.map((one) => TAKES[one])) }) : "";
  return [KINDS[kind].name, kind === "page" ? "" : asksFor(settings), length, only, counts ? "" : READ.optional].filter(Boolean).join(" · ");
}

/** What is told of lines, or has to be mended in them. */
export function Notes({ notes, wrong = false }: { notes: Schema["OutlineNote"][]; wrong?: boolean }) {
  if (notes.length === 0) return null;
  return (
    <div role="status" className={`max-h-40 overflow-y-auto rounded-md border p-3 text-sm ${wrong ? "border-overdue bg-overdue-soft" : "border-edge bg-in-soft"}`}>
      <p className="font-bold">{wrong ? READ.toMend : READ.toKnow}</p>
      <ul>
        {notes.map((one, at) => (
          <li key={at}>
            {READ.line({ line: one.line, what: one.what })} {one.fix}
          </li>
        ))}
      </ul>
    </div>
  );
}
