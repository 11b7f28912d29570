/** Groups that a student chooses: a line over the pockets for each set, opened to see who is where. */
import { Users } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { shortDay } from "../ui/dates";
import { CHOICE } from "./choiceTexts";

const ChooseGroup = lazy(() => patiently(() => import("./ChooseGroup")).then((view) => ({ default: view.ChooseGroup })));

export function Choices({ portfolio }: { portfolio: Schema["PortfolioShape"] }) {
  const [open, setOpen] = useState<number | null>(null);
  const opened = portfolio.choices.find((one) => one.id === open);
  return (
    <>
      {portfolio.choices.map((one) => {
        const mine = one.groups.find((group) => group.mine);
        return (
          <button key={one.id} type="button" onClick={() => setOpen(one.id)} className="flex min-h-14 w-full items-center gap-3 border-b border-line bg-today px-4 py-2 text-left">
            <Users aria-hidden size={22} className="shrink-0 text-copper" />
            <span className="min-w-0 flex-1">
              <span className="block font-bold break-words">{mine ? CHOICE.inGroup({ name: mine.name }) : CHOICE.choose}</span>
              <span className="text-ink-soft">{CHOICE.until({ set: one.name, day: shortDay(one.until) })}</span>
            </span>
          </button>
        );
      })}
      {opened && (
        <Suspense fallback={null}>
          <ChooseGroup groupId={portfolio.group.id} choice={opened} onClose={() => setOpen(null)} />
        </Suspense>
      )}
    </>
  );
}
