/** How the class begins: the portfolio that every student has, as they and as staff see it, and its hand-ins. */
import { useState } from "react";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { read } from "../laid/standIns";
import { KINDS } from "../laid/texts";
import { Notes, said } from "../laid/Understood";
import { Coat } from "../ui/Coat";
import { day } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { TEXTS } from "./texts";

type As = keyof typeof TEXTS.as;
type Looked = Schema["LookedShape"];

export function Beginning({ look, error }: { look: Looked | undefined; error: unknown }) {
  const [as, setAs] = useState<As>("student");
  return (
    <section aria-label={TEXTS.preview} className="flex min-h-0 min-w-0 flex-1 flex-col gap-3 overflow-y-auto p-5 max-lg:flex-none max-lg:overflow-visible low:overflow-visible">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-base">{TEXTS.preview}</h2>
        <div role="group" aria-label={TEXTS.seenAs} className="flex gap-1">
          {(Object.keys(TEXTS.as) as As[]).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === as}
              onClick={() => setAs(one)}
              className={`min-h-8 rounded-md border px-2.5 text-xs font-semibold ${one === as ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
            >
              {TEXTS.as[one]}
            </button>
          ))}
        </div>
      </div>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      {look ? <Found look={look} as={as} /> : <p className="rounded-lg border border-dashed border-control p-6 text-center text-ink-soft">{TEXTS.nothingYet}</p>}
    </section>
  );
}

function Found({ look, as }: { look: Looked; as: As }) {
  const shown = look.sections.filter((section) => as === "staff" || !section.repeats);
  return (
    <>
      <Notes notes={look.problems} wrong />
      <div className="shrink-0 overflow-hidden rounded-lg border border-edge bg-paper">
        {shown.map((section, at) => (
          <div key={at}>
            <h3 className="border-b border-line bg-ground px-4 py-2 text-base break-words">{read(section.title)}</h3>
            <ul>
              {section.pockets.map((pocket, place) => (
                <Pocket key={place} pocket={pocket} as={as} />
              ))}
            </ul>
          </div>
        ))}
      </div>
      {as === "staff" && look.handins.length > 0 && (
        <div>
          <h3 className="text-base">{TEXTS.handinsThen}</h3>
          <ul className="mt-1 list-disc pl-5">
            {look.handins.map((one, at) => (
              <li key={at} className="break-words">
                {one.due_day ? TEXTS.due({ title: one.title, day: day(one.due_day) }) : TEXTS.noDue({ title: one.title })}
                {one.draft && <span className="text-quiet"> · {TEXTS.draft}</span>}
              </li>
            ))}
          </ul>
        </div>
      )}
      <Notes notes={look.notes} />
    </>
  );
}

function Pocket({ pocket, as }: { pocket: Schema["PocketSettings"]; as: As }) {
  const Icon = KINDS[pocket.kind].icon;
  return (
    <li className="flex items-center gap-3 border-b border-line px-4 py-2 last:border-b-0">
      {as === "student" ? <Coat state={{ status: "empty" }} size={24} /> : <Icon aria-hidden size={18} className="mx-0.5 shrink-0 text-ink-soft" />}
      <span className="min-w-0">
        <span className="block font-semibold break-words">{read(pocket.title)}</span>
        {as === "staff" && <span className="text-sm text-quiet">{said(pocket)}</span>}
      </span>
    </li>
  );
}
