/** A line of somebody's news, in words. */
import type { Schema } from "../api/client";
import { NEWS } from "./newsTexts";

export function newsWords(line: Schema["NoticeLine"]): string {
  if (line.what === "handed_in" && line.count > 1) return NEWS.severalHandedIn({ count: line.count });
  return NEWS.what[line.what];
}
