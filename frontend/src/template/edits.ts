/** What a teacher does to a template, each with its undo. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { useUndo } from "../live/useUndo";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";
import type { Laid } from "./texts";

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
    /** Add a pocket to a section; returns its id. */
    addPocket: async (section: number): Promise<number> => {
      const body: Schema["PocketIn"] = {
        title: TEXTS.newPocket,
        kind: "evidence",
        directions: "",
        prompt: "",
        artefacts: 1,
        reflection_on_each: true,
        measure: "",
        least: 1,
        takes: [],
        spoken: false,
        starter: "",
        counts: true,
        rows: 0,
        rows_per_week: 0,
        each_question: false,
        version: 0,
      };
      const made = await data(client.POST("/api/groups/{group_id}/template/sections/{section_id}/pockets", { ...of(section), body }));
      await step.mutateAsync({ run: () => Promise.resolve(), words: TEXTS.aPocketMoreInEvery, undo: () => removePocket(made.id) });
      return made.id;
    },
    /** Add a section, or one that repeats for units; returns its id. */
    addSection: async (repeats: boolean): Promise<number> => {
      const made = await data(client.POST("/api/groups/{group_id}/template/sections", { ...group, body: { title: repeats ? TEXTS.newPattern : TEXTS.newSection, repeats } }));
      await fresh();
      return made.id;
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
