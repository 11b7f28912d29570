/** What stands in a pattern's texts for a unit and its question, as it reads: nobody is shown ``{unit}`` itself. */
import type { Schema } from "../api/client";
import type { Fields } from "./fields";
import { OUTLINE } from "./outlineTexts";

/** A text with the first unit's name and question in it, or with words that say what comes there. */
export function read(text: string, unit?: Schema["UnitIO"]): string {
  return text.replaceAll("{unit}", unit?.title ?? OUTLINE.theUnit).replaceAll("{question}", unit?.questions?.[0]?.text ?? OUTLINE.theQuestion);
}

/** A pocket's texts as they read in the first unit. */
export function standsIn(fields: Fields, unit?: Schema["UnitIO"]): Fields {
  const [title, directions, prompt, starter] = [fields.title, fields.directions, fields.prompt, fields.starter].map((one) => read(one, unit));
  return { ...fields, title: title ?? "", directions: directions ?? "", prompt: prompt ?? "", starter: starter ?? "" };
}
