/** The words of laying out a template. */
import { FileText, Layers, Link2, Table2 } from "lucide-react";
import type { LucideIcon } from "lucide-react";
import type { Schema } from "../api/client";
import { plural } from "../ui/dates";

export type Laid = Schema["LaidPocket"];
export type Kind = Laid["kind"];

export const KINDS: Record<Kind, { name: string; icon: LucideIcon; hint: string }> = {
  evidence: { name: "Evidence", icon: Layers, hint: "Artefacts, each with what the student says it shows" },
  page: { name: "Page", icon: FileText, hint: "A text written right here" },
  links: { name: "Links", icon: Link2, hint: "Addresses of pages on the web" },
  log: { name: "Log", icon: Table2, hint: "A table that grows row by row" },
};

export const TAKES = { picture: "Pictures", recording: "Recordings", file: "Files", link: "Links", text: "Texts" } as const;

export const TEXTS = {
  outline: "Outline of the template",
  addPocket: "Pocket",
  addSection: "Section",
  retired: "Retired",
  newPocket: "New pocket",
  newSection: "New section",
  newPattern: "Unit",
  addPattern: "Section that repeats",
  repeats: "repeats for each unit",
  laidHint: "It is laid out from a pattern. Change the pattern, or the unit’s questions, and every unit follows.",
  none: "Choose a pocket to see and change what it asks for.",
  empty: "This template is empty",
  emptyHint: "Add a section and its first pocket: students see it at once.",
  save: "Save for everyone",
  asWas: "As it was",
  retire: "Retire this pocket",
  restore: "Bring it back",
  remove: "Take it away",
  preview: "Preview",
  up: "Up",
  down: "Down",
  gone: "This pocket is not in the template any more",
  goneFix: "Somebody has taken it away; nobody had used it. Choose another one in the outline.",
  goneTyped: "What you had typed for it, and not saved:",
  workingOut: "Working out what it means …",
} as const;

/** What a pocket asks for, in a few words. */
export function asksFor(pocket: Laid): string {
  // What a unit's pockets ask for stands at their pattern.
  if (pocket.laid) return "";
  return pocket.each_question ? "each question" : asks(pocket);
}

function asks(pocket: Laid): string {
  if (pocket.kind === "page") return "page";
  if (pocket.kind === "log") return pocket.rows_per_week ? `${plural(pocket.rows_per_week, "row")} a week` : pocket.rows ? plural(pocket.rows, "row") : "nothing wanted";
  if (pocket.artefacts === 0) return "nothing wanted";
  const what = pocket.kind === "links" ? "link" : "artefact";
  return `${plural(pocket.artefacts, what)}${pocket.reflection_on_each ? " · reflection" : ""}`;
}
