/** The further filters: which hand-ins, what some peg is, which students. Each says what it would leave. */
import { useMemo } from "react";
import type { ReactNode } from "react";
import { useGroupId } from "../api/session";
import { Pin } from "lucide-react";
import { Button } from "../ui/Button";
import { Panel } from "../ui/menus";
import type { Face } from "../ui/OnFirstUse";
import { filtered, FLAGS, FURTHER, LATELY, MAIN } from "./filters";
import { useFlagged } from "./flags";
import { MORE } from "./filterTexts";
import type { Props } from "./MoreFilters";
import { FILTERS } from "./texts";

export function FilterPanel({ face, ...props }: Props & { face: Face }) {
  return (
    <Panel face={face} className="max-h-[70dvh] w-[min(26rem,92vw)] gap-4 overflow-y-auto p-4">
      {(close) => (
        <>
          {props.whole && props.board.periods.length > 1 && <Periods {...props} />}
          <Columns {...props} />
          <Statuses {...props} />
          <Flags {...props} />
          {props.board.groups.length > 0 && <Groups {...props} />}
          <Students {...props} />
          <div className="flex justify-between gap-2">
            <Button look="quiet" onClick={props.onClear}>
              {MORE.clear}
            </Button>
            <Button onClick={close}>{MORE.done}</Button>
          </div>
        </>
      )}
    </Panel>
  );
}

function toggled<T>(all: T[], one: T): T[] {
  return all.includes(one) ? all.filter((other) => other !== one) : [...all, one];
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="flex min-w-0 flex-col gap-0.5">
      <legend className="pb-1 font-bold">{title}</legend>
      {children}
    </fieldset>
  );
}

function Tick({ checked, label, count, onChange }: { checked: boolean; label: string; count: ReactNode; onChange: () => void }) {
  return (
    <label className="flex min-h-8 items-center gap-2.5 rounded-sm px-1 hover:bg-ground">
      <input type="checkbox" className="size-4 shrink-0 accent-ink" checked={checked} onChange={onChange} />
      <span className="min-w-0 flex-1 break-words">{label}</span>
      <span className="figures shrink-0 text-quiet">{count}</span>
    </label>
  );
}

function Columns({ board, chosen, shown, onChange, whole = false }: Props) {
  const inSection = (title: string) => board.handins.filter((one) => one.sections.includes(title)).length;
  return (
    <Part title={MORE.handins}>
      <Tick checked={chosen.week} label={MORE.thisWeek} count={MORE.number({ count: shown.thisWeek })} onChange={() => onChange({ week: chosen.week ? null : "1" })} />
      {board.sections.map((title) => (
        <Tick
          key={title}
          checked={chosen.sections.includes(title)}
          label={title}
          count={MORE.number({ count: inSection(title) })}
          onChange={() => onChange({ section: toggled(chosen.sections, title) })}
        />
      ))}
      <details open={chosen.hidden.length + chosen.pinned.length > 0 || undefined}>
        <summary className="flex min-h-8 cursor-pointer items-center px-1">{MORE.oneByOne({ shown: board.handins.filter((one) => !chosen.hidden.includes(one.id)).length, all: board.handins.length })}</summary>
        {board.handins.map((one) => (
          <div key={one.id} className="flex items-center">
            <div className="min-w-0 flex-1">
              <Tick checked={!chosen.hidden.includes(one.id)} label={one.title} count={null} onChange={() => onChange({ hide: toggled(chosen.hidden, one.id).map(String) })} />
            </div>
            {!whole && <PinButton title={one.title} on={chosen.pinned.includes(one.id)} onPress={() => onChange({ pin: toggled(chosen.pinned, one.id).map(String) })} />}
          </div>
        ))}
      </details>
      {board.sections.length > 1 && !whole && <Tick checked={chosen.banded} label={MORE.banded} count={null} onChange={() => onChange({ cols: chosen.banded ? null : "section" })} />}
    </Part>
  );
}

/** A pinned hand-in stays beside the names. */
function PinButton({ title, on, onPress }: { title: string; on: boolean; onPress: () => void }) {
  return (
    <button type="button" aria-pressed={on} aria-label={MORE.pin({ title })} title={MORE.pin({ title })} onClick={onPress} className={`flex size-8 shrink-0 items-center justify-center rounded-md ${on ? "bg-ink text-paper" : "text-quiet hover:bg-ground"}`}>
      <Pin aria-hidden size={14} />
    </button>
  );
}

/** One period at a time. */
function Periods({ board, chosen, shown, onChange }: Props) {
  return (
    <Part title={MORE.periods}>
      {board.periods.map((name) => (
        <Tick key={name} checked={chosen.period === name} label={name} count={shown.inPeriod(name)} onChange={() => onChange({ period: chosen.period === name ? null : name })} />
      ))}
    </Part>
  );
}

function Statuses({ chosen, shown, onChange, whole = false }: Props) {
  return (
    <Part title={MORE.status}>
      {(whole ? [...MAIN.filter((chip) => chip !== "to_mark"), ...FURTHER] : FURTHER).map((chip) => (
        <Tick key={chip} checked={chosen.chips.includes(chip)} label={FILTERS[chip]} count={shown.counts[chip]} onChange={() => onChange({ show: toggled(chosen.chips, chip).join(",") })} />
      ))}
    </Part>
  );
}

/** Their counts are worked out only once somebody looks here. */
function Flags({ board, chosen, onChange }: Props) {
  const flagged = useFlagged(useGroupId(), true);
  const shown = useMemo(() => flagged && filtered(board, chosen, flagged).flagged, [board, chosen, flagged]);
  return (
    <Part title={MORE.flags}>
      {FLAGS.map((flag) => (
        <Tick key={flag} checked={chosen.flags.includes(flag)} label={MORE.flag[flag]} count={shown?.[flag]} onChange={() => onChange({ flag: toggled(chosen.flags, flag) })} />
      ))}
    </Part>
  );
}

/** One group at a time: a student is in few. */
function Groups({ board, chosen, shown, onChange }: Props) {
  return (
    <Part title={MORE.groups}>
      {board.groups.map((name) => (
        <Tick key={name} checked={chosen.group === name} label={name} count={shown.inGroup(name)} onChange={() => onChange({ group: chosen.group === name ? null : name })} />
      ))}
    </Part>
  );
}

function Students({ chosen, shown, onChange }: Props) {
  const lately = (one: "joined" | "left") => onChange({ lately: chosen.lately === one ? null : one });
  return (
    <Part title={MORE.students}>
      {(shown.agreed > 0 || chosen.agreed) && <Tick checked={chosen.agreed} label={MORE.agreed} count={shown.agreed} onChange={() => onChange({ agreed: chosen.agreed ? null : "1" })} />}
      <Tick checked={chosen.lately === "joined"} label={MORE.joined({ days: LATELY })} count={shown.joined} onChange={() => lately("joined")} />
      <Tick checked={chosen.lately === "left"} label={MORE.left({ days: LATELY })} count={shown.left} onChange={() => lately("left")} />
      <label className="flex min-h-8 items-center gap-2.5 px-1">
        <span className="min-w-0 flex-1">{MORE.quiet}</span>
        <input
          inputMode="numeric"
          autoComplete="off"
          className="figures min-h-8 w-14 rounded-md border border-control bg-paper px-2"
          defaultValue={chosen.quiet || ""}
          onChange={(event) => onChange({ quiet: /^\d{1,3}$/.test(event.target.value) ? event.target.value : null })}
        />
        <span>{MORE.days}</span>
        <span className="figures shrink-0 text-quiet">{chosen.quiet > 0 ? shown.quietFor(chosen.quiet) : null}</span>
      </label>
    </Part>
  );
}
