/** The draft of a mark: typed here, saved as a draft, released with the outcome. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { connection, onConnection } from "../api/connection";
import { Problem } from "../api/problem";
import { submissionQuery } from "../api/queries";
import { usePersonId } from "../app/session";
import { dropDraft, findDraft, keepDraft } from "../pockets/drafts";

const PAUSE = 900;
/** Milliseconds of rest after which a draft is saved. */

export type DraftState = "rest" | "typing" | "saved" | "away" | Problem;

interface Fields {
  feedback: string;
  score: string;
}

/** A typed score as a number, null where there is none, undefined where it is no number. */
export function scoreOf(typed: string): number | null | undefined {
  const trimmed = typed.trim().replace(",", ".");
  if (!trimmed) return null;
  const number = Number(trimmed);
  return Number.isFinite(number) ? number : undefined;
}

function packed(fields: Fields): string {
  return JSON.stringify([fields.feedback, fields.score]);
}

/** Feedback and score of one submission, with their saving. */
export function useMark(desk: Schema["Desk"], groupId: number) {
  const person = usePersonId();
  const queries = useQueryClient();
  const name = `mark/${desk.id}`;
  const [fields, setFields] = useState<Fields>({
    feedback: desk.draft?.feedback ?? "",
    score: desk.draft?.score === null || desk.draft?.score === undefined ? "" : String(desk.draft.score),
  });
  const [state, setState] = useState<DraftState>("rest");
  const now = useRef({ fields, version: desk.draft?.version ?? 0, dirty: false, done: false });
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const push = useCallback(async () => {
    const mine = now.current;
    clearTimeout(timer.current);
    const score = scoreOf(mine.fields.score);
    if (!mine.dirty || mine.done || score === undefined) return;
    const sent = packed(mine.fields);
    try {
      const draft = await data(
        client.PUT("/api/submissions/{submission_id}/draft", {
          params: { path: { submission_id: desk.id } },
          body: { feedback: mine.fields.feedback, score, version: mine.version },
        }),
      );
      mine.version = draft.version;
      mine.dirty = packed(mine.fields) !== sent;
      if (!mine.dirty) {
        await dropDraft(person, name);
        setState("saved");
      }
      // Whoever comes back to this submission begins with what was saved, not with what was first read.
      queries.setQueryData(submissionQuery(groupId, desk.id).queryKey, (kept) => kept && { ...kept, draft });
    } catch (error) {
      const problem = error instanceof Problem ? error : null;
      setState(problem && !problem.away && problem.status !== 401 ? problem : "away");
    }
  }, [desk.id, groupId, name, person, queries]);

  const change = useCallback(
    (next: Partial<Fields>) => {
      const mine = now.current;
      mine.fields = { ...mine.fields, ...next };
      mine.dirty = true;
      setFields(mine.fields);
      setState("typing");
      void keepDraft(person, name, { text: packed(mine.fields), base: mine.version });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void push(), PAUSE);
    },
    [name, person, push],
  );

  /** Go on over the version that stands on the server: with ours, or with theirs. */
  const settle = useCallback(
    (version: number, theirs?: Fields) => {
      now.current.version = version;
      change(theirs ?? {});
    },
    [change],
  );

  /** The outcome is given: nothing is left to save. */
  const finish = useCallback(() => {
    now.current.done = true;
    clearTimeout(timer.current);
    void dropDraft(person, name);
  }, [name, person]);

  useEffect(() => {
    void findDraft(person, name).then((draft) => {
      if (!draft || now.current.dirty) return;
      const [feedback, score] = JSON.parse(draft.text) as [string, string];
      change({ feedback, score });
    });
    const stop = onConnection(() => {
      if (connection() === "there") void push();
    });
    return () => {
      stop();
      void push();
    };
  }, [change, name, person, push]);

  return { fields, state, change, settle, finish, version: now };
}
