/** The lines of a list with what each would do; a bad one is mended in place. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from "@headlessui/react";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowLeftRight, ArrowRight, Check, ChevronDown, CircleAlert, CopyMinus, LogIn, MessageCircleQuestion, Pencil, UserPlus } from "lucide-react";
import { useRef, useState } from "react";
import type { ComponentType } from "react";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import type { Preview, Table } from "./list";
import { WRITTEN } from "../ui/people/texts";
import { COLUMNS, TEXTS, VERDICTS } from "./texts";

type Line = Schema["LineShape"];
type Verdict = Line["verdict"];
type Column = Table["columns"][number];
const ROW = 52;
const BAD_ROW = 76;
/** Pixels: a bad line says in full what is wrong with it. */
const BAD: Verdict[] = ["incomplete", "unreadable"];
const NAMED: Verdict[] = ["new", "here", "changed"];
/** Of these the order of the name can be said. */
const ORDER: Verdict[] = ["unreadable", "incomplete", "new", "joins", "back", "asked", "changed", "twice", "here"];
const ICONS: Record<Verdict, [ComponentType<{ size: number; className: string }>, string]> = {
  new: [UserPlus, "text-accepted"],
  joins: [LogIn, "text-accepted"],
  back: [LogIn, "text-accepted"],
  asked: [MessageCircleQuestion, "text-in"],
  changed: [Pencil, "text-in"],
  here: [Check, "text-quiet"],
  twice: [CopyMinus, "text-quiet"],
  incomplete: [CircleAlert, "text-overdue"],
  unreadable: [CircleAlert, "text-overdue"],
};

interface Props {
  table: Table;
  preview: Preview | null;
  onColumn: (place: number, column: Column) => void;
  onCell: (row: number, place: number, cell: string) => void;
  onAsNew: (line: number) => void;
  familyFirst: boolean;
  onFamilyFirst: (chosen: boolean) => void;
  /** In this line the names stand the other way. */
  onTurn: (line: number) => void;
  onRestart: () => void;
}

export function ListLines({ table, preview, onColumn, onCell, onAsNew, familyFirst, onFamilyFirst, onTurn, onRestart }: Props) {
  const [shown, setShown] = useState<Verdict | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const lines = preview?.lines ?? [];
  const counts = new Map<Verdict, number>();
  for (const line of lines) counts.set(line.verdict, (counts.get(line.verdict) ?? 0) + 1);
  const only = shown && counts.has(shown) ? shown : null;
  const visible = only ? lines.filter((line) => line.verdict === only) : lines;
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are used in this render only
  const virtual = useVirtualizer({ count: visible.length, getScrollElement: () => scroller.current, estimateSize: (place) => height(visible[place]), overscan: 10, getItemKey: (place) => `${visible[place]?.number ?? place} ${height(visible[place])}` });
  const grid = `44px minmax(270px,1.4fr) repeat(${table.columns.length}, minmax(130px,1fr))`;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 px-5 pt-3">
      <div role="group" aria-label={TEXTS.showOnly} className="flex flex-wrap items-center gap-2">
        {ORDER.filter((verdict) => counts.has(verdict)).map((verdict) => (
          <button
            key={verdict}
            type="button"
            aria-pressed={only === verdict}
            onClick={() => setShown(only === verdict ? null : verdict)}
            className={`flex min-h-8 items-center gap-2 rounded-full border px-3 font-semibold ${only === verdict ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
          >
            {VERDICTS[verdict]}
            <span className="figures font-bold">{counts.get(verdict)}</span>
          </button>
        ))}
        <label className="ml-auto flex min-h-8 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={familyFirst} onChange={(event) => onFamilyFirst(event.target.checked)} />
          {WRITTEN.familyFirst} <span className="text-quiet max-lg:hidden">{WRITTEN.familyFirstHint}</span>
        </label>
        <Button look="quiet" onClick={onRestart}>
          {TEXTS.restart}
        </Button>
      </div>
      {/* The list scrolls by itself, so the keyboard must reach it. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
      <div ref={scroller} tabIndex={0} className="min-h-0 flex-1 overflow-auto rounded-lg border border-edge bg-paper low:h-[90dvh] low:flex-none">
        <div role="table" aria-label={TEXTS.linesOfTheList} aria-rowcount={lines.length + 1} style={{ minWidth: 320 + table.columns.length * 130 }}>
          <div role="row" className="sticky top-0 z-10 grid items-center gap-x-2 border-b border-edge bg-ground px-3 py-1" style={{ gridTemplateColumns: grid }}>
            <div role="columnheader" className="text-quiet">
              {TEXTS.line}
            </div>
            <div role="columnheader" className="font-bold">
              {TEXTS.whatHappens}
            </div>
            {table.columns.map((column, place) => (
              <div key={place} role="columnheader">
                <ColumnChoice column={column} heading={table.heading[place] ?? ""} place={place} onChange={(chosen) => onColumn(place, chosen)} />
              </div>
            ))}
          </div>
          <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map((item) => {
              const line = visible[item.index];
              if (!line) return null;
              const cells = table.rows[line.number - 1] ?? [];
              return (
                <div
                  key={line.number}
                  role="row"
                  className={`absolute inset-x-0 grid items-center gap-x-2 border-b border-line px-3 ${BAD.includes(line.verdict) ? "bg-overdue-soft" : ""}`}
                  style={{ gridTemplateColumns: grid, height: height(line), transform: `translateY(${item.start}px)` }}
                >
                  <div role="cell" className="figures text-quiet">
                    {line.number}
                  </div>
                  <div role="cell" className="min-w-0">
                    <Said line={line} onAsNew={onAsNew} onTurn={onTurn} />
                  </div>
                  {cells.map((cell, place) => (
                    <div key={place} role="cell" className={`min-w-0 ${table.columns[place] === "ignore" ? "text-quiet" : ""}`}>
                      {[...BAD, "new"].includes(line.verdict) && table.columns[place] !== "ignore" ? (
                        <input
                          defaultValue={cell}
                          aria-label={TEXTS.lineNumberPlace({ number: line.number, place: COLUMNS[table.columns[place] ?? "ignore"] })}
                          onBlur={(event) => event.target.value !== cell && onCell(line.number - 1, place, event.target.value)}
                          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
                          className="w-full rounded-sm border border-control bg-paper px-2 py-1"
                        />
                      ) : (
                        <span className="block truncate" title={cell}>
                          {cell}
                        </span>
                      )}
                    </div>
                  ))}
                </div>
              );
            })}
          </div>
        </div>
      </div>
    </div>
  );
}

function height(line: Line | undefined): number {
  return line && [...BAD, "asked"].includes(line.verdict) ? BAD_ROW : ROW;
}

const FIELDS: Record<string, string> = { family: TEXTS.familyName, given: TEXTS.givenName, order: WRITTEN.order, email: "e-mail", number: "number", period: "period", group: "group" };

/** What happens to a line, in words. */
function Said({ line, onAsNew, onTurn }: { line: Line; onAsNew: (line: number) => void; onTurn: (line: number) => void }) {
  const [Icon, colour] = ICONS[line.verdict];
  const more = line.changes.map((one) => `${FIELDS[one.field] ?? one.field} ${one.old || TEXTS.nothingBefore} → ${one.new}`).join(", ");
  const told = [line.why, more, line.fix].filter(Boolean).join(" ");
  return (
    <div className="flex min-w-0 items-start gap-2">
      <Icon aria-hidden size={17} className={`mt-0.5 shrink-0 ${colour}`} />
      <div className="min-w-0 leading-[18px]">
        <p className="flex items-center gap-1 truncate font-semibold">
          <span>{VERDICTS[line.verdict]}</span>
          {line.name && line.verdict !== "incomplete" && (
            <>
              <ArrowRight aria-hidden size={13} className="shrink-0 text-quiet" />
              <span className="truncate font-normal">{line.name}</span>
            </>
          )}
          {NAMED.includes(line.verdict) && (
            <button
              type="button"
              aria-pressed={line.family_first}
              aria-label={WRITTEN.familyFirstIn({ name: line.name })}
              title={WRITTEN.familyFirstIn({ name: line.name })}
              className={`flex size-6 shrink-0 items-center justify-center rounded-sm ${line.family_first ? "bg-ink text-paper" : "text-ink-soft hover:bg-ground"}`}
              onClick={() => onTurn(line.number)}
            >
              <ArrowLeftRight aria-hidden size={13} />
            </button>
          )}
          {(line.verdict === "joins" || line.verdict === "asked") && (
            <button type="button" className="shrink-0 font-normal text-in underline" onClick={() => onAsNew(line.number)}>
              {TEXTS.somebodyElse}
            </button>
          )}
        </p>
        {told && (
          <p className={`text-xs text-ink-soft ${[...BAD, "asked"].includes(line.verdict) ? "line-clamp-3" : "truncate"}`} title={told}>
            {told}
          </p>
        )}
      </div>
    </div>
  );
}

function ColumnChoice({ column, heading, place, onChange }: { column: Column; heading: string; place: number; onChange: (column: Column) => void }) {
  return (
    <Listbox value={column} onChange={onChange}>
      <ListboxButton
        aria-label={TEXTS.columnPlaceOtherColumn({ place: place + 1, heading, headingIs: Boolean(heading), column: COLUMNS[column] })}
        className="flex min-h-8 w-full items-center justify-between gap-1 rounded-md border border-control bg-paper px-2 text-left font-bold"
      >
        <span className={`truncate ${column === "ignore" ? "font-normal text-quiet" : ""}`}>{COLUMNS[column]}</span>
        <ChevronDown aria-hidden size={14} className="shrink-0" />
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="z-40 mt-1 rounded-md border border-edge bg-paper py-1 shadow-lg">
        {(Object.keys(COLUMNS) as Column[]).map((one) => (
          <ListboxOption key={one} value={one} className="cursor-pointer px-4 py-1.5 data-focus:bg-today data-selected:font-bold">
            {COLUMNS[one]}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
