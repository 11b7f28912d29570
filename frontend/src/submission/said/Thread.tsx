/** What is answered to a comment, and answering; staff say that it is settled. */
import { useMutation } from "@tanstack/react-query";
import { CornerDownRight, Trash2 } from "lucide-react";
import { useState } from "react";
import { client, data } from "../../api/client";
import { Problem } from "../../api/problem";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/dates";
import { Notice } from "../../ui/Notice";
import { useSay } from "../../ui/Toasts";
import { useDraft } from "../../writing/useDraft";
import { useSaying } from "./said";
import type { Annotation, Said } from "./said";
import { SAID } from "./saidTexts";

export function Thread({ said, one }: { said: Said; one: Annotation }) {
  const { put, fresh } = useSaying(said.groupId, said.submission);
  const say = useSay();
  const [writing, setWriting] = useState(false);
  const takeBack = useMutation({
    mutationFn: (id: number) => data(client.DELETE("/api/answers/{answer_id}", { params: { path: { answer_id: id } } })),
    onSuccess: async (gone) => {
      say(SAID.gone, () => void data(client.POST("/api/answers/{answer_id}/restore", { params: { path: { answer_id: gone.id } } })).then(fresh));
      await fresh();
    },
  });
  const settle = useMutation({
    mutationFn: (settled: boolean) => data(client.POST("/api/annotations/{annotation_id}/settled", { params: { path: { annotation_id: one.id } }, body: { settled } })),
    onSuccess: put,
  });
  const answers = said.writes || said.mends;
  return (
    <>
      {one.answers.length > 0 && (
        <ol className="flex flex-col gap-1.5">
          {one.answers.map((answer) => (
            <li key={answer.id} className="flex items-start gap-1.5 rounded-md bg-ground p-2">
              <CornerDownRight aria-hidden size={14} className="mt-1 shrink-0 text-quiet" />
              <div className="min-w-0 flex-1">
                <p className="break-words whitespace-pre-wrap">{answer.text}</p>
                <p className="text-sm text-quiet">{SAID.whoAt({ who: answer.who, at: moment(answer.at) })}</p>
              </div>
              {answer.mine && (
                <button type="button" aria-label={SAID.takeAwayNamed({ text: answer.text.slice(0, 40) })} title={SAID.takeAway} className="-m-1 flex size-8 items-center justify-center rounded-md text-quiet hover:bg-paper" onClick={() => takeBack.mutate(answer.id)}>
                  <Trash2 aria-hidden size={14} />
                </button>
              )}
            </li>
          ))}
        </ol>
      )}
      {answers && writing && <Answering one={one} onDone={() => setWriting(false)} fresh={fresh} />}
      {answers && !writing && (
        <div className="-ml-2 flex flex-wrap">
          <Button look="quiet" className="min-h-11" onClick={() => setWriting(true)}>
            {SAID.answer}
          </Button>
          {said.writes && one.answers.length + Number(one.done_at !== null) > 0 && (
            <Button look="quiet" disabled={settle.isPending} onClick={() => settle.mutate(one.settled_at === null)}>
              {one.settled_at === null ? SAID.settle : SAID.goOn}
            </Button>
          )}
        </div>
      )}
    </>
  );
}

function Answering({ one, onDone, fresh }: { one: Annotation; onDone: () => void; fresh: () => Promise<void> }) {
  const [text, setText] = useState("");
  const drop = useDraft(`answer/${one.id}`, text, 0, text !== "", setText);
  const send = useMutation({
    mutationFn: () => data(client.POST("/api/annotations/{annotation_id}/answers", { params: { path: { annotation_id: one.id } }, body: { text } })),
    onSuccess: async () => {
      drop();
      await fresh();
      onDone();
    },
  });
  return (
    <div className="flex flex-col gap-2">
      {/* eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to be written in */}
      <textarea autoFocus aria-label={SAID.answerField} rows={2} value={text} maxLength={4000} onChange={(event) => setText(event.target.value)} className="w-full rounded-md border border-control bg-paper px-3 py-2 text-base" />
      {send.error instanceof Problem && <Notice title={send.error.title} fix={send.error.fix} />}
      <Button className="min-h-11 self-start" disabled={!text.trim() || send.isPending} onClick={() => send.mutate()}>
        {SAID.send}
      </Button>
    </div>
  );
}
