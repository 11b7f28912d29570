/** One note to all whom a hand-in is asked of, begun with the phrases that were said to several of them. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Undo2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { classNotesQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { newKey } from "../ui/newKey";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useDraft } from "../writing/useDraft";
import { CLASS_NOTE } from "./classNoteTexts";
import { forAll } from "./phrases";
import type { Phrase } from "./phrases";

interface Props {
  groupId: number;
  handin: { id: number; title: string };
  phrases: Phrase[];
  onClose: () => void;
}

export function ClassNoteDialog({ groupId, handin, phrases, onClose }: Props) {
  const [begun] = useState(() => begin(phrases, handin.title));
  const [text, setText] = useState(begun);
  const [key] = useState(newKey);
  const drop = useDraft(`class-note/${handin.id}`, text, 0, text !== begun, setText);
  const act = useNotes(groupId, handin.id);
  // It takes the place of the phrases, whose going gives the focus back only then.
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    const timer = setTimeout(() => field.current?.focus(), 50);
    return () => clearTimeout(timer);
  }, []);
  const tell = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/handins/{handin_id}/class-notes", { params: { path: { group_id: groupId, handin_id: handin.id } }, body: { key, text } })),
    onSuccess: (made) => {
      drop();
      act.told(made.id);
      onClose();
    },
  });
  return (
    <Modal title={CLASS_NOTE.title({ handin: handin.title })} onClose={onClose}>
      <p className="text-ink-soft">{CLASS_NOTE.hint}</p>
      <label className="font-bold">
        {CLASS_NOTE.words}
        <textarea ref={field} rows={8} value={text} onChange={(event) => setText(event.target.value)} className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal" />
      </label>
      {tell.error instanceof Problem && <Notice title={tell.error.title} fix={tell.error.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {CLASS_NOTE.cancel}
        </Button>
        <Button big look="main" disabled={tell.isPending || !text.trim()} onClick={() => tell.mutate()}>
          {CLASS_NOTE.tell}
        </Button>
      </div>
      <Before groupId={groupId} handin={handin.id} onTakeBack={act.takeBack} />
    </Modal>
  );
}

/** What was said to several of them, without anybody's name. */
function begin(phrases: Phrase[], handin: string): string {
  const said = phrases.filter((one) => one.said > 1).map((one) => `• ${forAll(one.text, handin)}`);
  return said.length > 0 ? [CLASS_NOTE.begin, ...said].join("\n") : "";
}

function Before({ groupId, handin, onTakeBack }: { groupId: number; handin: number; onTakeBack: (id: number) => void }) {
  const notes = useQuery(classNotesQuery(groupId, handin));
  if (!notes.data?.length) return null;
  return (
    <section aria-label={CLASS_NOTE.before}>
      <h3 className="mb-1 text-base">{CLASS_NOTE.before}</h3>
      <ul className="divide-y divide-line rounded-md border border-edge">
        {notes.data.map((one) => (
          <li key={one.id} className="flex items-start gap-1 py-1.5 pr-1 pl-3">
            <div className="min-w-0 flex-1 py-1">
              <p className="break-words whitespace-pre-wrap">{one.text}</p>
              <p className="text-sm text-quiet">{CLASS_NOTE.byAt({ who: one.who, at: moment(one.at) })}</p>
            </div>
            <button type="button" aria-label={CLASS_NOTE.takeBack(one)} title={CLASS_NOTE.takeBack(one)} className="flex size-9 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink" onClick={() => onTakeBack(one.id)}>
              <Undo2 aria-hidden size={15} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Taking a note back and fetching it back. */
function useNotes(groupId: number, handin: number) {
  const queries = useQueryClient();
  const say = useSay();
  const path = (id: number) => ({ params: { path: { group_id: groupId, class_note_id: id } } });
  const fresh = () => queries.invalidateQueries({ queryKey: classNotesQuery(groupId, handin).queryKey });
  const run = (deed: Promise<unknown>, then: () => void) => {
    deed.then(fresh).then(then).catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : String(error)));
  };
  const restore = (id: number) => run(data(client.POST("/api/groups/{group_id}/class-notes/{class_note_id}/restore", path(id))), () => say(CLASS_NOTE.isBack));
  const takeBack = (id: number) => run(data(client.DELETE("/api/groups/{group_id}/class-notes/{class_note_id}", path(id))), () => say(CLASS_NOTE.takenBack, () => restore(id)));
  const told = (id: number) => {
    void fresh();
    say(CLASS_NOTE.told, () => takeBack(id));
  };
  return { told, takeBack };
}
