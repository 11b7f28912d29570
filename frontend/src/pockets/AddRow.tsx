/** One row of ways to put work in. */
import { ImagePlus, Link2 } from "lucide-react";
import { useRef, useState } from "react";
import { useForm } from "react-hook-form";
import { useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { TEXTS } from "./texts";

interface Props {
  groupId: number;
  portfolio: number;
  pocket: number;
  linksOnly: boolean;
  onFiles: (files: Iterable<File>) => void;
}

const WAY = "inline-flex min-h-11 items-center gap-2 rounded-md px-3 text-base font-semibold hover:bg-today";

export function AddRow({ groupId, portfolio, pocket, linksOnly, onFiles }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [linking, setLinking] = useState(false);
  const [over, setOver] = useState(false);
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- dropping is a short cut for the buttons inside
    <div
      role="group"
      aria-label="Ways to add"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        if (!linksOnly) onFiles([...event.dataTransfer.files]);
      }}
      className={`rounded-lg border border-dashed border-control p-2 ${over ? "bg-today" : "bg-paper"}`}
    >
      <div className="flex flex-wrap justify-center gap-x-4">
        {!linksOnly && (
          <>
            <input
              ref={input}
              type="file"
              multiple
              hidden
              onChange={(event) => {
                onFiles([...(event.target.files ?? [])]);
                event.target.value = "";
              }}
            />
            <button type="button" className={WAY} onClick={() => input.current?.click()}>
              <ImagePlus aria-hidden size={20} />
              {TEXTS.addPicture}
            </button>
          </>
        )}
        <button type="button" aria-expanded={linking} className={WAY} onClick={() => setLinking(!linking)}>
          <Link2 aria-hidden size={20} />
          {TEXTS.addLink}
        </button>
      </div>
      {linking && <LinkForm groupId={groupId} portfolio={portfolio} pocket={pocket} onDone={() => setLinking(false)} />}
    </div>
  );
}

interface Fields {
  link: string;
  title: string;
}

const FIELD = "mt-1 min-h-11 w-full rounded-md border border-control bg-paper px-3 text-base";

function LinkForm({ groupId, portfolio, pocket, onDone }: { groupId: number; portfolio: number; pocket: number; onDone: () => void }) {
  const queries = useQueryClient();
  const form = useForm<Fields>({ defaultValues: { link: "", title: "" } });
  const [problem, setProblem] = useState<Problem | null>(null);
  const add = async (body: Fields) => {
    setProblem(null);
    try {
      await data(
        client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/links", {
          params: { path: { portfolio_id: portfolio, pocket_id: pocket } },
          body,
        }),
      );
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      onDone();
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <form
      noValidate
      onSubmit={(event) => void form.handleSubmit(add)(event)}
      className="mt-2 flex flex-col gap-3 border-t border-line p-3"
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="font-semibold">
          {TEXTS.link}
          <input {...form.register("link")} className={FIELD} inputMode="url" autoCapitalize="none" spellCheck={false} placeholder="https://" />
        </label>
        <label className="font-semibold">
          {TEXTS.linkTitle}
          <input {...form.register("title")} className={FIELD} />
        </label>
      </div>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex gap-2">
        <Button big type="submit" disabled={form.formState.isSubmitting}>
          {TEXTS.linkAdd}
        </Button>
        <Button big look="quiet" onClick={onDone}>
          {TEXTS.cancel}
        </Button>
      </div>
    </form>
  );
}
