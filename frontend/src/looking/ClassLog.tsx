/** One log of all students as one table: filtered, in order, added up per student and week, taken along. */
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, CircleDashed, Download } from "lucide-react";
import { useState } from "react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { amount, heading, sumOf, words } from "../log/cells";
import type { Column } from "../log/cells";
import { useAddress } from "../ui/address";
import { Button } from "../ui/Button";
import { shortDay } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { PegPicture } from "../ui/people/PegPicture";
import { Select } from "../ui/Select";
import { COUNTED } from "../ui/texts";
import { useSettled } from "../ui/useSettled";
import { Failed, Waiting } from "../ui/Waiting";
import { listed } from "../ui/words";
import { classLogQuery } from "./rowsWanted";
import type { RowsWanted } from "./rowsWanted";
import { ROWS } from "./texts";

type Page = Schema["ClassLogShape"];
type Student = Schema["ClassLogStudent"];
type Change = (changes: Record<string, string | null>) => void;

/** What the address asks for. */
function wantedFrom(address: URLSearchParams): RowsWanted {
  return {
    period: address.get("period") ?? "",
    student: Number(address.get("student")) || undefined,
    words: address.get("words") ?? "",
    by: address.get("by") ?? "",
    descending: address.get("down") === "1",
  };
}

export function ClassLog({ groupId, pocketId, periods }: { groupId: number; pocketId: number; periods: string[] }) {
  const [address, setAddress] = useAddress();
  const wanted = wantedFrom(address);
  const found = useInfiniteQuery({ ...classLogQuery(groupId, pocketId, useSettled(wanted)), placeholderData: keepPreviousData });
  const change: Change = (changes) =>
    setAddress(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [key, value] of Object.entries(changes)) {
          if (value) next.set(key, value);
          else next.delete(key);
        }
        return next;
      },
      { replace: true },
    );
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const [page] = found.data.pages;
  if (!page) return null;
  const rows = found.data.pages.flatMap((one) => one.rows);
  return (
    <div className="flex flex-col gap-3">
      <Filters page={page} wanted={wanted} periods={periods} groupId={groupId} pocketId={pocketId} change={change} />
      <div className="flex items-start gap-4 max-xl:flex-col">
        <section aria-label={ROWS.rows} className="min-w-0 flex-1 self-stretch">
          <Table page={page} rows={rows} wanted={wanted} groupId={groupId} pocketId={pocketId} change={change} />
          {rows.length < page.found && (
            <div className="p-3 text-center">
              <Button disabled={found.isFetchingNextPage} onClick={() => void found.fetchNextPage()}>
                {ROWS.more({ count: page.found - rows.length })}
              </Button>
            </div>
          )}
        </section>
        <aside aria-label={ROWS.addedUp} className="flex w-full flex-col gap-4 xl:w-96 xl:shrink-0">
          <Choices page={page} />
          <Students page={page} wanted={wanted} change={change} />
          <Weeks page={page} />
        </aside>
      </div>
    </div>
  );
}

interface FiltersProps {
  page: Page;
  wanted: RowsWanted;
  periods: string[];
  groupId: number;
  pocketId: number;
  change: Change;
}

const ENDINGS = ["xlsx", "ods", "csv"] as const;

function Filters({ page, wanted, periods, groupId, pocketId, change }: FiltersProps) {
  const [typed, setTyped] = useState(wanted.words);
  const student = page.students.find((one) => one.id === wanted.student);
  const query = new URLSearchParams(Object.entries(wanted).flatMap(([key, value]) => (value ? [[key, String(value)]] : [])));
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      {periods.length > 1 && (
        <Select
          label={ROWS.period}
          value={wanted.period}
          options={[{ value: "", shown: ROWS.allPeriods }, ...periods.map((one) => ({ value: one, shown: one }))]}
          onChange={(period) => change({ period, student: null })}
        />
      )}
      <label className="flex items-center gap-2 font-semibold">
        {ROWS.words}
        <input
          type="search"
          autoComplete="off"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            change({ words: event.target.value });
          }}
          className="min-h-9 w-52 rounded-md border border-control bg-paper px-3 font-normal"
        />
      </label>
      {wanted.student !== undefined && (
        <Button onClick={() => change({ student: null })}>{ROWS.everybodyAgain({ name: student ? listed(student) : "" })}</Button>
      )}
      <p className="figures text-ink-soft" aria-live="polite">
        {ROWS.found({ count: page.found, complete: page.total.rows })}
        {numbersOf(page).map((one) => ` · ${ROWS.sum({ title: one.title, amount: amount(sumOf(page.total, one.key)), unit: one.unit })}`)}
      </p>
      <span className="ml-auto flex items-center gap-2">
        <Download aria-hidden size={16} />
        {ENDINGS.map((one) => (
          <a key={one} href={`/api/groups/${groupId}/logs/${pocketId}/${one}?${query}`} className="inline-flex min-h-8 items-center font-semibold text-in underline" aria-label={ROWS.takeAlong({ ending: ROWS.endings[one] })}>
            {ROWS.endings[one]}
          </a>
        ))}
      </span>
    </div>
  );
}

function numbersOf(page: Page): Column[] {
  return (page.columns ?? []).filter((one) => one.type === "number");
}

interface TableProps {
  page: Page;
  rows: Page["rows"];
  wanted: RowsWanted;
  groupId: number;
  pocketId: number;
  change: Change;
}

function Table({ page, rows, wanted, groupId, pocketId, change }: TableProps) {
  const columns = page.columns ?? [];
  const people = new Map(page.students.map((one) => [one.id, one]));
  const head = { wanted, change };
  if (rows.length === 0) return <p className="rounded-lg border border-edge bg-paper p-8 text-center text-base">{ROWS.none}</p>;
  return (
    <div className="overflow-x-auto rounded-lg border border-edge bg-paper">
      <table className="w-full border-collapse text-left">
        <caption className="sr-only">{page.pocket.title}</caption>
        <thead className="border-b border-edge bg-ground">
          <tr>
            <Head {...head} by="student" title={ROWS.student} />
            {columns.map((one) => (
              <Head key={one.key} {...head} by={one.key} title={heading(one)} right={one.type === "number"} />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Row key={row.id} row={row} of={people.get(row.student)} columns={columns} groupId={groupId} pocketId={pocketId} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A heading by which the rows are put in order; once more, the other way round. */
function Head({ wanted, change, by, title, right = false }: { wanted: RowsWanted; change: Change; by: string; title: string; right?: boolean }) {
  const on = wanted.by === by;
  const Arrow = wanted.descending ? ArrowDown : ArrowUp;
  return (
    <th scope="col" aria-sort={on ? (wanted.descending ? "descending" : "ascending") : undefined} className={`px-3 py-1 ${right ? "text-right" : ""}`}>
      <button type="button" className="inline-flex min-h-8 items-center gap-1 rounded-sm font-bold hover:bg-today" onClick={() => change({ by, down: on && !wanted.descending ? "1" : null })}>
        {title}
        {on && <Arrow aria-hidden size={14} />}
      </button>
    </th>
  );
}

const WIDE = { number: "figures text-right", date: "whitespace-nowrap", long_text: "min-w-48" } as Partial<Record<Column["type"], string>>;

function Row({ row, of, columns, groupId, pocketId }: { row: Page["rows"][number]; of: Student | undefined; columns: Column[]; groupId: number; pocketId: number }) {
  return (
    <tr className="border-b border-line align-top last:border-0">
      <th scope="row" className="px-3 py-1.5 font-normal">
        {of && (
          <Link to={`/g/${groupId}/portfolio/${of.portfolio}/${pocketId}`} className="flex items-center gap-2 font-semibold text-in underline">
            <PegPicture picture={of.picture} tint={of.tint} size={20} />
            <span className="break-words">
              <ListedName person={of} />
            </span>
          </Link>
        )}
        {!row.complete && (
          <span className="flex items-center gap-1 text-sm text-copper">
            <CircleDashed aria-hidden size={13} />
            {ROWS.notFinished}
          </span>
        )}
      </th>
      {columns.map((one) => (
        <td key={one.key} className={`px-3 py-1.5 break-words ${WIDE[one.type] ?? ""}`}>
          {words(one, row.values[one.key])}
        </td>
      ))}
    </tr>
  );
}

/** Rows and sums of what is named in each line. */
function Sums<T extends Schema["LogAdded"]>({ title, page, lines, name, keyOf }: { title: string; page: Page; lines: T[]; name: (one: T) => ReactNode; keyOf: (one: T) => string }) {
  const numbers = numbersOf(page);
  if (lines.length === 0) return null;
  return (
    <section className="overflow-x-auto rounded-lg border border-edge bg-paper">
      <table className="w-full border-collapse text-left">
        <caption className="px-3 pt-2 pb-1 text-left text-base font-bold">{title}</caption>
        <thead>
          <tr className="border-b border-line text-sm text-quiet">
            <td className="px-3" />
            <th scope="col" className="px-2 text-right font-normal">
              {ROWS.rows}
            </th>
            {numbers.map((one) => (
              <th key={one.key} scope="col" className="px-3 text-right font-normal break-words">
                {heading(one)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((one) => (
            <tr key={keyOf(one)} className="border-b border-line last:border-0">
              <th scope="row" className="px-3 py-1 font-normal break-words">
                {name(one)}
              </th>
              <td className="figures px-2 py-1 text-right text-ink-soft">{one.rows}</td>
              {numbers.map((of) => (
                <td key={of.key} className="figures px-3 py-1 text-right">
                  {amount(sumOf(one, of.key))}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Choices({ page }: { page: Page }) {
  return (page.columns ?? [])
    .filter((one) => one.type === "choice")
    .map((column) => (
      <Sums key={column.key} title={column.title} page={page} lines={page.of_choices.filter((one) => one.column === column.key && one.rows > 0)} name={(one) => one.choice} keyOf={(one) => one.choice} />
    ));
}

function Weeks({ page }: { page: Page }) {
  return <Sums title={ROWS.perWeek} page={page} lines={page.weeks} name={(one) => ROWS.weekOf({ day: shortDay(one.monday) })} keyOf={(one) => one.monday} />;
}

/** Each student's sums; a press shows theirs alone. */
function Students({ page, wanted, change }: { page: Page; wanted: RowsWanted; change: Change }) {
  return (
    <Sums
      title={`${ROWS.perStudent} · ${COUNTED.students({ count: page.students.length })}`}
      page={page}
      lines={page.students}
      keyOf={(one) => String(one.id)}
      name={(one) => (
        <button type="button" aria-pressed={one.id === wanted.student} className="text-left text-in underline" onClick={() => change({ student: one.id === wanted.student ? null : String(one.id) })}>
          {listed(one)}
        </button>
      )}
    />
  );
}
