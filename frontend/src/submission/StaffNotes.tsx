/** What staff note for themselves on a student: never seen by the student. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { EyeOff, Trash2 } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { portfolioQuery, staffNotesQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useDraft } from "../writing/useDraft";
import { NOTES } from "./staffNoteTexts";

interface Props {
  groupId: number;
  portfolio: number;
  /** The submission that a note written here is about; null: the student. */
  submission: number | null;
}

// eslint-disable-next-line complexity -- one branch for each of who reads, writes, and wrote
export function StaffNotes({ groupId, portfolio, submission }: Props) {
  const may = useQuery(portfolioQuery(groupId, portfolio)).data?.may ?? [];
  const sees = may.includes("see_staff_notes");
  const found = useQuery({ ...staffNotesQuery(groupId, portfolio), enabled: sees });
  const queries = useQueryClient();
  const say = useSay();
  const [writing, setWriting] = useState(false);
  const fresh = () => queries.invalidateQueries({ queryKey: staffNotesQuery(groupId, portfolio).queryKey });
  const takeBack = useMutation({
    mutationFn: (id: number) => data(client.DELETE("/api/staff-notes/{note_id}", { params: { path: { note_id: id } } })),
    onSuccess: async (gone) => {
      await fresh();
      say(NOTES.gone, () => void data(client.POST("/api/staff-notes/{note_id}/restore", { params: { path: { note_id: gone.id } } })).finally(fresh));
    },
  });
  if (!sees || !found.data) return null;
  const writes = may.includes("keep_staff_notes");
  if (found.data.length === 0 && !writes) return null;
  return (
    <section aria-label={NOTES.title} className="flex flex-col gap-2 rounded-lg border border-dashed border-control p-3">
      <h3 className="flex flex-wrap items-center gap-x-2">
        <EyeOff aria-hidden size={16} className="text-quiet" />
        <span className="font-bold">{NOTES.title}</span>
        <span className="text-sm font-normal text-quiet">{NOTES.hint}</span>
      </h3>
      <ul className="flex flex-col gap-2">
        {found.data.map((one) => (
          <li key={one.id} className="flex items-start gap-2">
            <div className="min-w-0 flex-1">
              <p className="break-words whitespace-pre-wrap">{one.text}</p>
              <p className="text-sm text-quiet">{[one.handin, NOTES.whoAt({ who: one.who, at: moment(one.at) })].filter(Boolean).join(" · ")}</p>
            </div>
            {one.mine && (
              <button type="button" aria-label={NOTES.takeAwayNamed({ text: one.text.slice(0, 40) })} title={NOTES.takeAway} onClick={() => takeBack.mutate(one.id)} className="-m-1 flex size-8 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-ground">
                <Trash2 aria-hidden size={15} />
              </button>
            )}
          </li>
        ))}
      </ul>
      {writes && writing && <Writing portfolio={portfolio} submission={submission} fresh={fresh} onDone={() => setWriting(false)} />}
      {writes && !writing && (
        <Button look="quiet" className="-ml-2 self-start" onClick={() => setWriting(true)}>
          {NOTES.write}
        </Button>
      )}
    </section>
  );
}

function Writing({ portfolio, submission, fresh, onDone }: Omit<Props, "groupId"> & { fresh: () => Promise<void>; onDone: () => void }) {
  const [text, setText] = useState("");
  const drop = useDraft(`staff-note/${portfolio}/${submission ?? ""}`, text, 0, text !== "", setText);
  const keep = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/staff-notes", { params: { path: { portfolio_id: portfolio } }, body: { text, submission } })),
    onSuccess: async () => {
      drop();
      await fresh();
      onDone();
    },
  });
  return (
    <div className="flex flex-col gap-2">
      {/* eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to be written in */}
      <textarea autoFocus aria-label={NOTES.field} rows={2} value={text} maxLength={4000} onChange={(event) => setText(event.target.value)} className="w-full rounded-md border border-control bg-paper px-3 py-2 text-base" />
      {keep.error instanceof Problem && <Notice title={keep.error.title} fix={keep.error.fix} />}
      <div className="flex gap-2">
        <Button disabled={!text.trim() || keep.isPending} onClick={() => keep.mutate()}>
          {NOTES.keep}
        </Button>
        <Button look="quiet" onClick={onDone}>
          {NOTES.cancel}
        </Button>
      </div>
    </div>
  );
}
