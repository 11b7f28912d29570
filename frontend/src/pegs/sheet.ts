/** The scores together: as they stand, and under weights that are only tried. */
import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import type { CoatState } from "../ui/Coat";
import { useSettled } from "../ui/useSettled";
import { SHEET } from "./sheetTexts";

export type Sheet = Schema["SheetShape"];
const COATS: Partial<Record<Sheet["rows"][number]["kinds"][number], CoatState>> = {
  not_marked: { status: "handed_in" },
  sent_back: { status: "sent_back" },
  missing: { status: "empty", overdue: true },
  not_due: { status: "not_open" },
  excused: { status: "excused" },
};

/** What hangs where a score would stand. */
export function scoreCoat(kind: Sheet["rows"][number]["kinds"][number]): CoatState {
  return COATS[kind] ?? { status: "empty" };
}

export type Rule = Schema["RuleIn"];

/** What is typed of a rule: weights by hand-in, empty where it weighs its points. */
export interface Typed {
  weights: Record<string, string>;
  best: string;
  missing_is_zero: boolean;
}

export const sheetQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "sheet"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/sheet", { params: { path: { group_id } } })),
  });

export function typedOf(sheet: Sheet): Typed {
  const own = sheet.handins.filter((one) => one.own_weight);
  return {
    weights: Object.fromEntries(own.map((one) => [String(one.id), String(one.weight)])),
    best: sheet.best === null ? "" : String(sheet.best),
    missing_is_zero: sheet.missing_is_zero,
  };
}

function numberOf(typed: string, where: string): number | null {
  const text = typed.trim().replace(",", ".");
  if (!text) return null;
  const number = Number(text);
  if (Number.isFinite(number)) return number;
  throw new Problem({ title: SHEET.notANumber({ typed }), fix: SHEET.giveNumber, where }, 422);
}

/** The rule that was typed; a problem where something is no number. */
export function ruleOf({ weights, best, missing_is_zero }: Typed): Rule {
  const numbers = Object.entries(weights).flatMap(([handin, typed]): [string, number][] => {
    const number = numberOf(typed, `weights.${handin}`);
    return number === null ? [] : [[handin, number]];
  });
  return { weights: Object.fromEntries(numbers), best: numberOf(best, "best"), missing_is_zero };
}

/** The sheet under what is typed, once one pauses; the one before stays while it is asked for. */
export function useTried(groupId: number, typed: Typed | null) {
  const settled = useSettled(typed);
  return useQuery({
    queryKey: ["group", groupId, "sheet", "tried", settled],
    enabled: settled !== null && typed !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => data(client.POST("/api/groups/{group_id}/sheet/tried", { params: { path: { group_id: groupId } }, body: ruleOf(settled ?? { weights: {}, best: "", missing_is_zero: false }) })),
  });
}

/** How many totals another sheet changes, and by how much at most. */
export function movedBy(before: Sheet, after: Sheet): { count: number; most: number } {
  const totals = new Map(before.rows.map((row) => [row.id, row.total]));
  const moves = after.rows.map((row) => Math.abs((row.total ?? 0) - (totals.get(row.id) ?? 0))).filter((by) => by > 0.049);
  return { count: moves.length, most: Math.max(0, ...moves) };
}
