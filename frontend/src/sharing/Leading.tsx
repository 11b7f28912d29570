/** What the staff do with a page: a question on top, closing and opening it, earlier moments. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";

interface Props {
  page: number;
  question: string;
  isOpen: boolean;
  onLed: (led: Schema["LedShape"]) => void;
}

export function Leading({ page, question, isOpen, onLed }: Props) {
  const say = useSay();
  const [asking, setAsking] = useState(false);
  const params = { params: { path: { shared_id: page } } };
  const ask = useMutation({
    mutationFn: (text: string) => data(client.PUT("/api/shared/{shared_id}/question", { ...params, body: { question: text } })),
    onSuccess: (led) => {
      onLed(led);
      setAsking(false);
    },
  });
  const set = useMutation({
    mutationFn: (open: boolean) => data(open ? client.PUT("/api/shared/{shared_id}/open", params) : client.DELETE("/api/shared/{shared_id}/open", params)),
    onSuccess: (led) => {
      onLed(led);
      say(led.is_open ? TEXTS.opened : TEXTS.closed, () => set.mutate(!led.is_open));
    },
    onError: (error) => say(error.message),
  });
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => setAsking(!asking)} aria-expanded={asking}>
          {question ? TEXTS.changeQuestion : TEXTS.ask}
        </Button>
        <Button disabled={set.isPending} onClick={() => set.mutate(!isOpen)}>
          {isOpen ? TEXTS.close : TEXTS.open}
        </Button>
      </div>
      {asking && <Question question={question} problem={ask.error instanceof Problem ? ask.error : null} onAsk={(text) => ask.mutate(text)} onClose={() => setAsking(false)} />}
    </div>
  );
}

interface QuestionProps {
  question: string;
  problem: Problem | null;
  onAsk: (text: string) => void;
  onClose: () => void;
}

function Question({ question, problem, onAsk, onClose }: QuestionProps) {
  const [text, setText] = useState(question);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onAsk(text);
      }}
    >
      <label className="font-bold">
        {TEXTS.question}
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to be written in */}
        <input autoFocus value={text} maxLength={500} autoComplete="off" onChange={(event) => setText(event.target.value)} onKeyDown={(event) => event.key === "Escape" && onClose()} className="mt-1 block min-h-9 w-full rounded-md border border-control px-3 font-normal" />
      </label>
      {problem && (
        <p role="alert" className="text-sm text-overdue">
          {problem.title} {problem.fix}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" disabled={!text.trim() && !question}>
          {text.trim() ? TEXTS.putOnTop : TEXTS.takeQuestionAway}
        </Button>
        <Button look="quiet" onClick={onClose}>
          {TEXTS.cancel}
        </Button>
      </div>
    </form>
  );
}
