/** One student more, typed by name: what it does is said before, as for a whole list. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { UserPlus } from "lucide-react";
import { useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { WRITTEN } from "../ui/people/texts";
import { ONE, VERDICTS } from "./texts";
import { useUndoList } from "./undo";

type Preview = Schema["RosterPreview"];
type Student = Schema["KnownStudent"];
interface Typed {
  name: string;
  period: string;
  familyFirst: boolean;
  /** Somebody who was found by a part of the name. */
  known: Student | null;
}
const NOBODY: Typed = { name: "", period: "", familyFirst: false, known: null };

/** A list of one line: what was typed; of somebody who was found, also what nobody else has. */
function rowOf({ name, period, known }: Typed): Pick<Schema["ListIn"], "rows" | "columns"> {
  if (!known) return { rows: [[name.trim(), period.trim()]], columns: ["name", "period"] };
  return { rows: [[known.family, known.given, known.number, known.email, period.trim()]], columns: ["family", "given", "number", "email", "period"] };
}

function isSaid({ rows }: Schema["ListIn"]): boolean {
  return rows.some((row) => row.some((cell) => cell !== ""));
}

/** Students whom this person may bring in, by the part of a name that is typed. */
function Known({ groupId, text, onChoose }: { groupId: number; text: string; onChoose: (known: Student) => void }) {
  const wanted = useSettled(text.trim());
  const found = useQuery({
    queryKey: ["group", groupId, "find-known", wanted],
    enabled: wanted.length > 1,
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster/find", { params: { path: { group_id: groupId }, query: { text: wanted } } })),
  });
  if (wanted.length < 2 || !found.data?.length) return null;
  return (
    <ul aria-label={ONE.known} className="flex flex-wrap gap-2">
      {found.data.map((one) => (
        <li key={one.person}>
          <Button onClick={() => onChoose(one)}>
            {one.name}
            {one.classes.length > 0 && <span className="font-normal text-quiet">{one.classes.join(", ")}</span>}
          </Button>
        </li>
      ))}
    </ul>
  );
}

const WRITES: string[] = ["new", "joins", "back", "changed", "asked"];
const FIELD = "min-h-9 rounded-md border border-control bg-paper px-3 font-normal";

export function AddOne({ groupId, periods, onClose }: { groupId: number; periods: string[]; onClose: () => void }) {
  const [typed, setTyped] = useState(NOBODY);
  const field = useRef<HTMLInputElement>(null);
  const choose = (known: Student) => {
    setTyped({ ...typed, name: known.name, known });
    // The button is gone with its list; Enter adds them.
    field.current?.focus();
  };
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndoList(groupId);
  const path = { params: { path: { group_id: groupId } } };
  const body: Schema["ListIn"] = { heading: [], ...rowOf(typed), as_new: [], family_first: typed.familyFirst, turned: [], drop: null };
  const settled = useSettled(body);
  const look = useQuery({
    queryKey: ["group", groupId, "list", settled],
    enabled: isSaid(settled),
    placeholderData: (old: Preview | undefined) => old,
    queryFn: () => data(client.POST("/api/groups/{group_id}/roster/preview", { ...path, body: settled })),
  });
  const add = useMutation({
    mutationFn: (seen: string) => data(client.POST("/api/groups/{group_id}/roster", { ...path, body: { ...settled, leave: [], first: null, seen } })),
    onSuccess: async (done) => {
      const name = line?.name ?? typed.name;
      setTyped({ ...NOBODY, period: typed.period, familyFirst: typed.familyFirst });
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const change = done.change;
      say(change === null ? ONE.asked({ name }) : ONE.added({ name }), change === null ? undefined : () => undo(change));
    },
  });
  const current = !look.isPlaceholderData && JSON.stringify(settled) === JSON.stringify(body);
  const line = typed.name.trim() && current ? look.data?.lines[0] : undefined;
  const ready = line !== undefined && WRITES.includes(line.verdict) && !add.isPending;
  const escape = (event: KeyboardEvent) => {
    if (event.key === "Escape") onClose();
  };
  return (
    <form
      noValidate
      aria-label={ONE.open}
      className="flex flex-col gap-2 rounded-lg border border-edge bg-paper p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready && look.data) add.mutate(look.data.seen);
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-56 flex-1 font-bold">
          {ONE.name}
          {/* It opens where somebody has pressed to type. */}
          {/* eslint-disable-next-line jsx-a11y/no-autofocus */}
          <input ref={field} autoFocus value={typed.name} autoComplete="off" onChange={(event) => setTyped({ ...typed, name: event.target.value, known: null })} onKeyDown={escape} className={`${FIELD} mt-1 block w-full`} />
        </label>
        <label className="font-bold">
          {ONE.period}
          <input value={typed.period} list="periods-here" autoComplete="off" onChange={(event) => setTyped({ ...typed, period: event.target.value })} onKeyDown={escape} className={`${FIELD} mt-1 block w-28`} />
          <datalist id="periods-here">
            {periods.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
        <label className="flex min-h-9 items-center gap-2" title={WRITTEN.familyFirstHint}>
          <input type="checkbox" className="size-4 accent-ink" checked={typed.familyFirst} onChange={(event) => setTyped({ ...typed, familyFirst: event.target.checked })} onKeyDown={escape} />
          {WRITTEN.familyFirst}
        </label>
        <Button look="main" type="submit" className="min-h-9" icon={<UserPlus aria-hidden size={16} />} disabled={!ready}>
          {ONE.add}
        </Button>
        <Button className="min-h-9" onClick={onClose}>
          {ONE.close}
        </Button>
      </div>
      {!typed.known && <Known groupId={groupId} text={typed.name} onChoose={choose} />}
      <p role="status" className="min-h-6 text-ink-soft">
        {line && `${line.name}: ${VERDICTS[line.verdict]}. ${line.why} ${line.fix}`.trim()}
      </p>
      {add.error instanceof Problem && <Notice title={add.error.title} fix={add.error.fix} />}
    </form>
  );
}
