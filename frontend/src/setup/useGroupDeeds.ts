/** What is done with sets of groups, said when it is done. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";
import { GROUPS } from "./groupTexts";
import { useUndoList } from "./undo";

type Set_ = Schema["GroupSetShape"];
type Group = Schema["GroupOfSet"];

export interface Deeds {
  makeSet: (name: string) => Promise<number>;
  renameSet: (id: number, name: string) => Promise<void>;
  removeSet: (of: Set_) => Promise<void>;
  makeGroup: (set: number, name: string) => Promise<number>;
  renameGroup: (id: number, name: string) => Promise<void>;
  removeGroup: (one: Group) => void;
  wish: (of: Set_, wishes: Schema["WishesIn"], added: boolean) => Promise<void>;
  endChoice: (id: number) => void;
}

/** Whatever changes a class's groups is fresh before it is said. */
function useFresh(groupId: number) {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: ["group", groupId] });
}

/** Says what was refused, where there is no form to say it in. */
function useRefusal() {
  const say = useSay();
  return (error: unknown) => {
    if (error instanceof Problem) say(`${error.title} ${error.fix}`);
  };
}

export function useGroupDeeds(groupId: number): Deeds {
  const fresh = useFresh(groupId);
  const say = useSay();
  const refused = useRefusal();
  const set = (set_id: number) => ({ params: { path: { set_id } } });
  const group = (working_group_id: number) => ({ params: { path: { working_group_id } } });
  const choice = (id: number, body: Schema["LetChooseIn"]) => data(client.PUT("/api/sets/{set_id}/choice", { ...set(id), body }));
  const wish: Deeds["wish"] = async (of, wishes, added) => {
    const before = { apart: of.apart, together: of.together };
    try {
      await data(client.PUT("/api/sets/{set_id}/wishes", { ...set(of.id), body: wishes }));
      await fresh();
      say(added ? GROUPS.wishKept : GROUPS.wishGone, () => void wish({ ...of, ...wishes }, before, !added));
    } catch (error) {
      refused(error);
    }
  };
  return {
    makeSet: async (name) => {
      const made = await data(client.POST("/api/groups/{group_id}/sets", { params: { path: { group_id: groupId } }, body: { name } }));
      await fresh();
      return made.id;
    },
    renameSet: async (id, name) => {
      await data(client.PATCH("/api/sets/{set_id}", { ...set(id), body: { name } }));
      await fresh();
    },
    removeSet: async (of) => {
      await data(client.DELETE("/api/sets/{set_id}", set(of.id)));
      await fresh();
      say(GROUPS.setGone({ name: of.name }));
    },
    makeGroup: async (id, name) => {
      const made = await data(client.POST("/api/sets/{set_id}/groups", { ...set(id), body: { name } }));
      await fresh();
      return made.id;
    },
    renameGroup: async (id, name) => {
      await data(client.PATCH("/api/working-groups/{working_group_id}", { ...group(id), body: { name } }));
      await fresh();
    },
    removeGroup: (one) => {
      data(client.DELETE("/api/working-groups/{working_group_id}", group(one.id)))
        .then(fresh)
        .then(() => say(GROUPS.groupGone({ name: one.name })))
        .catch(refused);
    },
    wish,
    endChoice: (id) => {
      choice(id, { until: null, most: null })
        .then(fresh)
        .then(() => say(GROUPS.choosingEnded))
        .catch(refused);
    },
  };
}

/** Moving students into a group, or out of all (null), with undo. */
export function useMoving(groupId: number, of: Set_): (students: number[], to: Group | null) => void {
  const fresh = useFresh(groupId);
  const say = useSay();
  const undo = useUndoList(groupId);
  const refused = useRefusal();
  const move = useMutation({
    mutationFn: ({ students, to }: { students: number[]; to: Group | null }) =>
      data(client.POST("/api/sets/{set_id}/move", { params: { path: { set_id: of.id } }, body: { students, group: to?.id ?? null } })),
    onSuccess: async ({ change }, { students, to }) => {
      await fresh();
      if (change === null) say(GROUPS.nothingMoved);
      else say(to ? GROUPS.moved({ count: students.length, name: to.name }) : GROUPS.movedOut({ count: students.length }), () => undo(change));
    },
    onError: refused,
  });
  return (students, to) => move.mutate({ students, to });
}
