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

export interface Fields {
  feedback: string;
  score: string;
}

/** A typed score as a number, null where there is none; a problem where it is no number. */
export function scoreOf(typed: string, points: number | null): number | null {
  const trimmed = typed.trim().replace(",", ".");
  if (!trimmed) return null;
  const number = Number(trimmed);
  if (Number.isFinite(number)) return number;
  throw new Problem({ title: MARK.typedIsNotANumber({ typed }), fix: MARK.giveToPoints({ points: points ?? 0 }), where: "score" }, 422);
}

/** Feedback and score as the one text that is kept. */
export function packed(fields: Fields): string {
  return JSON.stringify([fields.feedback, fields.score]);
}

export function unpacked(text: string): Fields {
  const [feedback = "", score = ""] = JSON.parse(text) as string[];
  return { feedback, score };
}

type Drafted = Pick<Schema["Draft"], "feedback" | "score" | "version">;

function kept(draft: Partial<Drafted> | null | undefined): Saved {
  const score = draft?.score ?? null;
  return { text: packed({ feedback: draft?.feedback ?? "", score: score === null ? "" : String(score) }), version: draft?.version ?? 0 };
}

/** What is marked: a submission, out of how many points, with one's own draft of it. */
export interface Marked {
  id: number;
  points: number | null;
  draft: Drafted | null | undefined;
}

/** Feedback and score of one submission, with their saving. */
export function useMark({ id, points, draft }: Marked, groupId: number) {
  const person = usePersonId();
  const queries = useQueryClient();

  const save: Save = useCallback(
    async (text, version) => {
      const { feedback, score } = unpacked(text);
      try {
        const path = { params: { path: { submission_id: id } } };
        const saved = await data(client.PUT("/api/submissions/{submission_id}/draft", { ...path, body: { feedback, score: scoreOf(score, points), version } }));
        // Whoever comes back to this submission begins with what was saved, not with what was first read.
        queries.setQueryData(submissionQuery(groupId, id).queryKey, (seen) => seen && { ...seen, draft: saved });
        return kept(saved);
      } catch (error) {
        if (!(error instanceof Problem && error.kind === "stale")) throw error;
        const theirs = kept(error.more);
        throw new Problem({ type: "urn:coatpeg:stale", title: error.title, fix: error.fix, ...theirs }, error.status);
      }
    },
    [id, groupId, points, queries],
  );

  const { text, state, keeper } = useAutosave({ name: `mark/${id}`, person, server: kept(draft), writable: true, save });
  const fields = unpacked(text);
  return { fields, state, keeper, change: (next: Partial<Fields>) => keeper.change(packed({ ...fields, ...next })) };
}
