/** Which of the things held a change touches: by kind of change, and by whose they are. */
import type { QueryClient, QueryKey } from "@tanstack/react-query";
import type { Schema } from "../api/client";

type Changes = Schema["ChangesShape"];
type Kind = Changes["kinds"][number];

/** Kinds that change nothing of a view; everything else does. The board is patched, where it is not loaded anew. */
const LEAVES: Record<string, Kind[]> = {
  filters: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar"],
  load: ["work", "handing", "marks", "comments", "reminders", "show", "template", "gallery", "lists", "staff"],
  pile: ["comments", "reminders", "show", "gallery", "lists"],
  handins: ["comments", "reminders", "show", "gallery", "lists", "staff", "marks"],
  roster: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "template", "gallery", "staff"],
  drops: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "staff", "calendar"],
  staff: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "lists", "calendar"],
  template: ["handing", "marks", "comments", "reminders", "show", "own_dues", "adjustments", "lists", "staff"],
  gallery: ["work", "handing", "marks", "comments", "reminders", "show", "own_dues", "adjustments", "lists", "staff", "roster"],
  portfolios: ["marks", "comments", "reminders", "show", "asked", "own_dues", "gallery", "lists"],
  phrases: ["work", "handing", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar"],
  "class-notes": ["work", "marks", "reminders", "show", "own_dues", "adjustments", "template", "gallery", "lists", "staff", "calendar"],
  "staff-notes": ["work", "handing", "marks", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "lists", "calendar"],
  marking: ["work", "comments", "reminders", "show", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar"],
  annotations: ["work", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "staff", "calendar"],
  sheet: ["work", "comments", "reminders", "show", "template", "gallery", "lists", "staff"],
  shows: ["handing", "marks", "comments", "asked", "own_dues", "adjustments", "lists", "staff", "gallery"],
  // Of two lists that are told apart by what is typed, no change of the class makes another one.
  preview: ["work", "comments", "reminders", "show", "marks", "gallery", "lists", "staff"],
};

/** Whether what is held under a key belongs to one student, and to which; undefined where it is the class's. */
function owner(queries: QueryClient, key: QueryKey): number | undefined {
  const [, group, what, first, second] = key;
  if (what === "cell") return Number(second);
  if (what === "asked") return Number(first);
  if (what === "portfolio" && typeof first === "number") {
    return queries.getQueryData<Schema["PortfolioShape"]>(["group", group, "portfolio", first])?.student.id;
  }
  return undefined;
}

export function touches(queries: QueryClient, groupId: number, changes: Changes, key: QueryKey): boolean {
  const [root, group, what] = key;
  if (root !== "group" || group !== groupId) return false;
  if (changes.all_changed) return true;
  if (what === "board") return changes.board_anew;
  const left = LEAVES[String(what)];
  if (left && changes.kinds.every((kind) => left.includes(kind))) return false;
  const whose = owner(queries, key);
  return whose === undefined || changes.everybody || changes.enrolments.includes(whose);
}
