/** The files of one pocket on their way up. */
import { useCallback } from "react";
import { Problem } from "../api/problem";
import { usePersonId, useSession } from "../api/session";
import { newKey } from "../ui/newKey";
import { drop, send, useQueue } from "./queue";
import type { Entry, Wish } from "./queue";
import { useRefused } from "./refused";
import { TEXTS } from "./texts";

/** What can be said of a file beside its place. */
export type Extra = Partial<Pick<Wish, "turn" | "crop" | "batch" | "place" | "places" | "spoken" | "evidence" | "replaces">>;

/** The uploads of a pocket, and adding to them; a file that is too large is told at once and not sent. */
export function useUploads(group: number, portfolio: number, pocket: number) {
  const person = usePersonId();
  const { upload_limit: limit } = useSession();
  const [refused, refuse] = useRefused();
  const queue = useQueue().filter((one) => one.wish.pocket === pocket && one.wish.portfolio === portfolio);
  const add = useCallback(
    (files: { file: Blob; name: string; extra?: Extra }[]) => {
      const wishes: Wish[] = [];
      for (const { file, name, extra } of files) {
        if (file.size > limit) {
          const title = TEXTS.nameIsLargerThanLimit({ name: name.slice(0, 80), limit: Math.round(limit / 1024 / 1024) });
          const problem = new Problem({ title, fix: TEXTS.makeItSmallerOrPut, type: "too-large" }, 413);
          refuse({ id: newKey(), wish: { group, portfolio, pocket, file, name }, share: 0, problem, safe: false, arrived: false });
        } else {
          wishes.push({ group, portfolio, pocket, file, name, ...extra });
        }
      }
      send(person, wishes);
    },
    [group, limit, person, pocket, portfolio, refuse],
  );
  const letGo = useCallback((entry: Entry) => (refused.includes(entry) ? refuse(entry, true) : drop(entry.id)), [refuse, refused]);
  return { uploads: [...queue, ...refused], add, letGo };
}
