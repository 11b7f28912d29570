/** A page that several students fill together: live, with the names beside each passage and who wrote how much. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState, useSyncExternalStore } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { Problem } from "../api/problem";
import { usePersonId } from "../api/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { alsoSave } from "../writing/autosave";
import { Leading } from "./Leading";
import type { Passage } from "./PutInto";
import { SharedSession } from "./session";
import type { Shown } from "./session";
import { TEXTS } from "./texts";
import { WhoWrote } from "./WhoWrote";

const SharedEditor = lazy(() => patiently(() => import("./SharedEditor")));
const PutInto = lazy(() => patiently(() => import("./PutInto")).then((view) => ({ default: view.PutInto })));
const Moments = lazy(() => patiently(() => import("./Moments")).then((view) => ({ default: view.Moments })));

interface Props {
  groupId: number;
  portfolio: number;
  /** The pocket that it is of, or the page among the student's own. */
  of: { pocket: number } | { page: number };
  title: string;
  /** It is this student's own portfolio. */
  mine: boolean;
}

export function SharedPage({ groupId, portfolio, of, title, mine }: Props) {
  const opened = useQuery({
    queryKey: ["shared", portfolio, of],
    queryFn: () =>
      "pocket" in of
        ? data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/shared", { params: { path: { portfolio_id: portfolio, pocket_id: of.pocket } } }))
        : data(client.POST("/api/portfolios/{portfolio_id}/pages/{page_id}/shared", { params: { path: { portfolio_id: portfolio, page_id: of.page } } })),
    // Each opening has a writer id of its own: one that is held from before is another tab's, or an earlier page's.
    staleTime: Infinity,
    gcTime: 0,
    retry: (count, error) => count < 3 && error instanceof Problem && error.away,
  });
  if (opened.isPending) return <Waiting />;
  if (opened.isError) return <Failed error={opened.error} again={() => void opened.refetch()} />;
  return <Opened key={opened.dataUpdatedAt} page={opened.data} title={title} own={mine ? { groupId, portfolio } : null} again={() => void opened.refetch()} />;
}

/** The class and portfolio of a student who has it open. */
type Own = { groupId: number; portfolio: number } | null;

function Opened({ page, title, own, again }: { page: Schema["OpenedSharedPage"]; title: string; own: Own; again: () => void }) {
  const person = usePersonId();
  const [session] = useState(() => new SharedSession(page, person));
  const shown = useSyncExternalStore(session.subscribe, session.snapshot);
  const [chosen, setChosen] = useState(0);
  const [moments, setMoments] = useState(false);
  useEffect(() => {
    session.begin();
    const stop = alsoSave(session.push);
    return () => {
      stop();
      session.end();
    };
  }, [session]);
  useReopened(page, shown, again);
  const [passage, setPassage] = useState<Passage | null>(null);
  const takeAway = useTakeAway(page, session);
  const act = page.may_lead ? { name: TEXTS.takeAway, run: takeAway } : own ? { name: TEXTS.putInto, run: (place: number, words: string) => setPassage({ place, words }) } : null;
  const writable = page.client !== null && shown.closed === "" && shown.at !== "refused";
  return (
    <div className="grid items-start gap-5 @5xl:grid-cols-[minmax(0,1fr)_16rem]">
      <div className="@container flex min-w-0 flex-col gap-2">
        <Above shown={shown} lead={page.may_lead} />
        <Suspense fallback={<Waiting />}>
          <SharedEditor session={session} shown={shown} label={TEXTS.textLabel({ title })} writable={writable} chosen={chosen} act={act} />
        </Suspense>
        <p role="status" className="min-h-6 text-sm text-quiet">
          {stateOf(shown, writable)}
        </p>
      </div>
      <aside className="flex flex-col gap-3">
        {page.may_lead && <Leading page={page.id} question={shown.question} isOpen={shown.isOpen} onLed={session.led} />}
        <WhoWrote people={shown.people} chosen={chosen} onChoose={setChosen} />
        <div>
          <Button big onClick={() => setMoments(true)}>
            {TEXTS.moments}
          </Button>
        </div>
      </aside>
      {passage && own && (
        <Suspense fallback={null}>
          <PutInto page={page.id} passage={passage} groupId={own.groupId} portfolio={own.portfolio} onClose={() => setPassage(null)} />
        </Suspense>
      )}
      {moments && (
        <Suspense fallback={null}>
          <Moments page={page.id} people={shown.people} lead={page.may_lead} onChanged={session.look} onClose={() => setMoments(false)} />
        </Suspense>
      )}
    </div>
  );
}

/** It was closed when it was opened here, and is open now: whoever writes needs a writer id. */
function useReopened(page: Schema["OpenedSharedPage"], shown: Shown, again: () => void) {
  const reopened = page.client === null && page.closed !== "" && shown.closed === "";
  useEffect(() => {
    if (reopened) again();
  }, [again, reopened]);
}

/** What is to be known before the page is read: the question, why it is not written on, what was not taken. */
function Above({ shown, lead }: { shown: Shown; lead: boolean }) {
  const refused = shown.at === "refused";
  return (
    <>
      {shown.question && <p className="rounded-lg bg-today px-4 py-3 text-lg font-bold break-words">{shown.question}</p>}
      {shown.closed && !lead && <p className="text-base text-ink-soft">{shown.closed}</p>}
      {(refused || shown.leftBehind) && <Notice title={refused ? TEXTS.refused : TEXTS.leftBehind} fix={shown.problem ? `${shown.problem.title} ${shown.problem.fix}` : undefined} />}
    </>
  );
}

function stateOf(shown: Shown, writable: boolean): string {
  if (shown.at === "away") return TEXTS.away;
  if (!writable) return "";
  return shown.at === "writing" ? TEXTS.writing : TEXTS.saved;
}

/** A passage is taken off the page, and put back by the undo. */
function useTakeAway(page: Schema["OpenedSharedPage"], session: SharedSession) {
  const say = useSay();
  const queries = useQueryClient();
  return (place: number, words: string) => {
    data(client.POST("/api/shared/{shared_id}/taken", { params: { path: { shared_id: page.id } }, body: { place, words } }))
      .then((taken) => {
        say(TEXTS.takenAway, () => {
          void data(client.POST("/api/passages/{passage_id}/restore", { params: { path: { passage_id: taken.id } } })).then(session.look);
        });
        session.look();
        void queries.invalidateQueries({ queryKey: ["shared", page.id, "moments"] });
      })
      .catch((error: unknown) => say(error instanceof Error ? error.message : TEXTS.somebody));
  };
}
