/** The foot of a list: from which day, who has left, and the one button that writes. */
import { useMutation } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { download } from "../api/upload";
import { Button } from "../ui/Button";
import { DateField } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import type { Preview } from "./list";
import { TEXTS } from "./texts";
import { useUndoList } from "./undo";
import { LOCALE } from "../language/chosen";
import { together } from "../ui/words";

interface Props {
  groupId: number;
  body: Schema["ListIn"];
  /** The day the class's term begins, where the list says so. */
  begins: string | null;
  roster: Schema["RosterShape"];
  preview: Preview | null;
  /** Whether the preview is of the list as it stands: nothing else is written. */
  settled: boolean;
  leave: number[];
  onLeave: (students: number[]) => void;
  onDone: (words: string, undo: (() => void) | undefined) => Promise<void>;
}

/** How many lines have one of some verdicts. */
function count(preview: Preview | null, ...verdicts: string[]): number {
  return preview?.lines.filter((line) => verdicts.includes(line.verdict)).length ?? 0;
}

/** ``Add 54 students, change 2 and ask for 1``, as far as there is anything to do: the first part names what is counted. */
function action(added: number, changed: number, asked: number, left: number): string {
  const parts = (
    [
      [TEXTS.does.add, added],
      [TEXTS.does.change, changed],
      [TEXTS.does.ask, asked],
      [TEXTS.does.mark, left],
    ] as const
  )
    .filter(([, count]) => count > 0)
    .map(([does, count], place) => does({ count, first: place === 0 }));
  if (parts.length === 0) return TEXTS.nothingToChange;
  const all = together(parts);
  return all.charAt(0).toLocaleUpperCase(LOCALE) + all.slice(1);
}

// eslint-disable-next-line complexity -- one branch for each outcome of a list
export function ListApply({ groupId, body, begins, roster, preview, settled, leave, onLeave, onDone }: Props) {
  const started = roster.students.length === 0 && roster.group.first < roster.today;
  const [first, setFirst] = useState(begins && roster.students.length === 0 ? begins : started ? roster.group.first : roster.today);
  const undo = useUndoList(groupId);
  const added = count(preview, "new", "joins", "back");
  const changed = count(preview, "changed");
  const asked = count(preview, "asked");
  const bad = count(preview, "incomplete", "unreadable");
  const apply = useMutation({
    mutationFn: () =>
      data(
        client.POST("/api/groups/{group_id}/roster", {
          params: { path: { group_id: groupId } },
          body: { ...body, leave, first: first || null, seen: preview?.seen ?? "" },
        }),
      ),
    onSuccess: (done) => {
      const changes = done.change;
      const words = TEXTS.addedDone({ added: action(added, changed, asked, done.left), bad, badIs: bad > 0 });
      return onDone(words, changes === null ? undefined : () => undo(changes));
    },
  });
  const nothing = added + changed + asked + leave.length === 0;
  return (
    <div className="flex flex-col gap-3 border-t border-line bg-paper px-5 py-3">
      {apply.error instanceof Problem && <Notice title={apply.error.title} fix={apply.error.fix} />}
      {preview && preview.missing.length > 0 && <Missing preview={preview} leave={leave} onLeave={onLeave} />}
      <div className="flex flex-wrap items-center gap-3">
        <DateField row label={TEXTS.joins} value={first} onChange={setFirst} />
        {bad > 0 && (
          <Button
            icon={<Download aria-hidden size={16} />}
            className="min-h-9"
            onClick={() => void download(`/api/groups/${groupId}/roster/rejected`, body, "lines-to-mend.csv")}
          >
            {TEXTS.mend}
          </Button>
        )}
        {apply.isPending && <progress aria-label={TEXTS.addingStudents({ added })} className="h-2 w-40" />}
        <Button look="main" className="ml-auto min-h-9" disabled={!preview || !settled || nothing || apply.isPending} onClick={() => apply.mutate()}>
          {apply.isPending ? TEXTS.addingStudents2({ added }) : action(added, changed, asked, leave.length)}
        </Button>
      </div>
    </div>
  );
}

function Missing({ preview, leave, onLeave }: { preview: Preview; leave: number[]; onLeave: (students: number[]) => void }) {
  const all = leave.length === preview.missing.length;
  return (
    <details className="rounded-md bg-today px-3 py-2">
      <summary className="font-semibold">
        {TEXTS.notInTheList({ count: preview.missing.length, leave: leave.length })}
      </summary>
      <div className="mt-2 flex max-h-32 flex-col gap-1 overflow-y-auto">
        <label className="flex min-h-7 items-center gap-2 font-semibold">
          <input type="checkbox" className="size-4 accent-ink" checked={all} onChange={() => onLeave(all ? [] : preview.missing.map((one) => one.id))} />
          {TEXTS.markAllAsLeftTheir}
        </label>
        {preview.missing.map((one) => (
          <label key={one.id} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-ink"
              checked={leave.includes(one.id)}
              onChange={() => onLeave(leave.includes(one.id) ? leave.filter((other) => other !== one.id) : [...leave, one.id])}
            />
            {one.name}
          </label>
        ))}
      </div>
    </details>
  );
}
