/** Which of the things held a change touches: by kind of change, and by whose they are. */
import type { QueryClient, QueryKey } from "@tanstack/react-query";
import type { Schema } from "../api/client";

type Changes = Schema["ChangesShape"];
type Kind = Changes["kinds"][number];

/** Kinds that change nothing of a view; everything else does. The board is patched, where it is not loaded anew. */
const LEAVES: Record<string, Kind[]> = {
  filters: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar", "cupboard"],
  load: ["work", "handing", "marks", "comments", "reminders", "show", "template", "gallery", "lists", "staff", "cupboard"],
  pile: ["comments", "reminders", "show", "gallery", "lists", "cupboard"],
  handins: ["comments", "reminders", "show", "gallery", "lists", "staff", "marks", "cupboard"],
  roster: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "template", "gallery", "staff", "cupboard"],
  sets: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "gallery", "lists", "staff", "calendar", "cupboard"],
  drops: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "staff", "calendar", "cupboard"],
  staff: ["work", "handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "lists", "calendar", "cupboard"],
  template: ["handing", "marks", "comments", "reminders", "show", "own_dues", "adjustments", "lists", "staff", "cupboard"],
  gallery: ["work", "handing", "marks", "comments", "reminders", "show", "own_dues", "adjustments", "lists", "staff", "roster", "cupboard"],
  portfolios: ["marks", "comments", "reminders", "show", "asked", "own_dues", "gallery", "lists", "cupboard"],
  phrases: ["work", "handing", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar", "cupboard"],
  "class-notes": ["work", "marks", "reminders", "show", "own_dues", "adjustments", "template", "gallery", "lists", "staff", "calendar", "cupboard"],
  "staff-notes": ["work", "handing", "marks", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "lists", "calendar", "cupboard"],
  marking: ["work", "comments", "reminders", "show", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "calendar", "cupboard"],
  annotations: ["work", "reminders", "show", "asked", "own_dues", "adjustments", "template", "gallery", "roster", "lists", "staff", "calendar", "cupboard"],
  sheet: ["work", "comments", "reminders", "show", "template", "gallery", "lists", "staff", "cupboard"],
  shows: ["handing", "marks", "comments", "asked", "own_dues", "adjustments", "lists", "staff", "gallery", "cupboard"],
  // Of two lists that are told apart by what is typed, no change of the class makes another one.
  preview: ["work", "comments", "reminders", "show", "marks", "gallery", "lists", "staff", "cupboard"],
  // A copy that is written in has come further: what lies in the cupboard says how far each is.
  cupboard: ["handing", "marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "gallery", "lists", "staff", "calendar"],
  copies: ["marks", "comments", "reminders", "show", "asked", "own_dues", "adjustments", "gallery", "lists", "staff", "calendar"],
  given: ["marks", "comments", "reminders", "show", "own_dues", "adjustments", "gallery", "lists", "staff", "calendar"],
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
