/**
 * Texts by catalogue. A plain text is a string; one with something in it is an ICU message (plurals, choices, places),
 * parsed when the application is built (``texts.js``), so that no parser is loaded.
 */
import { formatToParts } from "intl-messageformat";
import { createElement, Fragment } from "react";
import type { ReactNode } from "react";
import { LOCALE, spoken } from "./chosen";

type Parsed = Parameters<typeof formatToParts>[0];
type Values = Parameters<typeof formatToParts>[4];

/** What a message was said with, made of another message: the same text in another language. */
const AGAIN = Symbol("said with another message");

interface Said<A extends unknown[], R> {
  (...given: A): R;
  [AGAIN]: (message: Parsed) => Said<A, R>;
}

/** What makes something of the same options, once for each: making one of Intl's formats takes longer than all it does. */
function once<T>(make: (options: object | undefined) => T): (locales?: string | string[], options?: object) => T {
  const made = new Map<string, T>();
  return (_, options) => {
    const key = JSON.stringify(options ?? null);
    const found = made.get(key) ?? make(options);
    made.set(key, found);
    return found;
  };
}

const FORMATTERS = {
  getNumberFormat: once((options) => new Intl.NumberFormat(LOCALE, options)),
  getDateTimeFormat: once((options) => new Intl.DateTimeFormat(LOCALE, options)),
  getPluralRules: once((options) => new Intl.PluralRules(LOCALE, options)),
};
const FORMATS = { number: {}, date: {}, time: {} };

function parts(parsed: Parsed, values: object): unknown[] {
  return formatToParts(parsed, LOCALE, FORMATTERS, FORMATS, values as Values).map((one) => one.value);
}

/** A message with places: ``message<{ count: number }>("{count, plural, one {# row} other {# rows}}")``. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names the places of the message
export function message<V extends object>(text: string): (values: V) => string {
  const of = (parsed: Parsed): Said<[V], string> => Object.assign((values: V) => parts(parsed, values).join(""), { [AGAIN]: of });
  return of(text as unknown as Parsed);
}

/** The same where a place holds a part of the page, with a key of its own. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names the places of the message
export function rich<V extends object>(text: string): (values: V) => ReactNode {
  const of = (parsed: Parsed): Said<[V], ReactNode> =>
    Object.assign((values: V) => createElement(Fragment, null, ...(parts(parsed, values) as ReactNode[])), { [AGAIN]: of });
  return of(text as unknown as Parsed);
}

/** The texts of a view under their names, in the language of the page. What is called ``value`` is no text. */
export function catalogue<const T extends object>(name: string, texts: T): T {
  const other = spoken(name);
  return other ? (inOther(texts, other) as T) : texts;
}

function inOther(texts: unknown, other: unknown): unknown {
  if (other === undefined) return texts;
  if (typeof texts === "string") return typeof other === "string" ? other : texts;
  if (typeof texts === "function") return AGAIN in texts ? (texts as unknown as Said<unknown[], unknown>)[AGAIN](other as Parsed) : texts;
  if (Array.isArray(texts)) return texts.map((one, at) => inOther(one, (other as unknown[])[at]));
  if (typeof texts !== "object" || texts === null) return texts;
  return Object.fromEntries(Object.entries(texts).map(([key, one]) => [key, key === "value" ? one : inOther(one, (other as Record<string, unknown>)[key])]));
}
