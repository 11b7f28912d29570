/** A pattern's pocket as it reads in its first unit. */
import type { Schema } from "../api/client";
import { read } from "../laid/standIns";
import type { Fields } from "./fields";

/** A pocket's texts as they read in the first unit. */
export function standsIn(fields: Fields, unit?: Schema["UnitIO"]): Fields {
  const [title, directions, prompt, starter] = [fields.title, fields.directions, fields.prompt, fields.starter].map((one) => read(one, unit));
  return { ...fields, title: title ?? "", directions: directions ?? "", prompt: prompt ?? "", starter: starter ?? "" };
}
