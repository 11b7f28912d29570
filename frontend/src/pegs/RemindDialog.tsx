/** Reminding those who owe, in the teacher's words: what each of them reads is shown before it goes. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { useDraft } from "../writing/useDraft";
import { DEED } from "../live/deedTexts";
import { MANY, PLACES, REMIND } from "./manyTexts";

type Cell = Schema["ChosenCellIn"];
type Found = Schema["RemindedShape"];

interface Props {
  cells: Cell[];
  groupId: number;
  onClose: () => void;
  onDone: () => void;
}

const FIRST = REMIND.first(PLACES);
const MOST_SHOWN = 30;
const MOST_NAMED = 5;

export function RemindDialog({ cells: now, groupId, onClose, onDone }: Props) {
  const [cells] = useState(() => now.map(({ handin, enrolment }) => ({ handin, enrolment })));
  const [text, setText] = useState(FIRST);
  const [again, setAgain] = useState(false);
  const field = useId();
  const queries = useQueryClient();
  const say = useSay();
  // The words that somebody found are theirs the next time, too.
  useDraft(`remind/${groupId}`, text, 0, text !== FIRST, setText);
  const wanted = useSettled(text);
  const ask = (only_look: boolean, words: string) =>
    answer(client.POST("/api/groups/{group_id}/reminders", { params: { path: { group_id: groupId } }, body: { cells, text: words, again, only_look } }));
  const look = useQuery({
    queryKey: ["group", groupId, "remind", wanted, again, cells],
    retry: false,
    placeholderData: (old: Found | undefined) => old,
    queryFn: () => ask(true, wanted),
  });
  const send = useMutation({
    mutationFn: () => ask(false, text),
    onSuccess: async (sent) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(REMIND.sent({ students: sent.messages.length }));
      onDone();
    },
  });
  const problem = [send.error, look.error].find((one) => one instanceof Problem);
  const students = look.data?.messages.length ?? 0;
  return (
    <Modal title={REMIND.title} onClose={onClose}>
      <label htmlFor={field} className="font-bold">
        {REMIND.words}
        <span className="block font-normal text-quiet">{REMIND.wordsHint(PLACES)}</span>
      </label>
      <textarea id={field} data-autofocus rows={5} value={text} onChange={(event) => setText(event.target.value)} className="w-full shrink-0 rounded-md border border-control bg-paper p-3" />
      {look.data && <Who found={look.data} again={again} onAgain={setAgain} />}
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex flex-wrap items-center justify-end gap-2">
        <span className="mr-auto text-quiet">{REMIND.cannotUndo}</span>
        <Button big onClick={onClose}>
          {MANY.cancel}
        </Button>
        <Button big look="main" disabled={students === 0 || text !== wanted || send.isPending} onClick={() => send.mutate()}>
          {REMIND.send({ students })}
        </Button>
      </div>
    </Modal>
  );
}

function Who({ found, again, onAgain }: { found: Found; again: boolean; onAgain: (again: boolean) => void }) {
  const shown = found.messages.slice(0, MOST_SHOWN);
  const today = found.left.find((one) => one.why === "reminded");
  return (
    <section aria-live="polite" className="rounded-md bg-in-soft p-3">
      <p className="font-bold">{REMIND.goesTo({ students: found.messages.length })}</p>
      <ul className="mt-1">
        {shown.map((one, place) => (
          <li key={one.enrolment}>
            <details open={place === 0 || undefined}>
              <summary className="cursor-pointer break-words">
                {one.name}
                {one.last && <span className="ml-2 text-quiet">{REMIND.lastOn({ at: moment(one.last) })}</span>}
              </summary>
              <p className="mb-1 ml-4 break-words whitespace-pre-line text-ink-soft">{one.text}</p>
            </details>
          </li>
        ))}
        {found.messages.length > shown.length && <li>{REMIND.andMore({ count: found.messages.length - shown.length })}</li>}
      </ul>
      {found.left
        .filter((one) => one.why !== "reminded")
        .map((one) => (
          <p key={one.why} className="mt-1 break-words">
            {DEED.leftAlone({ cells: one.cells, why: REMIND.why[one.why], names: one.names.slice(0, MOST_NAMED).join("; "), named: one.names.length, more: Math.max(0, one.names.length - MOST_NAMED) })}
          </p>
        ))}
      {(today ?? again) && (
        <label className="mt-2 flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" checked={again} onChange={(event) => onAgain(event.target.checked)} />
          {!today ? REMIND.againToo : REMIND.again({ names: today.names.slice(0, MOST_NAMED).join("; "), count: Math.max(0, today.names.length - MOST_NAMED) })}
        </label>
      )}
    </section>
  );
}
