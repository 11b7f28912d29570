/** A due date of one student's own for one hand-in: also how a newcomer is asked for what was due before. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { day } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { CELL } from "./cellTexts";

type Cell = Schema["OpenedCell"];

export function OwnDue({ cell, groupId, onClose }: { cell: Cell; groupId: number; onClose: () => void }) {
  const own = cell.due_source === "own";
  const [chosen, setChosen] = useState(own ? (cell.due ?? "") : "");
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { handin_id: cell.handin.id, enrolment_id: cell.student.id } } };
  const set = useMutation({
    mutationFn: (to: string | null) => data(client.PUT("/api/handins/{handin_id}/students/{enrolment_id}/due", { ...path, body: { day: to } })),
    onSuccess: async (_, to) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const before = own ? cell.due : null;
      say(to ? CELL.givenNameHasUntilTo({ given_name: cell.student.given_name, to: day(to), title: cell.handin.title }) : CELL.theDateOfTheirOwn, () => set.mutate(before));
      onClose();
    },
  });
  return (
    <form
      aria-label={CELL.aDueDateOfTheir}
      className="flex w-full flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen) set.mutate(chosen);
      }}
    >
      <DateField label={cell.status === "not_asked" ? CELL.askAllTheSameDue : CELL.theirOwnDueDate} value={chosen} onChange={setChosen} />
      {set.error instanceof Problem && <Notice title={set.error.title} fix={set.error.fix} />}
      <div className="flex flex-wrap gap-2">
        <Button look="main" type="submit" className="min-h-9" disabled={!chosen || set.isPending}>
          {CELL.setTheDate}
        </Button>
        {own && (
          <Button className="min-h-9" disabled={set.isPending} onClick={() => set.mutate(null)}>
            {CELL.asForEverybody}
          </Button>
        )}
        <Button look="quiet" className="min-h-9" onClick={onClose}>
          {CELL.cancel}
        </Button>
      </div>
    </form>
  );
}
