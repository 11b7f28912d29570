/** The draft of a mark: typed here, kept like every text, released with the outcome. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { submissionQuery } from "../api/queries";
import { usePersonId } from "../api/session";
import { useAutosave } from "../writing/autosave";
import type { Save, Saved } from "../writing/keeper";
import { MARK } from "./markTexts";
import type { Judged } from "./RubricTable";

export interface Fields {
  feedback: string;
  /** As it is typed; of a rubric it comes from the levels, and nothing is. */
  score: string;
  levels: Judged;
  /** Another score than the rule makes, as it is typed, and why. */
  own: string;
  why: string;
}

/** A typed score as a number, null where there is none; a problem where it is no number. */
export function scoreOf(typed: string, points: number | null): number | null {
  const trimmed = typed.trim().replace(",", ".");
  if (!trimmed) return null;
  const number = Number(trimmed);
  if (Number.isFinite(number)) return number;
  throw new Problem({ title: MARK.typedIsNotANumber({ typed }), fix: MARK.giveToPoints({ points: points ?? 0 }), where: "score" }, 422);
}

/** All of it as the one text that is kept: the same of the same, in whichever order it was chosen. */
export function packed({ feedback, score, levels, own, why }: Fields): string {
  const chosen = Object.entries(levels).toSorted(([one], [other]) => (one < other ? -1 : 1));
  if (own || why) return JSON.stringify([feedback, score, Object.fromEntries(chosen), own, why]);
  return JSON.stringify(chosen.length > 0 ? [feedback, score, Object.fromEntries(chosen)] : [feedback, score]);
}

export function unpacked(text: string): Fields {
  const [feedback = "", score = "", levels = {}, own = "", why = ""] = JSON.parse(text) as [string?, string?, Judged?, string?, string?];
  return { feedback, score, levels, own, why };
}

/** What is typed as the server takes it. */
export function markOf({ feedback, score, levels, own, why }: Fields, byRubric: boolean, points: number | null): Omit<Schema["MarkIn"], "version"> {
  return { feedback, score: byRubric ? null : scoreOf(score, points), levels, own_score: scoreOf(own, points), why };
}

type Drafted = Pick<Schema["Draft"], "feedback" | "score" | "levels" | "own_score" | "why" | "version">;

function typed(score: number | null): string {
  return score === null ? "" : String(score);
}

function kept(draft: Partial<Drafted> | null | undefined, byRubric: boolean): Saved {
  const { feedback = "", score = null, levels = {}, own_score = null, why = "", version = 0 } = draft ?? {};
  return { text: packed({ feedback, score: byRubric ? "" : typed(score), levels, own: typed(own_score), why }), version };
}

/** What is marked: a submission, out of how many points, with one's own draft of it. */
export interface Marked {
  id: number;
  points: number | null;
  /** Whether its score comes from a rubric. */
  byRubric: boolean;
  draft: Drafted | null | undefined;
}

/** Feedback and score of one submission, with their saving. */
export function useMark({ id, points, byRubric, draft }: Marked, groupId: number) {
  const person = usePersonId();
  const queries = useQueryClient();

  const save: Save = useCallback(
    async (text, version) => {
      try {
        const path = { params: { path: { submission_id: id } } };
        const saved = await data(client.PUT("/api/submissions/{submission_id}/draft", { ...path, body: { ...markOf(unpacked(text), byRubric, points), version } }));
        // Whoever comes back to this submission begins with what was saved, not with what was first read.
        queries.setQueryData(submissionQuery(groupId, id).queryKey, (seen) => seen && { ...seen, draft: saved });
        return kept(saved, byRubric);
      } catch (error) {
        if (!(error instanceof Problem && error.kind === "stale")) throw error;
        const theirs = kept(error.more, byRubric);
        throw new Problem({ type: "urn:coatpeg:stale", title: error.title, fix: error.fix, ...theirs }, error.status);
      }
    },
    [id, groupId, points, byRubric, queries],
  );

  const { text, state, keeper } = useAutosave({ name: `mark/${id}`, person, server: kept(draft, byRubric), writable: true, save });
  const fields = unpacked(text);
  return { fields, state, keeper, change: (next: Partial<Fields>) => keeper.change(packed({ ...fields, ...next })) };
}
