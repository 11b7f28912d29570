/** The form of a pocket, and what of it goes to the server. */
import type { Schema } from "../api/client";
import type { Column } from "../log/cells";
import { newKey } from "../ui/newKey";
import { TAKES } from "../laid/texts";
import type { Kind, Laid } from "./texts";

/** A log's column as the form holds it; ``choices`` one a line. */
export interface ColumnFields {
  key: string;
  title: string;
  type: Column["type"];
  required: boolean;
  unit: string;
  choices: string;
  measure: "" | "words" | "sentences";
  least: string;
  most: string;
}

/** A version of a pocket as the form holds it; ``places`` are chosen by the ids of periods or groups. */
export interface VersionFields {
  key: string;
  name: string;
  directions: string;
  starter: string;
  first: string;
  last: string;
  places: Record<string, boolean>;
}

export interface Fields {
  title: string;
  kind: Kind;
  directions: string;
  prompt: string;
  artefacts: string;
  reflection: boolean;
  measure: "" | "words" | "sentences";
  least: string;
  most: string;
  takes: Record<keyof typeof TAKES, boolean>;
  spoken: boolean;
  shared: Schema["PocketSettings"]["shared"];
  groupSet: string;
  ownPart: boolean;
  starter: string;
  counts: boolean;
  opens: string;
  eachQuestion: boolean;
  rows: string;
  rowsPerWeek: string;
  columns: ColumnFields[];
  order: string;
  newestFirst: boolean;
  targetAmount: string;
  targetColumn: string;
  targetEach: "all" | "week";
  variantsBy: "" | Schema["VariantsIO"]["by"];
  seed: number;
  versions: VersionFields[];
  hand: Record<string, string>;
}

/** An empty version under a key that no other has. */
export function newVersion(first = "", last = ""): VersionFields {
  return { key: newKey(), name: "", directions: "", starter: "", first, last, places: {} };
}

function versionFields(version: Schema["VersionIO"]): VersionFields {
  return { ...version, places: Object.fromEntries((version.places ?? []).map((id) => [id, true])) };
}

function variantsOf(fields: Fields): Schema["VariantsIO"] | null {
  if (!fields.variantsBy) return null;
  const versions = fields.versions.map((one) => ({
    ...one,
    places: Object.keys(one.places)
      .filter((id) => one.places[id])
      .map(Number),
  }));
  return { by: fields.variantsBy, seed: fields.seed, versions };
}

/** An empty column under a key that no other has. */
export function newColumn(type: Column["type"] = "text", title = "", required = false): ColumnFields {
  return { key: newKey(), title, type, required, unit: "", choices: "", measure: "", least: "1", most: "" };
}

export function columnFields(column: Column): ColumnFields {
  return {
    key: column.key,
    title: column.title,
    type: column.type,
    required: column.required,
    unit: column.unit,
    choices: (column.choices ?? []).join("\n"),
    measure: column.measure,
    least: String(column.least),
    most: column.most ? String(column.most) : "",
  };
}

/** A column as the server takes it. */
export function columnOf(fields: ColumnFields): Column {
  return {
    key: fields.key,
    title: fields.title,
    type: fields.type,
    required: fields.required,
    unit: fields.unit,
    choices: fields.choices.split("\n").filter((one) => one.trim()),
    measure: fields.measure,
    least: Number(fields.least || 1),
    most: fields.most ? Number(fields.most) : null,
  };
}

/** What a log asks for, as the form holds it. */
// eslint-disable-next-line complexity -- one fallback for each field of a log
export function logFields(log: Schema["LogSettings"] | undefined): Pick<Fields, "columns" | "order" | "newestFirst" | "targetAmount" | "targetColumn" | "targetEach"> {
  return {
    columns: (log?.columns ?? []).map(columnFields),
    order: log?.order ?? "",
    newestFirst: log?.newest_first ?? false,
    targetAmount: log?.target?.amount ?? "",
    targetColumn: log?.target?.column ?? "",
    targetEach: log?.target?.each_week ? "week" : "all",
  };
}

/** A pocket as the form holds it. */
export function fieldsOf(pocket: Laid): Fields {
  const takes = pocket.takes ?? [];
  return {
    title: pocket.title,
    kind: pocket.kind,
    directions: pocket.directions,
    prompt: pocket.prompt,
    artefacts: String(pocket.artefacts),
    reflection: pocket.reflection_on_each,
    measure: pocket.measure,
    least: String(pocket.least),
    most: pocket.most ? String(pocket.most) : "",
    takes: {
      picture: takes.includes("picture"),
      recording: takes.includes("recording"),
      file: takes.includes("file"),
      link: takes.includes("link"),
      text: takes.includes("text"),
    },
    spoken: pocket.spoken,
    shared: pocket.shared,
    groupSet: pocket.group_set,
    ownPart: pocket.own_part,
    starter: pocket.starter,
    counts: pocket.counts,
    opens: pocket.opens ?? "",
    eachQuestion: pocket.each_question,
    rows: String(pocket.rows),
    rowsPerWeek: String(pocket.rows_per_week),
    ...logFields(pocket.log),
    variantsBy: pocket.variants?.by ?? "",
    seed: pocket.variants?.seed ?? 1,
    versions: (pocket.variants?.versions ?? []).map(versionFields),
    hand: {},
  };
}

/** The settings as the server takes them. */
// eslint-disable-next-line complexity -- one fallback for each field of a pocket
export function bodyOf(fields: Fields, version: number): Schema["PocketIn"] {
  const kinds = Object.keys(TAKES) as (keyof typeof TAKES)[];
  return {
    title: fields.title,
    kind: fields.kind,
    directions: fields.directions,
    prompt: fields.prompt,
    artefacts: Number(fields.artefacts || 0),
    reflection_on_each: fields.reflection,
    measure: fields.measure,
    least: Number(fields.least || 1),
    most: fields.most ? Number(fields.most) : null,
    takes: kinds.filter((kind) => fields.takes[kind]),
    spoken: fields.spoken,
    shared: fields.shared,
    group_set: fields.shared === "group" ? fields.groupSet : "",
    own_part: fields.ownPart,
    starter: fields.starter,
    counts: fields.counts,
    opens: fields.opens || null,
    each_question: fields.eachQuestion,
    rows: Number(fields.rows || 0),
    rows_per_week: Number(fields.rowsPerWeek || 0),
    log: fields.kind === "log" ? logOf(fields) : { columns: [], order: "", newest_first: false, target: null },
    variants: variantsOf(fields),
    hand: fields.variantsBy === "hand" && Object.keys(fields.hand).length > 0 ? fields.hand : null,
    version,
  };
}

/** A log's settings as the server takes them. */
export function logOf(fields: Fields): Schema["LogSettings"] {
  const amount = fields.targetAmount.trim().replace(",", ".");
  return {
    columns: fields.columns.map(columnOf),
    order: fields.order,
    newest_first: fields.newestFirst,
    target: amount ? { column: fields.targetColumn, amount, each_week: fields.targetEach === "week" } : null,
  };
}
