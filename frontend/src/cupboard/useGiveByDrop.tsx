/** Giving an item out by dropping it: on students, on a peg, on what a filter shows. */
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import type { ReactNode } from "react";
import { patiently } from "../api/patiently";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { useItemDrop } from "./dragging";
import { itemQuery } from "./queries";

const GiveDialog = lazy(() => patiently(() => import("./GiveDialog")).then((view) => ({ default: view.GiveDialog })));

/** Whom a place stands for: students (none: the whole class), and a pocket where it names one. */
export interface Meant {
  students: number[];
  pocket?: number | undefined;
}

interface Dropped extends Meant {
  item: number;
}

/** ``whom`` says whom the element stands for on which an item was dropped. */
export function useGiveByDrop(group: Group | null, whom: (at: Element) => Meant | null) {
  const [dropped, setDropped] = useState<Dropped | null>(null);
  const gives = group !== null && may(group, "give_out");
  const { over, place } = useItemDrop(
    gives
      ? (item, at) => {
          const meant = whom(at);
          if (meant) setDropped({ item, ...meant });
        }
      : null,
  );
  const dialog: ReactNode = group && dropped && (
    <Suspense>
      <Asking group={group} dropped={dropped} onClose={() => setDropped(null)} />
    </Suspense>
  );
  return { over, place, dialog };
}

function Asking({ group, dropped, onClose }: { group: Group; dropped: Dropped; onClose: () => void }) {
  const item = useQuery(itemQuery(group.id, dropped.item));
  if (!item.data) return null;
  const fits = item.data.pockets.some((one) => one.id === dropped.pocket && !one.why_not);
  return <GiveDialog item={item.data} group={group} students={dropped.students} pocket={fits ? dropped.pocket : 0} onClose={onClose} />;
}
