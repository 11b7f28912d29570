/** Opens the history of a text; its dialog is loaded then. */
import { useQueryClient } from "@tanstack/react-query";
import { History } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import type { TextKind } from "../api/queries";
import { TEXTS } from "./texts";

const HistoryDialog = lazy(() => patiently(() => import("./HistoryDialog")).then((view) => ({ default: view.HistoryDialog })));

export function HistoryButton({ kind, id, groupId, may }: { kind: TextKind; id: number; groupId: number; may: boolean }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" onClick={() => setOpen(true)} className="inline-flex min-h-11 items-center gap-1.5 rounded-md px-2 text-sm font-semibold text-in hover:bg-ground">
        <History aria-hidden size={16} />
        {TEXTS.history}
      </button>
      {open && (
        <Suspense>
          <HistoryDialog kind={kind} id={id} may={may} onBack={() => queries.invalidateQueries({ queryKey: ["group", groupId] })} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
