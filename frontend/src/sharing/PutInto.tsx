/** A student puts a passage of a page that they fill with others into a pocket of their own. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { portfolioQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Waiting } from "../ui/Waiting";
import { TEXTS } from "./texts";

export interface Passage {
  place: number;
  words: string;
}

interface Props {
  page: number;
  passage: Passage;
  groupId: number;
  portfolio: number;
  onClose: () => void;
}

export function PutInto({ page, passage, groupId, portfolio, onClose }: Props) {
  const book = useQuery(portfolioQuery(groupId, portfolio));
  const queries = useQueryClient();
  const say = useSay();
  const [chosen, setChosen] = useState<number | null>(null);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const fitting = (book.data?.pockets ?? []).filter((one) => one.kind === "evidence" && !one.locked && !one.retired && !one.opens);
  const pocket = fitting.find((one) => one.id === chosen) ?? fitting[0];
  const put = useMutation({
    mutationFn: (into: number) => data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/passages", { params: { path: { portfolio_id: portfolio, pocket_id: into } }, body: { shared: page, ...passage } })),
    onSuccess: (made) => {
      say(TEXTS.isIn({ pocket: pocket?.title ?? "" }), () => {
        void data(client.DELETE("/api/evidence/{evidence_id}", { params: { path: { evidence_id: made.id } } }))
          .then(() => say(TEXTS.isOut))
          .finally(fresh);
      });
      void fresh();
      onClose();
    },
  });
  return (
    <Modal title={TEXTS.putIntoTitle} onClose={onClose} narrow>
      <blockquote className="max-h-40 overflow-y-auto border-l-3 border-brass pl-3 text-base break-words">{passage.words}</blockquote>
      <p className="text-ink-soft">{TEXTS.putIntoHint}</p>
      {book.isPending ? (
        <Waiting />
      ) : pocket ? (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            put.mutate(pocket.id);
          }}
        >
          <label className="font-bold">
            {TEXTS.putIntoPocket}
            <select data-autofocus value={pocket.id} onChange={(event) => setChosen(Number(event.target.value))} className="mt-1 flex min-h-11 w-full items-center rounded-md border border-control bg-paper px-3 font-normal">
              {fitting.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.title}
                </option>
              ))}
            </select>
          </label>
          {put.error instanceof Problem && <Notice title={put.error.title} fix={put.error.fix} />}
          <Button look="main" big type="submit" disabled={put.isPending}>
            {TEXTS.putIn}
          </Button>
        </form>
      ) : (
        <p className="text-base">{TEXTS.noPocket}</p>
      )}
    </Modal>
  );
}
