/** A student's show page: chosen and arranged by the student, opened to the class by staff. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, DoorClosed, DoorOpen, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { showQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { Thumbnail } from "../viewer/Artefact";
import { ArtefactPicker } from "../viewer/ArtefactPicker";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { ShowBoard } from "./ShowBoard";
import { SHOW } from "./texts";

type Show = Schema["ShowShape"];
type Shown = Pick<Schema["ShownShape"], "evidence" | "caption" | "wide" | "artefact">;

interface Props {
  groupId: number;
  portfolio: number;
  mine: boolean;
}

export function ShowEditor({ groupId, portfolio, mine }: Props) {
  const show = useQuery(showQuery(groupId, portfolio));
  if (show.isPending) return <Waiting />;
  if (show.isError) return <Failed error={show.error} again={() => void show.refetch()} />;
  return (
    <article className="mx-auto flex w-full max-w-4xl flex-col gap-4 p-6 max-sm:p-4">
      <h1 className="text-2xl">{mine ? SHOW.mine : SHOW.theirs}</h1>
      {mine ? <Arrange key={show.data.version} show={show.data} groupId={groupId} /> : <ForStaff show={show.data} groupId={groupId} />}
    </article>
  );
}

function ForStaff({ show, groupId }: { show: Show; groupId: number }) {
  const queries = useQueryClient();
  const group = useGroup();
  const open = useMutation({
    mutationFn: (opened: boolean) => data(client.PUT("/api/portfolios/{portfolio_id}/show/opened", { params: { path: { portfolio_id: show.portfolio } }, body: { opened, version: show.version } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["group", groupId] }),
  });
  if (show.shown.length === 0) return <p className="text-base text-ink-soft">{SHOW.staffEmpty}</p>;
  return (
    <>
      <div className="flex flex-wrap items-center gap-4">
        {may(group, "open_show_page") && (
          <Button look={show.opened_at ? "plain" : "main"} big icon={show.opened_at ? <DoorClosed aria-hidden size={18} /> : <DoorOpen aria-hidden size={18} />} disabled={open.isPending} onClick={() => open.mutate(!show.opened_at)}>
            {show.opened_at ? SHOW.close : SHOW.open}
          </Button>
        )}
        <p>{show.opened_at ? `${SHOW.staffOpened} (${moment(show.opened_at)})` : SHOW.staffPrivate}</p>
      </div>
      {open.error instanceof Problem && <Notice title={open.error.title} fix={open.error.fix} />}
      <ShowBoard show={show} />
    </>
  );
}

function Arrange({ show, groupId }: { show: Show; groupId: number }) {
  const queries = useQueryClient();
  const say = useSay();
  const [title, setTitle] = useState(show.title);
  const [shown, setShown] = useState<Shown[]>(show.shown);
  const [choosing, setChoosing] = useState(false);
  const keep = useMutation({
    mutationFn: () =>
      data(
        client.PUT("/api/portfolios/{portfolio_id}/show", {
          params: { path: { portfolio_id: show.portfolio } },
          body: { title, version: show.version, shown: shown.map(({ evidence, caption, wide }) => ({ evidence, caption, wide })) },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(SHOW.kept);
    },
  });
  const change = (at: number, fields: Partial<Shown>) => setShown((old) => old.map((one, place) => (place === at ? { ...one, ...fields } : one)));
  const move = (at: number, by: number) =>
    setShown((old) => {
      const next = [...old];
      const [moved] = next.splice(at, 1);
      if (moved) next.splice(at + by, 0, moved);
      return next;
    });
  const changed = title !== show.title || JSON.stringify(shown) !== JSON.stringify(show.shown);
  const step = "flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground disabled:opacity-30";
  return (
    <>
      <p className="text-base text-ink-soft">{show.opened_at ? SHOW.opened : SHOW.private}</p>
      <label className="text-base font-bold">
        {SHOW.pageTitle}
        <input value={title} maxLength={120} onChange={(event) => setTitle(event.target.value)} className="mt-1 block min-h-11 w-full rounded-md border border-control bg-paper px-3 font-normal" />
      </label>
      {shown.length === 0 && <p className="text-base">{SHOW.empty}</p>}
      <ol className="flex flex-col gap-3">
        {shown.map((one, at) => (
          <li key={one.evidence} className="flex flex-wrap items-start gap-3 rounded-lg border border-edge bg-paper p-3">
            <div className="w-36 shrink-0 overflow-hidden rounded-md">
              <Thumbnail artefact={one.artefact} />
            </div>
            <div className="flex min-w-52 flex-1 flex-col gap-2">
              <p className="font-bold break-words">{one.artefact.title}</p>
              <input aria-label={`${SHOW.caption}: ${one.artefact.title}`} placeholder={SHOW.caption} value={one.caption} maxLength={300} onChange={(event) => change(at, { caption: event.target.value })} className="min-h-11 w-full rounded-md border border-control px-3 text-base" />
              <label className="flex min-h-9 items-center gap-2">
                <input type="checkbox" className="size-4 accent-ink" checked={one.wide} onChange={(event) => change(at, { wide: event.target.checked })} />
                {SHOW.wide}
              </label>
            </div>
            <div className="flex">
              <button type="button" aria-label={`${SHOW.earlier}: ${one.artefact.title}`} disabled={at === 0} onClick={() => move(at, -1)} className={step}>
                <ArrowUp aria-hidden size={18} />
              </button>
              <button type="button" aria-label={`${SHOW.later}: ${one.artefact.title}`} disabled={at === shown.length - 1} onClick={() => move(at, 1)} className={step}>
                <ArrowDown aria-hidden size={18} />
              </button>
              <button type="button" aria-label={`${SHOW.away}: ${one.artefact.title}`} onClick={() => setShown((old) => old.filter((_, place) => place !== at))} className={step}>
                <Trash2 aria-hidden size={18} />
              </button>
            </div>
          </li>
        ))}
      </ol>
      {keep.error instanceof Problem && <Notice title={keep.error.title} fix={keep.error.fix} />}
      <div className="flex flex-wrap gap-2">
        <Button look="main" big disabled={!changed || keep.isPending} onClick={() => keep.mutate()}>
          {SHOW.keep}
        </Button>
        <Button big icon={<Plus aria-hidden size={18} />} onClick={() => setChoosing(true)}>
          {SHOW.choose}
        </Button>
      </div>
      {!changed && show.shown.length > 0 && (
        <>
          <h2 className="mt-4 text-lg">{SHOW.asSeen}</h2>
          <ShowBoard show={show} />
        </>
      )}
      {choosing && (
        <ArtefactPicker
          title={SHOW.choose}
          none={SHOW.chooseNone}
          groupId={groupId}
          portfolio={show.portfolio}
          fits={(one) => !one.pockets.some((each) => shown.some((here) => here.evidence === each.evidence))}
          onClose={() => setChoosing(false)}
          onChoose={({ artefact, pockets: [pocket] }) => {
            if (pocket) setShown((old) => [...old, { evidence: pocket.evidence, artefact, caption: "", wide: false }]);
            setChoosing(false);
          }}
        />
      )}
    </>
  );
}
