/** Putting the chosen students into a period or a working group. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Users } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useUndoList } from "./undo";
import { TEXTS } from "./texts";

export function PlaceForm({ groupId, students, onDone }: { groupId: number; students: number[]; onDone: () => void }) {
  const [open, setOpen] = useState(false);
  const [where, setWhere] = useState<"group" | "period">("group");
  const [name, setName] = useState("");
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndoList(groupId);
  const place = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/roster/place", { params: { path: { group_id: groupId } }, body: { students, where, name } })),
    onSuccess: async (done) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      onDone();
      say(TEXTS.studentsPutIntoName({ count: students.length, name }), () => undo(done.change));
    },
  });
  if (!open) {
    return (
      <Button icon={<Users aria-hidden size={16} />} onClick={() => setOpen(true)}>
        {TEXTS.putIntoAGroupOr}
      </Button>
    );
  }
  return (
    <form
      aria-label={TEXTS.putIntoAGroupOr}
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        place.mutate();
      }}
    >
      <select aria-label={TEXTS.groupOrPeriod} value={where} onChange={(event) => setWhere(event.target.value as "group" | "period")} className="min-h-8 rounded-md border border-control bg-paper px-2">
        <option value="group">{TEXTS.group}</option>
        <option value="period">{TEXTS.period}</option>
      </select>
      <input aria-label={TEXTS.itsName} value={name} onChange={(event) => setName(event.target.value)} autoComplete="off" className="min-h-8 w-32 rounded-md border border-control bg-paper px-2" />
      <Button type="submit" disabled={!name.trim() || place.isPending}>
        {TEXTS.putThemIn}
      </Button>
      {place.error instanceof Problem && <Notice title={place.error.title} fix={place.error.fix} />}
    </form>
  );
}
