/** Taking back what a list did. */
import { useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";

/** Undo a change of a class list and say how it went. */
export function useUndoList(groupId: number): (change: number | null) => void {
  const queries = useQueryClient();
  const say = useSay();
  return (change) => {
    if (change === null) return;
    const path = { params: { path: { group_id: groupId, change_id: change } } };
    data(client.POST("/api/groups/{group_id}/roster/changes/{change_id}/undo", path))
      .then(() => say("Undone: the list is as it was."))
      .catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : "It could not be undone."))
      .finally(() => void queries.invalidateQueries({ queryKey: ["group", groupId] }));
  };
}
