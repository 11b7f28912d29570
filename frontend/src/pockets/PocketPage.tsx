/** One pocket opened: what is asked, what is still wanted, what lies in it, ways to add, handing in. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Lock } from "lucide-react";
import { lazy, Suspense, useEffect, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import type { Problem } from "../api/problem";
import { patiently } from "../api/patiently";
import { feedbackQuery, pocketQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { LogPocket } from "../log/LogPocket";
import { Chips } from "../ui/Chips";
import { day, moment } from "../ui/dates";
import { FeedbackCard } from "../submission/FeedbackCard";
import { HaveRead } from "../submission/HaveRead";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { plainText, RichText } from "../ui/reading/RichText";
import { Failed, Waiting } from "../ui/Waiting";
import { AddRow } from "../taking-in/AddRow";
import { Comments } from "./Comments";
import { EvidenceCard } from "./EvidenceCard";
import { GivenFiles } from "../submission/GivenFiles";
import { dueWords, HandInBar } from "../submission/HandInBar";
import { OnTheWork } from "../submission/said/OnTheWork";
import { PagePocket } from "./PagePocket";
import { TEXTS } from "./texts";
import { UploadList } from "../taking-in/UploadList";
import { useQueue } from "../taking-in/queue";
import { useUploads } from "../taking-in/uploads";

const SharedPage = lazy(() => patiently(() => import("../sharing/SharedPage")).then((view) => ({ default: view.SharedPage })));

const OFTEN = 4000;

interface Props {
  groupId: number;
  portfolio: number;
  pocketId: number;
  mine: boolean;
  /** Since this moment things are new to whoever looks. */
  since: string | null;
}

export function PocketPage({ groupId, portfolio, pocketId, mine, since }: Props) {
  const pocket = useQuery({
    ...pocketQuery(groupId, portfolio, pocketId),
    // What the others put in comes by itself.
    refetchInterval: ({ state }) => (state.data?.shared && state.data.kind !== "page" ? OFTEN : false),
  });
  if (pocket.isPending) return <Waiting />;
  if (pocket.isError) return <Failed error={pocket.error} again={() => void pocket.refetch()} />;
  return <Opened pocket={pocket.data} groupId={groupId} portfolio={portfolio} mine={mine} since={since} />;
}

// eslint-disable-next-line complexity -- one branch for each kind of pocket
function Opened({ pocket, groupId, portfolio, mine, since }: { pocket: Schema["OpenedPocket"] } & Omit<Props, "pocketId">) {
  const { uploads, add, letGo } = useUploads(groupId, portfolio, pocket.id);
  useStarters(pocket, groupId, portfolio);
  useOpenedCopies(pocket, groupId, portfolio);
  const [problems, setProblems] = useState<Record<number, Problem | null>>({});
  const asked = shownHandIns(pocket.handins);
  const waits = asked.some((one) => ["sent_back", "working", "empty"].includes(one.status));
  // What comes up to any pocket that a hand-in collects is waited for, not only to the open one.
  const coming = useQueue().filter((upload) => upload.wish.portfolio === portfolio && !upload.arrived);
  const mayHandIn = may(useGroup(), "hand_in");
  const bars =
    mine &&
    mayHandIn &&
    asked.map((one) => (
      <HandInBar
        key={one.id}
        handin={one}
        groupId={groupId}
        portfolio={portfolio}
        uploading={coming.filter((upload) => !upload.problem && one.pockets.some((each) => each.id === upload.wish.pocket)).map((upload) => upload.wish.name)}
        named={asked.length > 1}
        rows={pocket.kind === "log"}
        held={pocket.locked_by.some((hold) => hold.handin === one.id)}
        problem={problems[one.id] ?? null}
        onProblem={(problem) => setProblems((old) => ({ ...old, [one.id]: problem }))}
      />
    ));
  return (
    <article className="mx-auto flex w-full max-w-5xl flex-col gap-4 p-6 max-sm:p-4">
      <Head pocket={pocket} asked={asked} />
      <GivenFiles files={pocket.files.filter((one) => one.role === "directions" || !mine)} />
      {pocket.opens && <p className="text-base">{TEXTS.thisPocketOpensOnOpens({ opens: day(pocket.opens) })}</p>}
      {pocket.shared && pocket.kind !== "page" && <p className="text-base">{mine ? TEXTS.togetherThings : TEXTS.togetherThingsStaff}</p>}
      <Chips chips={pocket.chips} page={pocket.shared ? (pocket.own_part ? TEXTS.yourPart : TEXTS.togetherText) : undefined} />
      {mine && (pocket.excused || pocket.spoken) && <p className="text-base">{pocket.excused ? TEXTS.excused : TEXTS.spoken}</p>}
      {!waits && bars}
      <Feedback groupId={groupId} portfolio={portfolio} handins={asked.map((one) => one.id)} />
      <OnTheWork groupId={groupId} portfolio={portfolio} pocket={pocket.id} mends={mine && mayHandIn} />
      {pocket.log ? (
        <LogPocket pocket={pocket} log={pocket.log} groupId={groupId} portfolio={portfolio} />
      ) : pocket.shared && pocket.kind === "page" ? (
        <>
          <Suspense fallback={<Waiting />}>
            <SharedPage groupId={groupId} portfolio={portfolio} of={{ pocket: pocket.id }} title={pocket.title} mine={mine} />
          </Suspense>
          <Comments comments={pocket.comments} groupId={groupId} portfolio={portfolio} about={{ pocket: pocket.id }} />
        </>
      ) : pocket.kind === "page" ? (
        <>
          <PagePocket pocket={pocket} groupId={groupId} portfolio={portfolio} mine={mine} onFiles={add} />
          <Artefacts pocket={pocket} groupId={groupId} portfolio={portfolio} mine={mine} since={since} onFiles={add} />
        </>
      ) : (
        <>
          {pocket.evidence.length === 0 && !pocket.opens && (
            <p className="text-base text-ink-soft">{mine && pocket.writable ? TEXTS.emptyHint : TEXTS.staffEmpty}</p>
          )}
          <Artefacts pocket={pocket} groupId={groupId} portfolio={portfolio} mine={mine} since={since} onFiles={add} />
          <Comments comments={pocket.comments.filter((one) => one.evidence === null)} groupId={groupId} portfolio={portfolio} about={{ pocket: pocket.id }} />
        </>
      )}
      <UploadList uploads={uploads} onDrop={letGo} />
      {waits && bars}
    </article>
  );
}

type ArtefactsProps = Omit<Props, "pocketId"> & { pocket: Schema["OpenedPocket"]; onFiles: ReturnType<typeof useUploads>["add"] };

/** The artefacts that lie in a pocket, and the ways to add one. */
function Artefacts({ pocket, groupId, portfolio, mine, since, onFiles }: ArtefactsProps) {
  const lying = pocket.evidence.filter((one) => one.artefact);
  return (
    <>
      {lying.length > 0 && (
        <ul className="grid gap-4 lg:grid-cols-2">
          {lying.map((one, at) => (
            <EvidenceCard
              key={one.id}
              evidence={one}
              // What somebody else put in is theirs to change.
              pocket={one.by ? { ...pocket, writable: false } : pocket}
              groupId={groupId}
              portfolio={portfolio}
              mine={mine && !one.by}
              before={lying[at - 1]?.id ?? null}
              after={lying[at + 1]?.id ?? null}
              since={since}
              onFiles={onFiles}
            />
          ))}
        </ul>
      )}
      {pocket.writable && <AddRow groupId={groupId} portfolio={portfolio} pocket={pocket} onFiles={onFiles} />}
    </>
  );
}

/** A pocket that has starter files: the student's own copies are there when it is opened. */
function useStarters(pocket: Schema["OpenedPocket"], groupId: number, portfolio: number) {
  const queries = useQueryClient();
  const waiting = pocket.writable && pocket.starters > 0;
  const { mutate } = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/starters", { params: { path: { portfolio_id: portfolio, pocket_id: pocket.id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["group", groupId] }),
  });
  useEffect(() => {
    if (waiting) mutate();
  }, [mutate, waiting]);
}

/** Copies from the cupboard are opened with their pocket; what waited to be newer comes then. */
function useOpenedCopies(pocket: Schema["OpenedPocket"], groupId: number, portfolio: number) {
  const queries = useQueryClient();
  const waiting = pocket.writable && pocket.unopened > 0;
  const { mutate } = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/copies", { params: { path: { portfolio_id: portfolio, pocket_id: pocket.id } } })),
    onSuccess: ({ touched }) => touched > 0 && queries.invalidateQueries({ queryKey: ["group", groupId] }),
  });
  useEffect(() => {
    if (waiting) mutate();
  }, [mutate, waiting]);
}

/** The hand-ins to speak of here: one that opens later is left out while another one is under way. */
function shownHandIns(handins: Schema["StudentHandIn"][]): Schema["StudentHandIn"][] {
  const asked = handins.filter((one) => one.status !== "not_asked");
  const open = asked.filter((one) => one.status !== "not_open");
  return open.length > 0 ? open : asked.slice(0, 1);
}

function Head({ pocket, asked }: { pocket: Schema["OpenedPocket"]; asked: Schema["StudentHandIn"][] }) {
  const next = asked.find((one) => ["sent_back", "working", "empty"].includes(one.status));
  const byStaff = pocket.locked_by.find((one) => one.handin === 0);
  return (
    <header className="flex flex-wrap items-start justify-between gap-x-6 gap-y-1">
      <div className="min-w-60 flex-1">
        <h1 className="text-2xl break-words">{pocket.title}</h1>
        <RichText html={pocket.directions} className="mt-1 text-base text-ink-soft" />
        {pocket.directions && (
          <div className="-ml-2">
            <ReadAloud text={`${pocket.title}.\n${plainText(pocket.directions)}\n${pocket.prompt}`} />
          </div>
        )}
        {pocket.version && <p className="mt-1 text-sm text-quiet">{TEXTS.versionVersion({ version: pocket.version })}</p>}
      </div>
      <div className="text-right text-base max-sm:text-left">
        {pocket.locked_by.length > 0 && pocket.kind !== "log" && (
          <p className="inline-flex items-center gap-2 rounded-md bg-ink px-3 py-1 font-semibold text-paper">
            <Lock aria-hidden size={16} />
            {pocket.locked_by.some((one) => one.handin > 0) ? TEXTS.lockedHandedIn : TEXTS.locked}
          </p>
        )}
        {byStaff && (
          <p className="mt-1 max-w-80 break-words text-ink-soft">
            {TEXTS.lockedBy({ by: byStaff.by, since: moment(byStaff.since) })}
            {byStaff.reason && <span className="block">{byStaff.reason}</span>}
          </p>
        )}
        {next && <p className={next.overdue ? "font-semibold text-overdue" : "text-ink-soft"}>{dueWords(next)}</p>}
      </div>
    </header>
  );
}

/** The newest feedback on what this pocket was handed in for. */
function Feedback({ groupId, portfolio, handins }: { groupId: number; portfolio: number; handins: number[] }) {
  const feedback = useQuery({ ...feedbackQuery(groupId, portfolio), enabled: handins.length > 0 });
  const lines = (feedback.data ?? []).filter((one) => handins.includes(one.handin.id));
  const newest = lines[0];
  if (!newest) return null;
  return (
    <FeedbackCard line={newest}>
      <HaveRead line={newest} groupId={groupId} portfolio={portfolio} />
    </FeedbackCard>
  );
}
