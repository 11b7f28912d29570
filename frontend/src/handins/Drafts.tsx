/** The hand-ins that only staff see yet. */
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { day, due } from "../ui/dates";
import { useActs } from "./RowActions";
import { DRAFT } from "./texts";

interface Props {
  lines: Schema["DraftLine"][];
  groupId: number;
  may: boolean;
}

export function Drafts({ lines, groupId, may }: Props) {
  const act = useActs(groupId);
  return (
    <section aria-labelledby="drafts" className="shrink-0 rounded-lg border border-dashed border-edge p-3">
      <h2 id="drafts" className="text-base">
        {DRAFT.title}
      </h2>
      <p className="text-quiet">{DRAFT.hint}</p>
      <ul className="mt-1 divide-y divide-line">
        {lines.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
            <span className="min-w-48 flex-1">
              <span className="font-bold break-words">{one.title}</span>
              <span className="block text-quiet">
                {one.pockets.join(", ")}
                <span className="figures block">{DRAFT.dueFrom({ opens: day(one.opens), due: one.due ? due(one.due, one.due_time) : "none" })}</span>
              </span>
            </span>
            {may && (
              <>
                <Link to={`?change=${one.id}`} aria-label={DRAFT.lookAt(one)} className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 font-semibold hover:border-control">
                  {DRAFT.look}
                </Link>
                <Button look="quiet" aria-label={DRAFT.awayOf(one)} title={DRAFT.awayOf(one)} onClick={() => act.mutate({ what: "away", id: one.id })}>
                  <Trash2 aria-hidden size={16} />
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
