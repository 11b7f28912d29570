/** What is said on one submission: loaded, made, changed, taken back; shared by everything that shows the submission. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import { client, data } from "../../api/client";
import type { Schema } from "../../api/client";
import { annotationsQuery } from "../../api/queries";
import { newKey } from "../../ui/newKey";
import { useSay } from "../../ui/Toasts";
import { SAID } from "./saidTexts";

export type Annotation = Schema["AnnotationShape"];
export type Target = Schema["TargetShape"];
export type Body = Schema["AnnotationIn"];
export type Colour = "rust" | "sea" | "plum";
export type Tool = "look" | "spot" | "ink" | "erase";
export const COLOURS: Colour[] = ["rust", "sea", "plum"];
/** On any picture: each has at least 6 to 1 on white, and is drawn with a white edge (``theme.css``). */
export const INKS: Record<Colour, { fill: string; ground: string }> = {
  rust: { fill: "fill-rust", ground: "bg-rust" },
  sea: { fill: "fill-sea", ground: "bg-sea" },
  plum: { fill: "fill-plum", ground: "bg-plum" },
};
/** The right and the lower edge, as places are counted. */
export const SCALE = 10_000;

/** What is being written: a new one, or one of one's own. */
export interface Composing {
  key: string;
  kind: "comment" | "suggestion";
  target: Target;
  version: number;
  text: string;
  wording: string;
  voice: boolean;
  criterion: string;
}

/** A comment that is begun on a place. */
export function begin(target: Target, more: Partial<Composing> = {}): Composing {
  return { key: newKey(), kind: "comment", target, version: 0, text: "", wording: "", voice: false, criterion: "", ...more };
}

export interface Said {
  submission: number;
  groupId: number;
  list: Annotation[];
  /** Whether this person marks. */
  writes: boolean;
  /** Of the rubric: what a comment may say why of. */
  criteria: { key: string; title: string }[];
  /** Whether it is this person's own work. */
  mends: boolean;
  /** The one that is looked at. */
  active: number | null;
  choose: (id: number | null) => void;
  tool: Tool;
  setTool: (tool: Tool) => void;
  colour: Colour;
  setColour: (colour: Colour) => void;
  composing: Composing | null;
  compose: (begun: Composing | null) => void;
  /** Something was drawn or erased; what undoes it. */
  undoable: (run: () => void) => void;
  undo: () => void;
}

export const SaidContext = createContext<Said | null>(null);

/** What is said on the submission that is shown; null where nothing can be said. */
export function useSaid(): Said | null {
  return useContext(SaidContext);
}

/** The place of an annotation without what it says there: equal for all that lie on the same surface. */
export function surfaceOf(target: Target): string {
  return [target.pocket, target.evidence, target.part, target.page].map((one) => one ?? "").join("/");
}

/** Whether something is on this evidence, or on its pocket where none is named. */
export function isOn(target: Target, pocket: number, evidence?: number): boolean {
  return target.pocket === pocket && (evidence === undefined || (target.evidence ?? evidence) === evidence);
}

/** Comments in the order of the work, each with its number: what is drawn or only highlighted has none. */
export function numbered(list: Annotation[]): Map<number, number> {
  const with_ = list.filter((one) => one.kind !== "ink" && (one.kind !== "highlight" || one.text !== ""));
  return new Map(with_.map((one, at) => [one.id, at + 1]));
}

/** What can be done to what is said. */
export function useSaying(groupId: number, submission: number) {
  const queries = useQueryClient();
  const say = useSay();
  const key = annotationsQuery(groupId, submission).queryKey;
  const put = (one: Annotation) =>
    queries.setQueryData(key, (list: Annotation[] | undefined) => list && (list.some((each) => each.id === one.id) ? list.map((each) => (each.id === one.id ? one : each)) : [...list, one]));
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId, "annotations"] });
  const path = (annotation_id: number) => ({ params: { path: { annotation_id } } });
  const restore = (id: number) => void data(client.POST("/api/annotations/{annotation_id}/restore", path(id))).then(fresh);
  const remove = useMutation({
    mutationFn: (id: number) => data(client.DELETE("/api/annotations/{annotation_id}", path(id))),
    onSuccess: (gone) => {
      queries.setQueryData(key, (list: Annotation[] | undefined) => list?.filter((one) => one.id !== gone.id));
      say(SAID.gone, () => restore(gone.id));
    },
  });
  return {
    keep: async (of: string, body: Body) => {
      const made = await data(client.PUT("/api/submissions/{submission_id}/annotations/{key}", { params: { path: { submission_id: submission, key: of } }, body }));
      put(made);
      return made;
    },
    put,
    fresh,
    remove: (id: number) => remove.mutate(id),
  };
}

export function useAnnotations(groupId: number, submission: number) {
  return useQuery(annotationsQuery(groupId, submission));
}
