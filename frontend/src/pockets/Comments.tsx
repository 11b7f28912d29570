/** What staff say about an artefact, a pocket or a page; staff can say more. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { MessageSquare, Trash2 } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { portfolioQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useDraft } from "../writing/useDraft";
import { COMMENTS } from "./texts";
import { TEXTS } from "./texts";

interface Props {
  comments: Schema["CommentShape"][];
  groupId: number;
  portfolio: number;
  about: { evidence?: number; pocket?: number; page?: number };
}

export function Comments({ comments, groupId, portfolio, about }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const [writing, setWriting] = useState(false);
  const [text, setText] = useState("");
  const name = `comment/${portfolio}/${Object.entries(about).flat().join("-")}`;
  const drop = useDraft(name, text, 0, text !== "", (kept) => {
    setText(kept);
    setWriting(true);
  });
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const leave = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/comments", { params: { path: { portfolio_id: portfolio } }, body: { text, ...about } })),
    onSuccess: async () => {
      drop();
      setText("");
      setWriting(false);
      await fresh();
    },
  });
  const takeBack = useMutation({
    mutationFn: (id: number) => data(client.DELETE("/api/comments/{comment_id}", { params: { path: { comment_id: id } } })),
    onSuccess: async (gone) => {
      await fresh();
      say(COMMENTS.gone, () => void data(client.POST("/api/comments/{comment_id}/restore", { params: { path: { comment_id: gone.id } } })).finally(fresh));
    },
  });
  const allowed = useQuery(portfolioQuery(groupId, portfolio)).data?.may.includes("comment") ?? false;
  if (comments.length === 0 && !allowed) return null;
  return (
    <section aria-label={COMMENTS.title} className="flex flex-col gap-2">
      {comments.map((one) => (
        <div key={one.id} className="flex items-start gap-2 rounded-md bg-in-soft p-3">
          <MessageSquare aria-hidden size={16} className="mt-1 shrink-0 text-in" />
          <div className="min-w-0 flex-1">
            <p className="break-words whitespace-pre-wrap">{one.text}</p>
            <p className="text-sm text-quiet">
              {one.who}, {moment(one.at)}
            </p>
          </div>
          {one.mine && (
            <button type="button" aria-label={`${COMMENTS.away}: ${one.text.slice(0, 40)}`} title={COMMENTS.away} onClick={() => takeBack.mutate(one.id)} className="-m-1 flex size-9 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-paper">
              <Trash2 aria-hidden size={15} />
            </button>
          )}
        </div>
      ))}
      {allowed &&
        (writing ? (
          <div className="flex flex-col gap-2">
            <textarea aria-label={COMMENTS.field} rows={3} value={text} maxLength={4000} onChange={(event) => setText(event.target.value)} className="w-full rounded-md border border-control px-3 py-2" />
            {leave.error instanceof Problem && <Notice title={leave.error.title} fix={leave.error.fix} />}
            <div className="flex gap-2">
              <Button disabled={!text.trim() || leave.isPending} onClick={() => leave.mutate()}>
                {COMMENTS.leave}
              </Button>
              <Button look="quiet" onClick={() => setWriting(false)}>
                {TEXTS.cancel}
              </Button>
            </div>
          </div>
        ) : (
          <button type="button" onClick={() => setWriting(true)} className="inline-flex min-h-9 items-center gap-1.5 self-start rounded-md px-2 text-sm font-semibold text-in hover:bg-ground">
            <MessageSquare aria-hidden size={16} />
            {COMMENTS.write}
          </button>
        ))}
    </section>
  );
}
