/** What is agreed for one student, and agreeing something new. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Pencil, Plus, Trash2, X } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { listed } from "../ui/words";
import { AdjustmentForm } from "./AdjustmentForm";
import { adjustmentWords, holds, spanWords, TEXTS } from "./texts";
import type { Adjustment } from "./texts";

interface Props {
  student: Schema["CaseloadStudent"] | null;
  today: string;
  groupId: number;
  onClose: () => void;
}

export function StudentPanel({ student, today, groupId, onClose }: Props) {
  const [editing, setEditing] = useState<Adjustment | "new" | null>(null);
  if (!student) {
    return (
      <aside aria-label={TEXTS.theChosenStudent} className="w-[380px] shrink-0 self-start rounded-lg border border-edge bg-paper p-6 text-center text-ink-soft max-lg:w-full">
        {TEXTS.choose}
      </aside>
    );
  }
  return (
    <aside aria-label={TEXTS.theChosenStudent} className="flex w-[380px] shrink-0 flex-col gap-4 self-start rounded-lg border border-edge bg-paper p-5 max-lg:w-full lg:max-h-full lg:overflow-y-auto">
      <div className="flex items-start justify-between gap-3">
        <div>
          <h2 className="text-lg break-words">{listed(student)}</h2>
          <p className="text-ink-soft">{TEXTS.whatIsAgreedCountsIn}</p>
        </div>
        <button type="button" aria-label={TEXTS.closeThePanel} onClick={onClose} className="-m-1 p-2">
          <X aria-hidden size={18} />
        </button>
      </div>
      {editing ? (
        <AdjustmentForm enrolment={student.id} today={today} kept={editing === "new" ? null : editing} onClose={() => setEditing(null)} />
      ) : (
        <>
          <List student={student} today={today} groupId={groupId} onEdit={setEditing} />
          <Button look="main" className="min-h-9 self-start" icon={<Plus aria-hidden size={16} />} onClick={() => setEditing("new")}>
            {TEXTS.agree}
          </Button>
        </>
      )}
    </aside>
  );
}

interface ListProps {
  student: Schema["CaseloadStudent"];
  today: string;
  groupId: number;
  onEdit: (one: Adjustment) => void;
}

function List({ student, today, groupId, onEdit }: ListProps) {
  const queries = useQueryClient();
  const say = useSay();
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const again = useMutation({
    mutationFn: (one: Adjustment) => data(client.POST("/api/students/{enrolment_id}/adjustments", { params: { path: { enrolment_id: student.id } }, body: one })),
    onSettled: fresh,
  });
  const remove = useMutation({
    mutationFn: (one: Adjustment) => data(client.DELETE("/api/adjustments/{adjustment_id}", { params: { path: { adjustment_id: one.id } } })),
    onSuccess: async (_, one) => {
      await fresh();
      say(TEXTS.noLongerAgreedOne({ one: adjustmentWords(one) }), () => again.mutate(one));
    },
  });
  if (student.adjustments.length === 0) return <p>{TEXTS.none}</p>;
  return (
    <>
      {remove.error instanceof Problem && <Notice title={remove.error.title} fix={remove.error.fix} />}
      <ul className="divide-y divide-line">
        {student.adjustments.map((one) => {
          const words = adjustmentWords(one);
          return (
            <li key={one.id} className="flex items-start gap-2 py-2">
              <div className={`min-w-0 flex-1 ${holds(one, today) ? "" : "text-quiet"}`}>
                <p className="font-semibold">{words}</p>
                <p className="figures">
                  {spanWords(one)}
                  {one.by && ` · ${one.by}`}
                </p>
                {one.reason && <p className="mt-1 break-words whitespace-pre-wrap">{one.reason}</p>}
              </div>
              <button type="button" aria-label={TEXTS.changeWords({ words })} className="p-2 text-quiet hover:text-ink" onClick={() => onEdit(one)}>
                <Pencil aria-hidden size={16} />
              </button>
              <button type="button" aria-label={TEXTS.takeAwayWords({ words })} className="p-2 text-quiet hover:text-ink" onClick={() => remove.mutate(one)}>
                <Trash2 aria-hidden size={16} />
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
