/** Undo of something a class has seen by now: done, said how it went, and looked at anew. */
import { useQueryClient } from "@tanstack/react-query";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";

/** For a class: makes of what takes a step back, and what is said then (else what that step answers), the undo of a message. */
export function useUndo(groupId: number): (back: () => Promise<unknown>, words?: string) => () => void {
  const queries = useQueryClient();
  const say = useSay();
  return (back, words) => () => {
    back()
      .then((said) => say(words ?? String(said)))
      .catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : TEXTS.itCouldNotBeUndone))
      .finally(() => void queries.invalidateQueries({ queryKey: ["group", groupId] }));
  };
}
