/** What stands in a pattern's texts for a unit and its question, as it reads: nobody is shown ``{unit}`` itself. */
import type { Schema } from "../api/client";
import { READ } from "./texts";

/** A text with the first unit's name and question in it, or with words that say what comes there. */
export function read(text: string, unit?: Schema["UnitIO"]): string {
  return text.replaceAll("{unit}", unit?.title ?? READ.theUnit).replaceAll("{question}", unit?.questions?.[0]?.text ?? READ.theQuestion);
}
