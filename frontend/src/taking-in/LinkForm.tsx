/** A link with a title of one's own; what gives cause for doubt about its form is asked once. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useKeptForm } from "../writing/useBack";
import { TEXTS } from "./texts";

/** With what an address begins. */
const HTTPS = "https://";

interface Fields {
  link: string;
  title: string;
}

interface Props {
  groupId: number;
  portfolio: number;
  pocket: number;
  onDone: () => void;
}

const FIELD = "mt-1 min-h-11 w-full rounded-md border border-control bg-paper px-3 text-base";

export function LinkForm({ groupId, portfolio, pocket, onDone }: Props) {
  const queries = useQueryClient();
  const form = useForm<Fields>({ defaultValues: { link: "", title: "" } });
  const drop = useKeptForm(`link/${portfolio}/${pocket}`, form);
  const [problem, setProblem] = useState<Problem | null>(null);
  const add = async (body: Fields, even_so: boolean) => {
    setProblem(null);
    try {
      await data(
        client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/links", {
          params: { path: { portfolio_id: portfolio, pocket_id: pocket } },
          body: { ...body, even_so },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      drop();
      onDone();
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <form
      noValidate
      onSubmit={(event) => void form.handleSubmit((body) => add(body, false))(event)}
      className="mt-2 flex flex-col gap-3 border-t border-line p-3"
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="font-semibold">
          {TEXTS.link}
          <input {...form.register("link")} className={FIELD} inputMode="url" autoCapitalize="none" spellCheck={false} placeholder={HTTPS} />
        </label>
        <label className="font-semibold">
          {TEXTS.linkTitle}
          <input {...form.register("title")} className={FIELD} />
        </label>
      </div>
      {problem && (
        <Notice title={problem.title} fix={problem.fix}>
          {problem.more.even_so === true && (
            <div className="mt-2">
              <Button big onClick={() => void add(form.getValues(), true)}>
                {TEXTS.evenSo}
              </Button>
            </div>
          )}
        </Notice>
      )}
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
