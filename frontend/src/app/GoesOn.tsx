/** What goes on behind every view of a student: files on their way up, and texts that an earlier page left behind. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useSay } from "../ui/Toasts";
import { watchLeftBehind } from "../writing/leftBehind";
import { GOES_ON } from "./texts";
import { onArrived, resume } from "../taking-in/queue";

export function GoesOn({ person }: { person: number }) {
  const queries = useQueryClient();
  const say = useSay();
  useEffect(() => {
    void resume(person);
    const stopHearing = onArrived((wish, note) => {
      void queries.invalidateQueries({ queryKey: ["group", wish.group] });
      if (note) say(note);
    });
    const stopWatching = watchLeftBehind(person, () => {
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] === "group" });
      say(GOES_ON.arrived);
    });
    return () => {
      stopHearing();
      stopWatching();
    };
  }, [person, queries, say]);
  return null;
}
