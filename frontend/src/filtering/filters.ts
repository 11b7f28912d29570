/** What the filters let through. All of them combine, and each counts with the others on. */
import type { Board, Cell, Row } from "../api/board";
import { folded } from "../ui/people/find";
import { FILTERS, ORDERS } from "./texts";
import type { FilterName, Order } from "./texts";

export type { Board, Row };

export type Lately = "" | "joined" | "left";

/** What the address holds. ``handin`` is the selected column: the chips look at it alone. */
export interface Chosen {
  handin: number | null;
  chips: FilterName[];
  period: string;
  group: string;
  sections: string[];
  /** Hand-ins that are not shown. */
  hidden: number[];
  /** Hand-ins that stay beside the names. */
  pinned: number[];
  /** The hand-ins in bands by section, not by due date alone. */
  banded: boolean;
  /** Only what is due this week. */
  week: boolean;
  /** What staff should look at in some peg. */
  flags: Flag[];
  /** At least so many days without work; 0 for any. */
  quiet: number;
  /** Only those for whom something was agreed with learning support. */
  agreed: boolean;
  lately: Lately;
  find: string;
  order: Order;
  /** As pegs, as a list of what came in, or as patterns over the class. */
  as: Way;
  /** What stands on a peg. */
  cells: ShownAs;
  /** The list by student, or the newest first. */
  byStudent: boolean;
}

export const FLAGS = ["starter", "same", "empty"] as const;
export type Flag = (typeof FLAGS)[number];
/** The flagged pegs, each by its student and hand-in (``pegOf``). */
export type Flagged = Record<Flag, Set<string>>;

export function pegOf(enrolment: number, handin: number): string {
  return `${enrolment} ${handin}`;
}

/** A peg shows its coat, its released points, how late it came, or how much is there. */
export const SHOWN = ["coats", "points", "late", "filled"] as const;
export type ShownAs = (typeof SHOWN)[number];

export const WAYS = ["pegs", "list", "scores", "patterns"] as const;
export type Way = (typeof WAYS)[number];

type CellTest = Exclude<FilterName, "quiet">;

const TESTS: Record<CellTest, (cell: Cell) => boolean> = {
  not_in: (cell) => cell.status === "working" || cell.status === "empty",
  to_mark: (cell) => cell.status === "handed_in",
  sent_back: (cell) => cell.status === "sent_back",
  overdue: (cell) => cell.overdue,
  late: (cell) => cell.late,
  accepted: (cell) => cell.status === "accepted",
  excused: (cell) => cell.status === "excused",
  not_open: (cell) => cell.status === "not_open",
  working: (cell) => cell.status === "working",
  empty: (cell) => cell.status === "empty",
};
const CELL_TESTS = Object.keys(TESTS) as CellTest[];
const BIT = Object.fromEntries(CELL_TESTS.map((name, at) => [name, 1 << at])) as Record<CellTest, number>;
/** Days without work behind *Quiet for a week*. */
export const WEEK = 7;
/** Whoever came or went within so many days did so lately. */
export const LATELY = 14;

/** What is true of a cell, bit by bit; once for all cells that stand alike. */
const FACTS = new WeakMap<Cell, number>();

function factsOf(cell: Cell): number {
  let facts = FACTS.get(cell);
  if (facts === undefined) {
    facts = CELL_TESTS.reduce((all, name) => (TESTS[name](cell) ? all | BIT[name] : all), 0);
    FACTS.set(cell, facts);
  }
  return facts;
}

/** Read the filters from the address. */
export function chosenFrom(address: URLSearchParams): Chosen {
  const text = (key: string) => address.get(key) ?? "";
  const number = (key: string) => (/^\d{1,9}$/.test(text(key)) ? Number(text(key)) : 0);
  const [order, lately] = [text("order"), text("lately")];
  return {
    handin: number("handin") || null,
    chips: text("show").split(",").filter((one): one is FilterName => one in FILTERS),
    period: text("period"),
    group: text("group"),
    sections: address.getAll("section"),
    hidden: address.getAll("hide").filter((one) => /^\d{1,9}$/.test(one)).map(Number),
    pinned: address.getAll("pin").filter((one) => /^\d{1,9}$/.test(one)).map(Number),
    banded: text("cols") === "section",
    week: text("week") === "1",
    flags: address.getAll("flag").filter((one): one is Flag => FLAGS.includes(one as Flag)),
    quiet: Math.min(400, number("quiet")),
    agreed: text("agreed") === "1",
    lately: lately === "joined" || lately === "left" ? lately : "",
    find: text("find"),
    order: order in ORDERS ? (order as Order) : "family",
    as: WAYS.find((one) => one === text("as")) ?? "pegs",
    cells: SHOWN.find((one) => one === text("cells")) ?? "coats",
    byStudent: text("by") === "student",
  };
}

/** The names of the address that filter, in the order in which a kept filter holds them. */
export const KEYS = ["show", "period", "group", "section", "hide", "pin", "cols", "week", "handin", "flag", "quiet", "agreed", "lately", "find", "order"];

/** The filter of an address as it is kept; empty where none is on. */
export function addressOf(address: URLSearchParams): string {
  const found = KEYS.flatMap((key) => address.getAll(key).sort().filter(Boolean).map((value): [string, string] => [key, value]));
  return new URLSearchParams(found).toString();
}

/** What is asked for in the address and is not there (any more): periods, groups, sections, a hand-in. */
export function goneFrom(board: Board, chosen: Chosen): string[] {
  const gone = chosen.sections.filter((one) => !board.sections.includes(one));
  if (chosen.period && !board.periods.includes(chosen.period)) gone.push(chosen.period);
  if (chosen.group && !board.groups.includes(chosen.group)) gone.push(chosen.group);
  return gone;
}

/** What of the students' work the list shows, by the chips unless they rest; those that nothing can have come in under say nothing here. */
export function cameAs(chosen: Chosen, rest: boolean): { statuses: ("handed_in" | "accepted" | "sent_back")[]; late: boolean } {
  const of = { to_mark: "handed_in", accepted: "accepted", sent_back: "sent_back" } as const;
  const chips = rest ? [] : chosen.chips;
  return { statuses: chips.flatMap((one) => (one in of ? of[one as keyof typeof of] : [])), late: chips.includes("late") };
}

/** Whether words are looked for. */
function searching(chosen: Chosen): boolean {
  return chosen.find.trim() !== "";
}

/** How many of the further filters are on, those that have no chip of their own in the bar. */
export function further(chosen: Chosen): number {
  const more = chosen.chips.filter((one) => !MAIN.includes(one)).length;
  return more + chosen.sections.length + chosen.flags.length + [chosen.hidden.length > 0, chosen.pinned.length > 0, chosen.banded, chosen.group !== "", chosen.week, chosen.quiet > 0, chosen.agreed, chosen.lately !== ""].filter(Boolean).length;
}

/** How many filters are on, those of the bar too. */
export function filtersOn(chosen: Chosen): number {
  return further(chosen) + chosen.chips.filter((one) => MAIN.includes(one)).length + (chosen.period ? 1 : 0) + (searching(chosen) ? 1 : 0);
}

export const MAIN: FilterName[] = ["not_in", "to_mark", "sent_back", "overdue", "late", "quiet"];
export const FURTHER = (Object.keys(FILTERS) as FilterName[]).filter((one) => !MAIN.includes(one));

/** By the root order of the Unicode Collation Algorithm, as the server orders surnames. */
const NAMES = new Intl.Collator("und");

function many(row: Row, name: CellTest): number {
  return row.cells.filter((cell) => (factsOf(cell) & BIT[name]) !== 0).length;
}

/** Rows with a figure of each, most first; who stand alike stay by surname. */
function by(rows: Row[], figure: (row: Row) => number): Row[] {
  const figures = new Map(rows.map((row) => [row.id, figure(row)]));
  return [...rows].sort((one, other) => (figures.get(other.id) ?? 0) - (figures.get(one.id) ?? 0));
}

/** Rows side by side that belong together; who belongs nowhere comes last. */
function sideBySide(rows: Row[], of: (row: Row) => string): Row[] {
  return [...rows].sort((one, other) => NAMES.compare(of(one) || "\uffff", of(other) || "\uffff"));
}

/** The groups of a student, as they are listed. */
export function groupsOf(row: Row): string {
  return [...row.groups].sort(NAMES.compare).join(", ");
}

const BY: Record<Order, (rows: Row[]) => Row[]> = {
  family: (rows) => rows,
  given: (rows) => [...rows].sort((one, other) => NAMES.compare(one.given_name, other.given_name)),
  // Of whom nothing is wanted, nothing is missing.
  filled: (rows) => by(rows, (row) => (row.wanted ? -row.met / row.wanted : -1)),
  last: (rows) => by(rows, (row) => -Date.parse(row.last_work ?? "1970-01-01")),
  overdue: (rows) => by(rows, (row) => many(row, "overdue")),
  to_mark: (rows) => by(rows, (row) => many(row, "to_mark")),
  period: (rows) => sideBySide(rows, (row) => row.period),
  group: (rows) => sideBySide(rows, groupsOf),
};

const DAY = 24 * 3600 * 1000;

function daysBetween(one: string, other: string): number {
  return Math.round((Date.parse(other) - Date.parse(one)) / DAY);
}

function isLately(row: Row, lately: Lately, today: string): boolean {
  const day = lately === "joined" ? row.joined : row.left_on;
  const since = day === null ? -1 : daysBetween(day, today);
  return since >= 0 && since < LATELY;
}

/** The filters of a student as such, each on its own: what is chosen of one is counted without it. */
const OF_ROW: Record<"period" | "group" | "quiet" | "agreed" | "lately", (row: Row, chosen: Chosen, today: string) => boolean> = {
  period: (row, { period }) => !period || row.period === period,
  group: (row, { group }) => !group || row.groups.includes(group),
  quiet: (row, { quiet }) => quiet === 0 || (row.quiet_days >= quiet && !row.left),
  agreed: (row, { agreed }) => !agreed || row.adjusted,
  lately: (row, { lately }, today) => !lately || isLately(row, lately, today),
};

/** The only section that a hand-in collects from; empty where it is none or several. */
export function bandOf(one: Board["handins"][number] | undefined): string {
  return one?.sections.length === 1 ? (one.sections[0] ?? "") : "";
}

/** The columns to show, in their order: what is pinned first, then by section where bands are wanted, then as they are due. */
function columnsOf(board: Board, chosen: Chosen, places: Set<number> | null): number[] {
  const shown = shownColumns(board, chosen).filter((place) => places?.has(place) ?? true);
  if (chosen.pinned.length === 0 && !chosen.banded) return shown;
  const isPinned = (place: number) => chosen.pinned.includes(board.handins[place]?.id ?? 0);
  const bands = [...board.sections, ""];
  const key = (place: number) => (isPinned(place) ? -1 : chosen.banded ? bands.indexOf(bandOf(board.handins[place])) : 0);
  return [...shown].sort((one, other) => key(one) - key(other));
}

/** Of the chosen sections, due this week, not hidden. */
function shownColumns(board: Board, chosen: Chosen): number[] {
  const { sections, week, hidden } = chosen;
  const known = sections.filter((one) => board.sections.includes(one));
  const places = board.handins.map((_, place) => place);
  if (known.length === 0 && !week && hidden.length === 0) return places;
  return places.filter((place) => {
    const one = board.handins[place];
    if (!one || hidden.includes(one.id)) return false;
    const inWeek = !week || (one.due !== null && sameWeek(one.due, board.today));
    return inWeek && (known.length === 0 || one.sections.some((title) => known.includes(title)));
  });
}

/** Whether two days lie in one week from Monday to Sunday. */
function sameWeek(one: string, other: string): boolean {
  const monday = (day: string) => Math.floor((Date.parse(day) / DAY + 3) / 7);
  return monday(one) === monday(other);
}

interface Found {
  rows: Row[];
  /** The places of the hand-ins that the words name; null where they name none, so that all stay. */
  places: Set<number> | null;
  /** Whether somebody is looked for: then everybody is looked through, and the filters of students rest. */
  rest: boolean;
}

/**
 * What the words find: the students of whose name each word is a part; where there is nobody, the hand-ins in whose title they
 * stand; where there is none, both, each word in the one or the other ("adams log").
 */
function wordsFind(board: Board, typed: string): Found {
  const words = folded(typed).split(/\s+/).filter(Boolean);
  if (words.length === 0) return { rows: board.students, places: null, rest: false };
  const rows = board.students.filter((row) => words.every((word) => row.find.includes(word)));
  if (rows.length > 0) return { rows, places: null, rest: true };
  const titles = board.handins.map((one) => folded(one.title));
  const named = (wanted: string[]) => titles.flatMap((title, place) => (wanted.every((word) => title.includes(word)) ? [place] : []));
  const all = named(words);
  if (all.length > 0) return { rows: board.students, places: new Set(all), rest: false };
  const places = new Set<number>();
  const both = board.students.filter((row) => {
    const left = words.filter((word) => !row.find.includes(word));
    const of = left.length < words.length ? named(left) : [];
    for (const place of of) places.add(place);
    return of.length > 0;
  });
  return { rows: both, places: places.size > 0 ? places : null, rest: true };
}

export interface Filtered {
  /** The board with the columns that are shown. */
  board: Board;
  rows: Row[];
  /** How many of its columns are pinned: the first ones. */
  pins: number;
  /** How many rows each chip would leave. */
  counts: Record<FilterName, number>;
  /** The same of the flags; 0 as long as they are not known. */
  flagged: Record<Flag, number>;
  /** The same of the further filters of students. */
  agreed: number;
  joined: number;
  left: number;
  quietFor: (days: number) => number;
  inGroup: (name: string) => number;
  inPeriod: (name: string) => number;
  /** Hand-ins due this week, of those that the other filters of hand-ins leave. */
  thisWeek: number;
  /** Whether the filters of students rest, since somebody is looked for by name. */
  rest: boolean;
}

/** How many of these cells are in, of how many that are asked for; the server says which status counts as what. */
export function inOf(cells: Cell[], counting: Board["counting"]): { count: number; of: number } {
  const count = (name: string) => cells.filter((cell) => counting[name]?.includes(cell.status)).length;
  return { count: count("in"), of: count("asked") };
}

/** The rows and columns to show, and what each filter would leave. ``flagged`` is undefined as long as it is not known. */
export function filtered(board: Board, chosen: Chosen, flagged?: Flagged): Filtered {
  const words = wordsFind(board, chosen.find);
  const columns = columnsOf(board, chosen, words.places);
  const whole = columns.length === board.handins.length && columns.every((place, at) => place === at);
  const narrow = (row: Row): Row => (whole ? row : { ...row, cells: columns.flatMap((place) => row.cells[place] ?? []) });
  const handins = whole ? board.handins : columns.flatMap((place) => board.handins[place] ?? []);
  const column = handins.findIndex((one) => one.id === chosen.handin);
  const all = words.rows.map(narrow);
  const factsOfRow = new Map(
    all.map((row) => [row.id, (column < 0 ? row.cells : row.cells.slice(column, column + 1)).reduce((facts, cell) => facts | factsOf(cell), 0)]),
  );
  const has = (row: Row, chip: FilterName) => (chip === "quiet" ? row.quiet && !row.left : ((factsOfRow.get(row.id) ?? 0) & BIT[chip]) !== 0);
  const looked = column < 0 ? handins : handins.slice(column, column + 1);
  const isFlagged = (row: Row, flag: Flag) => looked.some((one) => flagged?.[flag].has(pegOf(row.id, one.id)));
  const names = Object.keys(OF_ROW) as (keyof typeof OF_ROW)[];
  const fits = (row: Row, but?: keyof typeof OF_ROW) =>
    names.every((name) => name === but || OF_ROW[name](row, chosen, board.today)) && chosen.chips.every((chip) => has(row, chip)) && chosen.flags.every((flag) => isFlagged(row, flag));
  const rows = words.rest ? all : all.filter((row) => fits(row));
  const count = (test: (row: Row) => boolean, but: keyof typeof OF_ROW) => all.filter((row) => test(row) && fits(row, but)).length;
  return {
    board: whole ? board : { ...board, handins },
    rows: BY[chosen.order](rows),
    pins: handins.filter((one) => chosen.pinned.includes(one.id)).length,
    counts: Object.fromEntries((Object.keys(FILTERS) as FilterName[]).map((chip) => [chip, rows.filter((row) => has(row, chip)).length])) as Record<FilterName, number>,
    flagged: Object.fromEntries(FLAGS.map((flag) => [flag, flagged ? rows.filter((row) => isFlagged(row, flag)).length : 0])) as Filtered["flagged"],
    agreed: count((row) => row.adjusted, "agreed"),
    joined: count((row) => isLately(row, "joined", board.today), "lately"),
    left: count((row) => isLately(row, "left", board.today), "lately"),
    inGroup: (name) => count((row) => row.groups.includes(name), "group"),
    inPeriod: (name) => count((row) => row.period === name, "period"),
    thisWeek: columnsOf(board, { ...chosen, week: true }, words.places).length,
    rest: words.rest,
    quietFor: (days) => count((row) => row.quiet_days >= days && !row.left, "quiet"),
  };
}
