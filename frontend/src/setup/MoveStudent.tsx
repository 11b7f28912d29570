/** A student moves to a parallel class, with copies of their work; undone in both lists. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ArrowRightFromLine } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { may, useSession } from "../api/session";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { listed } from "../ui/words";
import { MOVE } from "./texts";

type Student = Schema["ListedStudent"];
type Group = Schema["SessionShape"]["groups"][number];

/** A button where one is chosen, and there is another class of this person's to move them to. */
export function MoveStudent({ groupId, students, onDone }: { groupId: number; students: Student[]; onDone: () => void }) {
  const [asking, setAsking] = useState(false);
  const classes = useSession().groups.filter((one) => one.id !== groupId && one.kind !== "caseload" && may(one, "keep_roster"));
  const student = students.length === 1 ? students[0] : undefined;
  if (classes.length === 0 || !student) return null;
  return (
    <>
      <Button icon={<ArrowRightFromLine aria-hidden size={16} />} onClick={() => setAsking(true)}>
        {MOVE.open}
      </Button>
      {asking && <MoveDialog groupId={groupId} student={student} classes={classes} onDone={onDone} onClose={() => setAsking(false)} />}
    </>
  );
}

interface DialogProps {
  groupId: number;
  student: Student;
  classes: Group[];
  onDone: () => void;
  onClose: () => void;
}

function MoveDialog({ groupId, student, classes, onDone, onClose }: DialogProps) {
  const [into, setInto] = useState(classes[0]?.id ?? 0);
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const name = listed(student);
  const move = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/roster/{enrolment_id}/move", { params: { path: { group_id: groupId, enrolment_id: student.id } }, body: { into } })),
    onSuccess: async (done) => {
      onClose();
      onDone();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const words = MOVE.done({ name, into: classes.find((one) => one.id === into)?.name ?? "", pieces: done.pieces });
      const left = done.left_behind.length > 0 ? MOVE.leftBehind({ titles: done.left_behind.join(", ") }) : "";
      say(`${words} ${left}`.trim(), undo(() => backAgain(done.changes), MOVE.undone({ name })));
    },
  });
  return (
    <Modal title={MOVE.title({ name })} narrow onClose={onClose}>
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          move.mutate();
        }}
      >
        <label className="font-bold">
          {MOVE.into}
          <select value={into} onChange={(event) => setInto(Number(event.target.value))} className="mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-2 font-normal">
            {classes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
        <p>{MOVE.what}</p>
        {move.error instanceof Problem && <Notice title={move.error.title} fix={move.error.fix} />}
        <div className="flex justify-end gap-2">
          <Button big onClick={onClose}>
            {MOVE.stay}
          </Button>
          <Button big look="main" type="submit" disabled={move.isPending}>
            {MOVE.move}
          </Button>
        </div>
      </form>
    </Modal>
  );
}

/** The list of the class that was moved to first: where work has begun there, nothing is undone. */
async function backAgain(changes: Schema["ListOfClass"][]): Promise<void> {
  for (const { group, change } of changes) {
    await data(client.POST("/api/groups/{group_id}/roster/changes/{change_id}/undo", { params: { path: { group_id: group, change_id: change } } }));
  }
}
