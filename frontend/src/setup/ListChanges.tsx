/** What changed the class list, newest first; the newest can be undone, then the one before it. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../api/client";
import { listChangesQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { LIST_CHANGES } from "./texts";
import { useUndoList } from "./undo";
import { TEXTS } from "./texts";

export function ListChanges({ groupId }: { groupId: number }) {
  const changes = useQuery(listChangesQuery(groupId));
  const undo = useUndoList(groupId);
  const shown = changes.data ?? [];
  if (shown.length === 0) return null;
  return (
    <details className="shrink-0 rounded-md border border-edge bg-paper px-3 py-2">
      <summary className="font-semibold">{LIST_CHANGES.title}</summary>
      <ul className="mt-2 flex max-h-48 flex-col gap-1 overflow-y-auto">
        {shown.map((one) => (
          <li key={one.id} className="flex min-h-9 flex-wrap items-center gap-x-3">
            <span className="figures text-quiet">{moment(one.at)}</span>
            <span className="min-w-0 break-words">
              {one.by}: {words(one)}
              {one.file && <span className="text-quiet"> ({one.file})</span>}
            </span>
            {one.newest && (
              <Button look="quiet" onClick={() => undo(one.id)}>
                {LIST_CHANGES.undo}
                <span className="sr-only">{" "}{TEXTS.ofAt({ at: moment(one.at) })}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}

function words(one: Schema["ListChange"]): string {
  const parts = [
    one.added > 0 ? TEXTS.studentsAdded({ added: one.added }) : "",
    one.changed > 0 ? TEXTS.changedChanged({ changed: one.changed }) : "",
    one.placed > 0 ? TEXTS.placedPutIntoAPeriod({ placed: one.placed }) : "",
    one.left > 0 ? TEXTS.leftLeftOrBack({ left: one.left }) : "",
  ].filter(Boolean);
  return parts.join(", ");
}
