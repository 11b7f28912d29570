/** The language of this page, settled before anything else runs: what this device was told, else English. */
import { LANGUAGES } from "virtual:languages";

const LAST = "coat-peg-language";
/** Under which the device knows the last one: texts are wanted before the server was asked. */

type Table = Record<string, unknown>;

interface Language {
  /** By which numbers, dates and plurals are told (BCP 47). */
  locale: string;
  load: () => Promise<{ default: Table }>;
}

function known(name: string | null): Language | undefined {
  return name !== null && Object.hasOwn(LANGUAGES, name) ? LANGUAGES[name] : undefined;
}

function last(): string | null {
  try {
    return localStorage.getItem(LAST);
  } catch {
    return null;
  }
}

const name = last();
const language = known(name);

/** Its name as the page says it (``lang``); a name that nobody knows is English. */
export const LANGUAGE: string = language && name ? name : "en";
/** By which Intl tells dates, numbers and plurals. */
export const LOCALE: string = language?.locale ?? "en-GB";

/** The other language's messages by catalogue and place; nothing for English, whose texts stand in the code. */
export const TABLE: Table = language ? (await language.load()).default : {};

document.documentElement.lang = LANGUAGE;

/** Speak another language from the next load on; one that is not there is English. */
export function keepLanguage(wanted: string): void {
  try {
    if (known(wanted)) localStorage.setItem(LAST, wanted);
    else localStorage.removeItem(LAST);
  } catch {
    // A browser that keeps nothing speaks English.
  }
}
