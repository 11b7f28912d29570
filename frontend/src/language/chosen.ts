/** The language of this page, settled before anything else runs: the first that the browser asks for and we have, else English. */
import { LANGUAGES } from "virtual:languages";

const wanted = navigator.languages.find((one) => Object.hasOwn(LANGUAGES, one) || /^en(-|$)/.test(one)) ?? "en";
const other = LANGUAGES[wanted];

/** By which Intl tells dates, numbers and plurals (BCP 47). */
export const LOCALE: string = other?.locale ?? "en-GB";

/** The other language's messages by catalogue and name; nothing for English, whose texts stand in the code. */
export const TABLE: Record<string, unknown> = other ? (await other.load()).default : {};

document.documentElement.lang = other ? wanted : "en";
