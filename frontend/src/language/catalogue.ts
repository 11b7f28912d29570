/**
 * Texts by catalogue. A plain text is a string; one with something in it is an ICU message (plurals, choices, places),
 * parsed when the application is built (``texts.js``), so that no parser is loaded.
 */
import { IntlMessageFormat } from "intl-messageformat";
import { createElement, Fragment } from "react";
import type { ReactNode } from "react";
import { LOCALE, TABLE } from "./chosen";

type Parsed = ConstructorParameters<typeof IntlMessageFormat>[0];
type Value = string | number | boolean | null | undefined;

/** What a message was said with, made of another message: the same text in another language. */
const AGAIN = Symbol("said with another message");

interface Said<A extends unknown[], R> {
  (...given: A): R;
  [AGAIN]: (message: Parsed) => Said<A, R>;
}

/** A message with places: ``message<{ count: number }>("{count, plural, one {# row} other {# rows}}")``. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names the places of the message
export function message<V extends object = Record<string, Value>>(text: string): (values: V) => string {
  const of = (parsed: Parsed): Said<[V], string> => {
    let format: IntlMessageFormat | undefined;
    return Object.assign((values: V) => String((format ??= made(parsed)).format(values as Record<string, Value>)), { [AGAIN]: of });
  };
  return of(text);
}

/** The same where a place holds a part of the page, or ``<b>…</b>`` makes one of words. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names the places of the message
export function rich<V extends object>(text: string): (values: V) => ReactNode {
  const of = (parsed: Parsed): Said<[V], ReactNode> => {
    let format: IntlMessageFormat | undefined;
    return Object.assign(
      (values: V) => {
        const found = (format ??= made(parsed)).format<ReactNode>(values as Record<string, ReactNode>);
        return Array.isArray(found) ? createElement(Fragment, null, ...(found)) : (found);
      },
      { [AGAIN]: of },
    );
  };
  return of(text);
}

function made(parsed: Parsed): IntlMessageFormat {
  return new IntlMessageFormat(parsed, LOCALE);
}

/** The texts of a view under their names, in the language of the page. What is called ``value`` is no text. */
export function catalogue<const T extends object>(name: string, texts: T): T {
  const other = TABLE[name];
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
