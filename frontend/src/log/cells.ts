/** A log's values in words. */
import type { Schema } from "../api/client";
import { day } from "../ui/dates";
import { TEXTS } from "./texts";

export type Log = Schema["LogShape"];
export type Column = Schema["LogColumn"];
export type Row = Schema["LogRowShape"];
export type Values = Record<string, string | boolean | number | null>;

/** A column's heading with its unit. */
export function heading(column: Column): string {
  return column.unit ? `${column.title} (${column.unit})` : column.title;
}

/** Kinds of column, in words. */
export const TYPES: Record<Column["type"], string> = {
  date: TEXTS.date,
  text: TEXTS.text,
  long_text: TEXTS.longText,
  number: TEXTS.number,
  choice: TEXTS.choice,
  link: TEXTS.link,
  artefact: TEXTS.artefact,
  yes_no: TEXTS.yesOrNo,
};

/** A value as it reads; artefacts are shown by their own. */
export function words(column: Column, value: string | boolean | number | null | undefined): string {
  if (value === undefined || value === null) return "";
  if (typeof value === "boolean") return value ? TEXTS.saysYes : TEXTS.saysNo;
  return column.type === "date" ? day(String(value)) : String(value);
}

/** A number with as many places as it has, grouped: ``12 480.5``. */
export function amount(text: string | number): string {
  const [whole = "", part] = String(text).split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, "\u202f");
  const places = (part ?? "").replace(/0+$/, "");
  return places ? `${grouped}.${places}` : grouped;
}

/** The sum of a column among sums. */
export function sumOf(of: Schema["LogAdded"], column: string): string {
  return column ? (of.sums.find((one) => one.column === column)?.amount ?? "0") : String(of.rows);
}
