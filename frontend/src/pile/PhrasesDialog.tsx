/** The phrases: a new one, those of one's own to change, those of co-staff. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Megaphone, Pencil, Trash2 } from "lucide-react";
import { useId, useState } from "react";
import type { SyntheticEvent } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { phrasesQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { ClassNoteDialog } from "./ClassNoteDialog";
import { CLASS_NOTE } from "./classNoteTexts";
import { PLACES } from "./phrases";
import type { Phrase } from "./phrases";
import { PHRASES } from "./phraseTexts";

interface Props {
  groupId: number;
  handin: { id: number; title: string };
  /** What was chosen in the feedback: it becomes one. */
  begun: string;
  onClose: () => void;
}

const ICON = "flex size-9 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink";

export function PhrasesDialog({ groupId, handin, begun, onClose }: Props) {
  const phrases = useQuery(phrasesQuery(groupId, handin.id));
  const act = useChanges(groupId);
  const [round, setRound] = useState(0);
  const [noting, setNoting] = useState(false);
  const found = phrases.data ?? [];
  const parts: [string, Phrase[]][] = [
    [PHRASES.own, found.filter((one) => !one.by)],
    [PHRASES.shared, found.filter((one) => one.by)],
  ];
  if (noting) return <ClassNoteDialog groupId={groupId} handin={handin} phrases={found} onClose={onClose} />;
  return (
    <Modal title={PHRASES.title} onClose={onClose}>
      <PhraseForm
        // Kept, it begins anew.
        key={round}
        label={PHRASES.add}
        begun={round === 0 ? { text: begun, shared: false } : { text: "", shared: false }}
        save={PHRASES.keep}
        onSave={async (body) => {
          await act.keep.mutateAsync(body);
          setRound(round + 1);
        }}
      />
      {phrases.data?.length === 0 && <p className="text-quiet">{PHRASES.none}</p>}
      <Button className="self-start" icon={<Megaphone aria-hidden size={16} />} onClick={() => setNoting(true)}>
        {CLASS_NOTE.open}
      </Button>
      {parts.map(
        ([title, of]) =>
          of.length > 0 && (
            <section key={title} aria-label={title}>
              <h3 className="mb-1 text-base">{title}</h3>
              <ul className="divide-y divide-line rounded-md border border-edge">
                {of.map((one) => (
                  <Line key={one.id} one={one} handin={handin.title} act={act} />
                ))}
              </ul>
            </section>
          ),
      )}
    </Modal>
  );
}

type Act = ReturnType<typeof useChanges>;

function Line({ one, handin, act }: { one: Phrase; handin: string; act: Act }) {
  const [changing, setChanging] = useState(false);
  if (changing) {
    return (
      <li className="p-3">
        <PhraseForm
          label={PHRASES.words}
          begun={one}
          save={PHRASES.save}
          onCancel={() => setChanging(false)}
          onSave={async (body) => {
            await act.change.mutateAsync({ id: one.id, ...body });
            setChanging(false);
          }}
        />
      </li>
    );
  }
  const marks = [one.by && PHRASES.by({ name: one.by }), !one.by && one.shared && PHRASES.sharedMark, PHRASES.said({ count: one.said, handin })].filter(Boolean);
  return (
    <li className="flex items-start gap-1 py-1.5 pr-1 pl-3">
      <div className="min-w-0 flex-1 py-1">
        <p className="break-words whitespace-pre-wrap">{one.text}</p>
        {marks.length > 0 && <p className="figures text-sm text-quiet">{marks.join(" · ")}</p>}
      </div>
      {!one.by && (
        <>
          <button type="button" aria-label={PHRASES.change(one)} title={PHRASES.change(one)} className={ICON} onClick={() => setChanging(true)}>
            <Pencil aria-hidden size={15} />
          </button>
          <button type="button" aria-label={PHRASES.drop(one)} title={PHRASES.drop(one)} className={ICON} onClick={() => act.drop.mutate(one)}>
            <Trash2 aria-hidden size={15} />
          </button>
        </>
      )}
    </li>
  );
}

interface FormProps {
  label: string;
  begun: { text: string; shared: boolean };
  save: string;
  onSave: (body: { text: string; shared: boolean }) => Promise<void>;
  onCancel?: () => void;
}

function PhraseForm({ label, begun, save, onSave, onCancel }: FormProps) {
  const id = useId();
  const [text, setText] = useState(begun.text);
  const [shared, setShared] = useState(begun.shared);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setProblem(null);
    onSave({ text, shared })
      .catch((error: unknown) => setProblem(error instanceof Problem ? error : null))
      .finally(() => setBusy(false));
  };
  return (
    <form className="flex flex-col gap-2" onSubmit={submit}>
      <label className="font-bold">
        {label}
        <textarea data-autofocus rows={2} value={text} aria-describedby={id} onChange={(event) => setText(event.target.value)} className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal" />
      </label>
      <p id={id} className="text-sm text-quiet">
        {PHRASES.places(PLACES)}
      </p>
      <label className="flex min-h-9 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={shared} onChange={(event) => setShared(event.target.checked)} />
        {PHRASES.share}
      </label>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        {onCancel && (
          <Button className="min-h-9" onClick={onCancel}>
            {PHRASES.cancel}
          </Button>
        )}
        <Button look={onCancel ? "plain" : "main"} type="submit" className="min-h-9" disabled={busy}>
          {save}
        </Button>
      </div>
    </form>
  );
}

/** Keeping, changing and dropping phrases; a dropped one comes back by undo. */
function useChanges(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId, "phrases"] });
  const path = { group_id: groupId };
  type Body = { text: string; shared: boolean };
  const failed = (error: unknown) => {
    if (error instanceof Problem) say(`${error.title} ${error.fix}`);
  };
  const keep = useMutation({
    mutationFn: (body: Body) => data(client.POST("/api/groups/{group_id}/phrases", { params: { path }, body })),
    onSuccess: fresh,
  });
  const change = useMutation({
    mutationFn: ({ id, ...body }: Body & { id: number }) => data(client.PATCH("/api/groups/{group_id}/phrases/{phrase_id}", { params: { path: { ...path, phrase_id: id } }, body })),
    onSuccess: fresh,
  });
  // Of the whole dialog: it may be closed by the time that somebody wants it back.
  const back = useMutation({
    mutationFn: ({ text, shared }: Body) => data(client.POST("/api/groups/{group_id}/phrases", { params: { path }, body: { text, shared } })),
    onSuccess: async () => {
      await fresh();
      say(PHRASES.back);
    },
    onError: failed,
  });
  const drop = useMutation({
    mutationFn: (one: Phrase) => data(client.DELETE("/api/groups/{group_id}/phrases/{phrase_id}", { params: { path: { ...path, phrase_id: one.id } } })),
    onSuccess: async (_, one) => {
      await fresh();
      say(PHRASES.dropped, () => back.mutate(one));
    },
    onError: failed,
  });
  return { keep, change, drop };
}
