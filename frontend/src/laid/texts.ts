/** What a pocket is and asks for, in words; and of an outline, what it would lay out. */
import { catalogue, message } from "../language/catalogue";
import { FileText, Layers, Link2, Table2 } from "lucide-react";
import type { LucideIcon } from "lucide-react";
import type { Schema } from "../api/client";
import { COUNTED } from "../ui/texts";

export type Laid = Schema["LaidPocket"];
export type Kind = Laid["kind"];

export const KINDS: Record<Kind, { name: string; icon: LucideIcon; hint: string }> = catalogue("laid.kinds", {
  evidence: { name: "Evidence", icon: Layers, hint: "Artefacts, each with what the student says it shows" },
  page: { name: "Page", icon: FileText, hint: "A text written right here; artefacts may lie beside it" },
  links: { name: "Links", icon: Link2, hint: "Addresses of pages on the web" },
  log: { name: "Log", icon: Table2, hint: "A table that grows row by row" },
});

export const TAKES = catalogue("laid.takes", { picture: "Pictures", recording: "Recordings", file: "Files", link: "Links", text: "Texts" });

/** An outline as it was understood. */
export const READ = catalogue("laid.read", {
  understood: "What will be laid out",
  nothingYet: "It appears here as you type.",
  into: message<{ section: string }>("In “{section}”"),
  repeats: "repeats for each unit",
  line: message<{ line: number; what: string }>("Line {line, number}: {what}"),
  toMend: "To mend first",
  toKnow: "Good to know",
  optional: "not counted",
  takesOnly: message<{ kinds: string }>("{kinds} only"),
  theUnit: "(the unit)",
  theQuestion: "(the question)",
});

const ASKS = catalogue("laid.asks", {
  eachQuestion: "each question",
  page: "page",
  rowsAWeek: message<{ count: number }>("{count, plural, one {# row} other {# rows}} a week"),
  nothing: "nothing wanted",
  together: message<{ what: string; who: string }>("{what} · {who}"),
  who: { group: "in groups", period: "by period", class: "whole class" },
  withReflection: message<{ what: string }>("{what} · reflection"),
});

/** A pocket that is laid out, or one that will be. */
type Asked = Schema["PocketSettings"] & { laid?: boolean };

/** What a pocket asks for, in a few words. */
export function asksFor(pocket: Asked): string {
  // What a unit's pockets ask for stands at their pattern.
  if (pocket.laid) return "";
  const asked = pocket.each_question ? ASKS.eachQuestion : asks(pocket);
  return pocket.shared ? ASKS.together({ what: asked, who: ASKS.who[pocket.shared] }) : asked;
}

function asks(pocket: Asked): string {
  if (pocket.kind === "page") return ASKS.page;
  if (pocket.kind === "log") return pocket.rows_per_week ? ASKS.rowsAWeek({ count: pocket.rows_per_week }) : pocket.rows ? COUNTED.rows({ count: pocket.rows }) : ASKS.nothing;
  if (pocket.artefacts === 0) return ASKS.nothing;
  const what = pocket.kind === "links" ? COUNTED.links({ count: pocket.artefacts }) : COUNTED.artefacts({ count: pocket.artefacts });
  return pocket.reflection_on_each ? ASKS.withReflection({ what }) : what;
}
