/** The button of the kept filters, and keeping one. */
import { Bookmark } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import { Later } from "../ui/OnFirstUse";
import { PILL } from "./Filters";
import type { Board } from "./filters";
import { TEXTS } from "./texts";

const KeepDialog = lazy(() => patiently(() => import("./KeepDialog")).then((view) => ({ default: view.KeepDialog })));
const load = () => patiently(() => import("./KeptPanel")).then((found) => found.KeptPanel);

export interface Props {
  board: Board;
  groupId: number;
  /** The filter that is on, as a query string; empty where none is. */
  current: string;
  onOpen: (address: string) => void;
}

export function KeptFilters(props: Props) {
  const [keeping, setKeeping] = useState(false);
  const face = { label: TEXTS.keptFilters, className: `${PILL} border-edge bg-paper hover:border-control`, content: <Bookmark aria-hidden size={15} /> };
  return (
    <>
      <Later kind="Panel" load={load} face={face} {...props} onKeep={() => setKeeping(true)} />
      {keeping && (
        <Suspense>
          <KeepDialog groupId={props.groupId} address={props.current} onClose={() => setKeeping(false)} />
        </Suspense>
      )}
    </>
  );
}
