/** How a hand-in came out by criterion: for each a bar a level, with how many reached it. */
import type { Schema } from "../api/client";
import { Panel } from "../ui/menus";
import type { Face } from "../ui/OnFirstUse";
import { SHEET } from "./sheetTexts";

type Column = Schema["SheetColumn"];

export function CriteriaPanel({ face, one }: { face: Face; one: Column }) {
  return (
    <Panel face={face} className="max-h-[70dvh] w-[min(30rem,92vw)] gap-4 overflow-y-auto p-4">
      {() => (
        <>
          <p className="font-bold break-words">{one.title}</p>
          {one.criteria.map((criterion, at) => (
            <Criterion key={at} levels={one.levels} of={criterion} />
          ))}
        </>
      )}
    </Panel>
  );
}

function Criterion({ levels, of }: { levels: string[]; of: Column["criteria"][number] }) {
  const most = Math.max(1, ...of.counts);
  return (
    <section>
      <h3 className="text-sm font-bold break-words">{of.title}</h3>
      <ul>
        {levels.map((level, at) => {
          const count = of.counts[at] ?? 0;
          return (
            <li key={level} className="grid grid-cols-[8rem_1fr_2.5rem] items-center gap-2 text-sm">
              <span className="truncate" title={level}>
                {level}
              </span>
              <svg aria-hidden viewBox="0 0 100 8" preserveAspectRatio="none" className="h-2.5 w-full">
                <path d="M0,7.5H100" className="fill-none stroke-line" />
                <rect width={(100 * count) / most} height={8} className="fill-in" />
              </svg>
              <span className="figures text-right">{SHEET.levelCount({ count })}</span>
            </li>
          );
        })}
      </ul>
      {of.not_judged > 0 && <p className="figures text-sm text-quiet">{SHEET.notJudged({ count: of.not_judged })}</p>}
    </section>
  );
}
