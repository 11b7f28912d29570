/** Files that are given with a pocket, or with one version of it: at once where it is there, else as its draft is saved. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import { upload } from "../api/upload";
import { useSay } from "../ui/Toasts";
import type { Given } from "../viewer/GivenField";
import { TEXTS } from "./texts";
import type { TemplateDraft } from "./useTemplateDraft";

export type { Given };

interface Giving {
  /** Resolves once the file is given, or part of the draft. */
  give: (file: File, role: Given["role"], version?: string) => Promise<void>;
  /** Taken away, with an undo. */
  takeAway: (file: Given) => void;
  /** Why the last could not be taken away. */
  error: unknown;
}

/** What can be given with a pocket of a class; one that a draft adds has an id below zero. */
export function useGiving(groupId: number, pocket: number, draft: TemplateDraft): Giving {
  const queries = useQueryClient();
  const say = useSay();
  const waits = pocket < 0;
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const path = (file_id: number) => ({ params: { path: { group_id: groupId, file_id } } });
  const template = `/api/groups/${groupId}/template`;
  const wait = (file: number) => draft.push({ do: "give_file", pocket, file });
  const remove = useMutation({
    mutationFn: async (file: Given) => {
      if (waits) draft.leaveFile(file.id);
      else await data(client.DELETE("/api/groups/{group_id}/template/files/{file_id}", path(file.id)));
    },
    onSuccess: async (_, file) => {
      if (!waits) await fresh();
      const back = () => (waits ? wait(file.id) : data(client.POST("/api/groups/{group_id}/template/files/{file_id}/restore", path(file.id))));
      say(TEXTS.titleIsTakenAwayFrom({ title: file.title }), () => void back().finally(fresh));
    },
  });
  return {
    give: async (file, role, version = "") => {
      const made = await upload<Given>(waits ? `${template}/files` : `${template}/pockets/${pocket}/files`, file, { role, version });
      await (waits ? wait(made.id) : fresh());
    },
    takeAway: remove.mutate,
    error: remove.error,
  };
}
