/** One of a student's own pages: its title and its text. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { lazy, Suspense, useMemo, useState } from "react";
import type { ComponentProps } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { Problem } from "../api/problem";
import { pageQuery } from "../api/queries";
import { usePersonId, useSession } from "../api/session";
import { Notice } from "../ui/Notice";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { Reflection } from "../ui/reading/Reflection";
import { richOf, RichText } from "../ui/reading/RichText";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { Comments } from "./Comments";
import { HistoryButton } from "../writing/HistoryButton";
import { RichWriting } from "../writing/RichWriting";
import { saverOf } from "../writing/saving";
import { TEXTS } from "./texts";

const SharedPage = lazy(() => patiently(() => import("../sharing/SharedPage")).then((view) => ({ default: view.SharedPage })));

interface Props {
  groupId: number;
  pageId: number;
  portfolio: number;
  mine: boolean;
  base: string;
}

export function LoosePageView({ groupId, pageId, portfolio, mine, base }: Props) {
  const [leaving, setLeaving] = useState(false);
  const page = useQuery({ ...pageQuery(groupId, pageId), enabled: !leaving });
  if (page.isPending) return <Waiting />;
  if (page.isError) return <Failed error={page.error} again={() => void page.refetch()} />;
  return <Opened page={page.data} groupId={groupId} portfolio={portfolio} mine={mine} base={base} leaving={setLeaving} />;
}

function Opened({ page, groupId, portfolio, mine, base, leaving }: { page: Schema["PageShape"]; leaving: (now: boolean) => void } & Omit<Props, "pageId">) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const say = useSay();
  const [title, setTitle] = useState(page.title);
  const [problem, setProblem] = useState<Problem | null>(null);
  const path = { params: { path: { page_id: page.id } } };
  const fresh = useMemo(() => () => queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] }), [groupId, queries]);
  const save = useMemo(() => {
    const rich = saverOf(`loose/${page.id}`, page.title);
    return async (html: string, version: number, base: string) => {
      if (!rich) throw new Problem({ title: TEXTS.thereIsNowhereToSave }, 500);
      const saved = await rich(html, version, base);
      await fresh();
      return saved;
    };
  }, [fresh, page.id, page.title]);
  const rename = async () => {
    const tidy = title.trim();
    if (!tidy || tidy === page.title) return setTitle(page.title);
    try {
      await data(client.PUT("/api/pages/{page_id}", { ...path, body: { title: tidy, text: page.text, html: page.html || richOf(page.text), version: page.version } }));
      await fresh();
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  const takeOut = async () => {
    // Left first: a page that is gone is not asked for again, and what is under way for it is called off.
    leaving(true);
    await queries.cancelQueries({ queryKey: pageQuery(groupId, page.id).queryKey });
    await navigate(base);
    try {
      await data(client.DELETE("/api/pages/{page_id}", path));
    } catch (error) {
      leaving(false);
      return say(error instanceof Problem ? error.title : TEXTS.thePageCouldNotBe);
    }
    await fresh();
    say(TEXTS.titleWasTakenOut({ title: page.title }), () => void data(client.POST("/api/pages/{page_id}/restore", path)).finally(fresh));
  };
  return (
    <article className={`mx-auto flex w-full flex-col gap-4 p-6 max-sm:p-4 ${page.together ? "max-w-5xl" : "max-w-3xl"}`}>
      <div className="flex items-start gap-2">
        {mine ? (
          <h1 className="min-w-0 flex-1">
            <input
              aria-label={TEXTS.pageTitle}
              value={title}
              maxLength={120}
              onChange={(event) => setTitle(event.target.value)}
              onBlur={() => void rename()}
              onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
              className="w-full rounded-sm border-b border-control bg-transparent px-1 py-1 text-2xl font-bold"
            />
          </h1>
        ) : (
          <h1 className="min-w-0 flex-1 text-2xl break-words">{page.title}</h1>
        )}
        {mine && (
          <button type="button" aria-label={`${TEXTS.remove}: ${page.title}`} title={TEXTS.remove} onClick={() => void takeOut()} className="flex size-11 shrink-0 items-center justify-center rounded-md text-ink-soft hover:bg-ground">
            <Trash2 aria-hidden size={18} />
          </button>
        )}
      </div>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <Words page={page} groupId={groupId} portfolio={portfolio} mine={mine} save={save} />
    </article>
  );
}

interface WordsProps extends Pick<Props, "groupId" | "portfolio" | "mine"> {
  page: Schema["PageShape"];
  save: ComponentProps<typeof RichWriting>["save"];
}

/** What stands on it, written by the student alone or with others, and what staff say about it. */
function Words({ page, groupId, portfolio, mine, save }: WordsProps) {
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const said = <Comments comments={page.comments ?? []} groupId={groupId} portfolio={portfolio} about={{ page: page.id }} />;
  if (page.together) {
    return (
      <>
        <Suspense fallback={<Waiting />}>
          <SharedPage groupId={groupId} portfolio={portfolio} of={{ page: page.id }} title={page.title} mine={mine} />
        </Suspense>
        {said}
      </>
    );
  }
  const history = page.version > 0 && <HistoryButton kind="page" id={page.id} groupId={groupId} may={mine} />;
  return (
    <div className="rounded-lg border border-edge bg-paper p-4">
      {mine ? (
        <RichWriting name={`loose/${page.id}`} person={person} label={TEXTS.pageText} server={{ text: page.html || richOf(page.text), version: page.version }} writable length={{ measure: "", least: 1, most: null }} limit={limit} groupId={groupId} portfolio={portfolio} save={save} tools={history} />
      ) : (
        <div>
          {page.html ? <RichText html={page.html} className="reading text-base" /> : <Reflection text={page.text} title={page.title} />}
          <div className="-ml-2 flex flex-wrap">
            <ReadAloud text={page.text} />
            {history}
          </div>
        </div>
      )}
      <div className="mt-3">{said}</div>
    </div>
  );
}
