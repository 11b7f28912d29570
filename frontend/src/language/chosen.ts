/** The language of this page, settled before anything else is loaded: the first that the browser asks for and we have, else English. */
import { LANGUAGES } from "virtual:languages";

const wanted = navigator.languages.find((one) => Object.hasOwn(LANGUAGES, one) || /^en(-|$)/.test(one)) ?? "en";
const other = LANGUAGES[wanted];

/** By which Intl tells dates, numbers and plurals (BCP 47). */
export const LOCALE: string = other?.locale ?? "en-GB";

let table: Record<string, unknown> = {};

/** The other language's messages of a catalogue; nothing for English, whose texts stand in the code. */
export function spoken(catalogue: string): unknown {
  return table[catalogue];
}

/** Load the language; what is written in it is imported afterwards. Where it does not come, English. */
export async function speak(): Promise<void> {
  document.documentElement.lang = other ? wanted : "en";
  try {
    if (other) table = (await other.load()).default;
  } catch {
    document.documentElement.lang = "en";
  }
}
