/** Taking back what a list did. */
import { client, data } from "../api/client";
import { useUndo } from "../live/useUndo";
import { TEXTS } from "./texts";

/** Undo a change of a class list and say how it went. */
export function useUndoList(groupId: number): (change: number | null) => void {
  const undo = useUndo(groupId);
  return (change) => {
    if (change === null) return;
    const path = { params: { path: { group_id: groupId, change_id: change } } };
    undo(() => data(client.POST("/api/groups/{group_id}/roster/changes/{change_id}/undo", path)), TEXTS.undoneTheListIsAs)();
  };
}
