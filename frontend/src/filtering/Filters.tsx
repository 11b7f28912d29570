/** Chips that filter and show their counts; they combine with period, group and name. */
import { ChevronDown } from "lucide-react";
import { OnFirstUse } from "../ui/OnFirstUse";
import { MAIN } from "./filters";
import type { Board, Chosen, Filtered } from "./filters";
import { FILTERS, TEXTS } from "./texts";
import type { FilterName } from "./texts";

interface Props {
  board: Board;
  chosen: Chosen;
  shown: Filtered;
  onChange: (changes: Record<string, string | string[] | null>) => void;
}

export const PILL = "flex min-h-8 items-center gap-1.5 rounded-full border px-2.5 font-semibold whitespace-nowrap";

export function Filters({ board, chosen, shown, onChange }: Props) {
  const toggle = (chip: FilterName) => {
    const next = chosen.chips.includes(chip) ? chosen.chips.filter((one) => one !== chip) : [...chosen.chips, chip];
    onChange({ show: next.join(",") });
  };
  return (
    <div role="group" aria-label={TEXTS.filters} className="contents">
      {board.periods.length > 1 && (
        <Choice
          all={TEXTS.allPeriods}
          options={board.periods.map((name) => ({ name, count: shown.inPeriod(name) }))}
          value={chosen.period}
          onChange={(period) => onChange({ period })}
        />
      )}
      {MAIN.map((chip) => {
        const on = chosen.chips.includes(chip);
        // On a narrow screen the last one stands under "More filters" alone, where it takes any number of days.
        if (!on && shown.counts[chip] === 0 && (chip === "late" || chip === "overdue")) return null;
        return (
          <button
            key={chip}
            type="button"
            aria-pressed={on}
            onClick={() => toggle(chip)}
            className={`${PILL} ${!on && chip === "quiet" ? "max-[1360px]:hidden" : ""} ${on ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
          >
            {FILTERS[chip]}
            <span className="figures font-bold">{shown.counts[chip]}</span>
          </button>
        );
      })}
      {shown.rest && (chosen.chips.length > 0 || chosen.period || chosen.group) && <span className="text-sm text-ink-soft">{TEXTS.filtersRest}</span>}
    </div>
  );
}

interface ChoiceProps {
  all: string;
  options: { name: string; count: number }[];
  value: string;
  onChange: (value: string) => void;
}

function Choice({ all, options, value, onChange }: ChoiceProps) {
  return (
    <OnFirstUse
      kind="Choices"
      face={{
        className: `${PILL} ${value ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`,
        content: (
          <>
            {value || all}
            <ChevronDown aria-hidden size={15} />
          </>
        ),
      }}
      value={value}
      options={[
        { value: "", shown: all },
        ...options.map(({ name, count }) => ({
          value: name,
          shown: (
            <>
              <span className="min-w-0 flex-1">{name}</span>
              <span className="figures text-quiet">{count}</span>
            </>
          ),
        })),
      ]}
      onChange={onChange}
    />
  );
}
