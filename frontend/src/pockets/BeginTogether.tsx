/** A student begins a page with classmates whom they choose. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { Failed, Waiting } from "../ui/Waiting";
import { BEGIN } from "./beginTexts";

const FIELD = "mt-1 block min-h-11 w-full rounded-md border border-control bg-paper px-3 font-normal";

interface Props {
  portfolio: Schema["PortfolioShape"];
  base: string;
  onClose: () => void;
}

export function BeginTogether({ portfolio, base, onClose }: Props) {
  const path = { params: { path: { portfolio_id: portfolio.id } } };
  const mates = useQuery({ queryKey: ["group", portfolio.group.id, "classmates"], queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/classmates", path)) });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [title, setTitle] = useState("");
  const [chosen, setChosen] = useState<number[]>([]);
  const begin = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/pages/together", { ...path, body: { title, others: chosen } })),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["group", portfolio.group.id] });
      onClose();
      await navigate(`${base}/page/${made.id}`);
    },
  });
  return (
    <Modal title={BEGIN.title} onClose={onClose} narrow>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (!begin.isPending) begin.mutate();
        }}
      >
        <p className="text-ink-soft">{BEGIN.hint}</p>
        <label className="font-bold">
          {BEGIN.name}
          <input data-autofocus value={title} maxLength={120} autoComplete="off" onChange={(event) => setTitle(event.target.value)} className={FIELD} />
        </label>
        {mates.isPending ? <Waiting /> : mates.isError ? <Failed error={mates.error} again={() => void mates.refetch()} /> : <Mates mates={mates.data} chosen={chosen} onChosen={setChosen} />}
        {begin.error instanceof Problem && <Notice title={begin.error.title} fix={begin.error.fix} />}
        <Button look="main" big type="submit" disabled={begin.isPending}>
          {BEGIN.begin}
        </Button>
      </form>
    </Modal>
  );
}

/** Classmates to tick; of many, those whose name has the words. */
function Mates({ mates, chosen, onChosen }: { mates: Schema["ClassmateShape"][]; chosen: number[]; onChosen: (chosen: number[]) => void }) {
  const [words, setWords] = useState("");
  const shown = mates.filter((one) => chosen.includes(one.id) || one.name.toLocaleLowerCase().includes(words.trim().toLocaleLowerCase()));
  const toggle = (id: number) => onChosen(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <fieldset>
      <legend className="font-bold">{BEGIN.whom}</legend>
      {mates.length > MANY && <input type="search" aria-label={BEGIN.find} placeholder={BEGIN.find} value={words} onChange={(event) => setWords(event.target.value)} className={FIELD} />}
      <ul className="mt-1 max-h-72 overflow-y-auto">
        {shown.slice(0, MOST).map((one) => (
          <li key={one.id}>
            <label className="flex min-h-11 items-center gap-3">
              <input type="checkbox" className="size-5 shrink-0 accent-ink" checked={chosen.includes(one.id)} onChange={() => toggle(one.id)} />
              <PegPicture picture={one.picture} tint={one.tint} />
              <span className="min-w-0 break-words">{one.name}</span>
            </label>
          </li>
        ))}
      </ul>
      <p role="status" className="mt-1 text-ink-soft">
        {BEGIN.chosen({ count: chosen.length })}
      </p>
    </fieldset>
  );
}

/** From how many on there is a field to find one in, and how many are shown at once. */
const MANY = 10;
const MOST = 100;
