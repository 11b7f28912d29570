/** What a teacher does to a template, each with its undo. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { useUndo } from "../live/useUndo";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";
import type { Kind, Laid } from "./texts";
import { OUTLINE } from "./outlineTexts";

type Section = Schema["LaidSection"];

/** One step and, where it has one, its undo. */
interface Step {
  run: () => Promise<unknown>;
  words?: string;
  undo?: () => Promise<unknown>;
  /** What is said once it is undone. */
  undone?: string;
}

/** Do steps on the template of a class; errors stay in ``error``. */
export function useEdits(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const back = useUndo(groupId);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const step = useMutation({
    mutationFn: ({ run }: Step) => run(),
    onSuccess: async (_, { words, undo, undone = TEXTS.undone }) => {
      await fresh();
      if (words) say(words, undo && back(undo, undone));
    },
  });
  /** Take something away that can be brought back as itself. */
  const takeAway = (run: () => Promise<{ taken_away: number }>, words: string, undone: string) => {
    let kept = 0;
    step.mutate({
      run: async () => (kept = (await run()).taken_away),
      words,
      undo: () =>
        data(client.POST("/api/groups/{group_id}/template/taken-away/{taken_away_id}/restore", { params: { path: { group_id: groupId, taken_away_id: kept } } })),
      undone,
    });
  };
  const of = (section_id: number) => ({ params: { path: { group_id: groupId, section_id } } });
  const at = (pocket_id: number) => ({ params: { path: { group_id: groupId, pocket_id } } });
  const group = { params: { path: { group_id: groupId } } };

  const removePocket = (id: number) => data(client.DELETE("/api/groups/{group_id}/template/pockets/{pocket_id}", at(id)));
  const retire = (id: number, retired: boolean) => data(client.PUT("/api/groups/{group_id}/template/pockets/{pocket_id}/retired", { ...at(id), body: { retired } }));
  const move = (id: number, section: number, before: number | null) =>
    data(client.POST("/api/groups/{group_id}/template/pockets/{pocket_id}/move", { ...at(id), body: { section, before } }));

  return {
    error: step.error,
    /** Lay out lines in a section, each a pocket; returns the ids of what was made. */
    addLine: async (text: string, kind: Kind, section: number): Promise<number[]> => {
      let added: number[] = [];
      await step.mutateAsync({
        run: async () => {
          const made = await data(client.POST("/api/groups/{group_id}/template/outline", { ...group, body: { text, kind, section } }));
          added = made.added;
        },
        words: OUTLINE.laid({ count: 1 }),
        undo: () => data(client.POST("/api/groups/{group_id}/template/brought/undo", { ...group, body: { sections: [], added } })),
      });
      return added;
    },
    /** Add a section, or one that repeats for units; returns its id. */
    addSection: async (title: string, repeats: boolean): Promise<number> => {
      let id = 0;
      await step.mutateAsync({
        run: async () => {
          id = (await data(client.POST("/api/groups/{group_id}/template/sections", { ...group, body: { title, repeats } }))).id;
        },
      });
      return id;
    },
    renameSection: (section: Section, title: string) =>
      step.mutate({
        run: () => data(client.PUT("/api/groups/{group_id}/template/sections/{section_id}", { ...of(section.id), body: { title } })),
        words: TEXTS.titleIsCalledTitleNow({ title: section.title, title2: title }),
        undo: () => data(client.PUT("/api/groups/{group_id}/template/sections/{section_id}", { ...of(section.id), body: { title: section.title } })),
      }),
    removeSection: (section: Section) =>
      takeAway(
        () => data(client.DELETE("/api/groups/{group_id}/template/sections/{section_id}", of(section.id))),
        TEXTS.theSectionTitleIsGone({ title: section.title }),
        TEXTS.theSectionTitleIsBack({ title: section.title }),
      ),
    /** Put a section before another one (null: at the end); ``was`` is what it stood before. */
    moveSection: (section: Section, before: number | null, was: number | null) => {
      const put = (place: number | null) => data(client.POST("/api/groups/{group_id}/template/sections/{section_id}/move", { ...of(section.id), body: { before: place } }));
      step.mutate({ run: () => put(before), words: OUTLINE.sectionMoved({ title: section.title }), undo: () => put(was) });
    },
    movePocket: (id: number, section: number, before: number | null) => step.mutate({ run: () => move(id, section, before) }),
    retire: (pocket: Laid, retired: boolean) =>
      step.mutate({
        run: () => retire(pocket.id, retired),
        words: retired ? TEXTS.titleIsRetiredWorkIn({ title: pocket.title }) : TEXTS.titleIsBack({ title: pocket.title }),
        undo: () => retire(pocket.id, !retired),
      }),
    remove: (pocket: Laid) => takeAway(() => removePocket(pocket.id), TEXTS.titleIsGoneNobodyHad({ title: pocket.title }), TEXTS.titleIsBackAsIt({ title: pocket.title })),
  };
}

export type Edits = ReturnType<typeof useEdits>;
