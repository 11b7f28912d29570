/** One pocket of everybody beside each other: who has begun, and with what. */
import { useQuery } from "@tanstack/react-query";
import { Lock, LockOpen } from "lucide-react";
import { lazy, Suspense, useLayoutEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schema } from "../api/client";
import { gridQuery, ownPagesQuery, templateQuery } from "../api/queries";
import { patiently } from "../api/patiently";
import { may, useGroup, useGroupId } from "../api/session";
import { Thumbnail } from "../viewer/Artefact";
import { useAddress } from "../ui/address";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { isTyped, useLetterKeys } from "../ui/keys";
import { PegPicture } from "../ui/people/PegPicture";
import { Select } from "../ui/Select";
import { Failed, Waiting } from "../ui/Waiting";
import { onceEach } from "../ui/people/onceEach";
import { listed } from "../ui/words";
import { LOOKING, ROWS, TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

const LockDialog = lazy(() => patiently(() => import("../live/LockDialog")).then((view) => ({ default: view.LockDialog })));
// Few logs are looked at in one.
const ClassLog = lazy(() => patiently(() => import("./ClassLog")).then((view) => ({ default: view.ClassLog })));

type Student = Schema["PocketOfStudent"];

/** Without a pocket in the address, the first of the template. */
export function LookView() {
  const groupId = useGroupId();
  const { pocket } = useParams();
  const template = useQuery({ ...templateQuery(groupId), enabled: !pocket });
  const first = template.data?.sections.flatMap((one) => (one.repeats ? [] : one.pockets)).find((one) => !one.retired)?.id;
  if (pocket === "own") return <OwnPages groupId={groupId} />;
  const id = pocket ? Number(pocket) : first;
  if (!pocket && template.isPending) return <Waiting />;
  if (id === undefined) {
    return (
      <div className="p-8">
        <h1 className="text-xl">{LOOKING.noPocket}</h1>
        <p>{LOOKING.noPocketHint}</p>
      </div>
    );
  }
  return <Grid groupId={groupId} pocketId={id} />;
}

function Grid({ groupId, pocketId }: { groupId: number; pocketId: number }) {
  const grid = useQuery(gridQuery(groupId, pocketId));
  const [search] = useSearchParams();
  if (grid.isPending) return <Waiting />;
  if (grid.isError) return <Failed error={grid.error} again={() => void grid.refetch()} />;
  const { students } = grid.data;
  const rows = grid.data.kind === "log" && search.get("rows") === "1";
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      {rows ? (
        <>
          <Head grid={grid.data} groupId={groupId} rows shown={[]} />
          <Suspense fallback={<Waiting />}>
            <ClassLog key={pocketId} groupId={groupId} pocketId={pocketId} periods={periodsOf(students)} />
          </Suspense>
        </>
      ) : (
        <Everybody grid={grid.data} groupId={groupId} />
      )}
    </div>
  );
}

type Seen = Schema["PocketGrid"];

/** The pockets to look into, and what students made by themselves. */
function pocketOptions(pockets: Schema["Named"][]) {
  return [...pockets.map((one) => ({ value: String(one.id), shown: one.title })), { value: "own", shown: LOOKING.ownPages }];
}

/** The pages that students made by themselves. */
function OwnPages({ groupId }: { groupId: number }) {
  const navigate = useNavigate();
  const found = useQuery(ownPagesQuery(groupId));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { pages, pockets } = found.data;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-xl">{LOOKING.title}</h1>
        <Select label={LOOKING.pocket} value="own" options={pocketOptions(pockets)} onChange={(id) => void navigate(`/g/${groupId}/look/${id}`)} />
        <span className="ml-auto">
          <Step to={pages[0] ? pageAddress(groupId, pages[0]) : null} />
        </span>
      </header>
      {pages.length === 0 && <p className="text-base text-ink-soft">{LOOKING.noOwnPage}</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(11rem,1fr))] gap-2.5">
        {onceEach(pages).map((one) => (
          <li key={one.page.id}>
            <Link to={pageAddress(groupId, one)} className="flex h-full flex-col rounded-lg border border-edge bg-paper p-2 hover:border-control">
              <span className="flex items-center gap-1.5">
                <PegPicture picture={one.picture} tint={one.tint} size={18} />
                <span className="truncate font-semibold" title={listed(one)}>
                  {listed(one)}
                </span>
              </span>
              <Mates mates={pages.filter((other) => one.together && other !== one && other.together === one.together)} />
              <span className="mt-1 block font-bold break-words">{one.page.title}</span>
              <span className="line-clamp-3 flex-1 text-sm break-words text-ink-soft">{one.text}</span>
              <span className="figures mt-1 block text-sm text-quiet">{`${COUNTED.words({ count: one.words })} · ${moment(one.last_work)}`}</span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

function pageAddress(groupId: number, one: Schema["OwnPageOfStudent"]): string {
  return `/g/${groupId}/portfolio/${one.portfolio}/page/${one.page.id}`;
}

/** Changes of the address, in its place: null takes a key away. */
function useChange() {
  const [, setSearch] = useAddress();
  return (to: Record<string, string | null>) =>
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [key, value] of Object.entries(to)) {
          if (value === null) next.delete(key);
          else next.set(key, value);
        }
        return next;
      },
      { replace: true },
    );
}

/** Each student's pocket; which of them, and in which order, stands in the address. */
function Everybody({ grid, groupId }: { grid: Seen; groupId: number }) {
  const [search] = useSearchParams();
  const change = useChange();
  const byWork = search.get("order") === "work";
  const only = ONLY.find((one) => one === search.get("only")) ?? "all";
  const { students } = grid;
  const shown = useMemo(() => {
    const of = students.filter(IS[only]);
    return byWork ? [...of].sort((a, b) => (b.last_work ?? "").localeCompare(a.last_work ?? "")) : of;
  }, [byWork, only, students]);
  return (
    <>
      <Head grid={grid} groupId={groupId} shown={shown} />
      {students.length === 0 ? <p>{LOOKING.noStudent}</p> : <Chips students={students} only={only} onOnly={(one) => change({ only: one === "all" ? null : one })} />}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(8.6rem,1fr))] gap-2.5">
        {onceEach(shown).map((one) => (
          <Card key={one.id} student={one} mates={students.filter((other) => one.together && other !== one && other.together === one.together)} kind={grid.kind} to={`/g/${groupId}/portfolio/${one.portfolio}/${grid.pocket.id}`} />
        ))}
      </ul>
    </>
  );
}

function Head({ grid, groupId, rows = false, shown }: { grid: Seen; groupId: number; rows?: boolean; shown: Student[] }) {
  const navigate = useNavigate();
  const [search, setSearch] = useAddress();
  const change = useChange();
  const byWork = search.get("order") === "work";
  const { students } = grid;
  const begun = students.filter((one) => one.begun).length;
  const full = students.filter((one) => one.wanted > 0 && one.met >= one.wanted).length;
  return (
    <header className="flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 className="text-xl">{LOOKING.title}</h1>
      <Select
        label={LOOKING.pocket}
        value={String(grid.pocket.id)}
        options={pocketOptions(grid.pockets)}
        onChange={(id) => void navigate(`/g/${groupId}/look/${id}${byWork ? "?order=work" : ""}`)}
      />
      {grid.kind === "log" && (
        <Select
          label={ROWS.show}
          value={rows ? "rows" : "each"}
          options={[
            { value: "each", shown: ROWS.each },
            { value: "rows", shown: ROWS.all },
          ]}
          onChange={(show) => setSearch(show === "rows" ? { rows: "1" } : {})}
        />
      )}
      {!rows && (
        <Select
          label={LOOKING.order}
          value={byWork ? "work" : "name"}
          options={[
            { value: "name", shown: LOOKING.byName },
            { value: "work", shown: LOOKING.byWork },
          ]}
          onChange={(order) => change({ order: order === "work" ? order : null })}
        />
      )}
      <p className="figures text-ink-soft">{TEXTS.begunOfAll({ begun, count: students.length, full })}</p>
      {!rows && <Acts pocket={grid.pocket} shown={shown} groupId={groupId} isLog={grid.kind === "log"} />}
    </header>
  );
}

const ONLY = ["all", "not_begun", "not_opened", "begun", "locked"] as const;
type Only = (typeof ONLY)[number];
const IS: Record<Only, (one: Student) => boolean> = {
  all: () => true,
  not_begun: (one) => !one.begun,
  not_opened: (one) => one.given && !one.opened,
  begun: (one) => one.begun,
  locked: (one) => one.locked,
};

/** How many are how far: a press shows these only. What nobody is stays away. */
function Chips({ students, only, onOnly }: { students: Student[]; only: Only; onOnly: (only: Only) => void }) {
  const counted = ONLY.map((one) => ({ one, count: students.filter(IS[one]).length })).filter(({ one, count }) => one === "all" || one === only || count > 0);
  return (
    <div role="group" aria-label={LOOKING.only} className="flex flex-wrap gap-2">
      {counted.map(({ one, count }) => (
        <button key={one} type="button" aria-pressed={one === only} onClick={() => onOnly(one)} className="inline-flex min-h-8 items-center gap-1.5 rounded-full border border-edge bg-paper px-3 font-semibold hover:border-control aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper">
          {LOOKING.is[one]}
          <span className="figures">{count}</span>
        </button>
      ))}
    </div>
  );
}

/** Work stops for those who are shown, or goes on; stepping through them, those who have begun first. */
function Acts({ pocket, shown, groupId, isLog }: { pocket: Schema["Named"]; shown: Student[]; groupId: number; isLog: boolean }) {
  const group = useGroup();
  const [asking, setAsking] = useState(false);
  const first = shown.find((one) => one.begun) ?? shown[0];
  const to = first ? `/g/${groupId}/portfolio/${first.portfolio}/${pocket.id}` : null;
  if (!to) return null;
  const locked = shown.every((one) => one.locked);
  const Icon = locked ? LockOpen : Lock;
  return (
    <span className="ml-auto flex flex-wrap gap-2">
      {may(group, "lock_pockets") && !isLog && (
        <Button className="min-h-9" icon={<Icon aria-hidden size={16} />} onClick={() => setAsking(true)}>
          {locked ? LOOKING.goOn({ count: shown.length }) : LOOKING.stop({ count: shown.length })}
        </Button>
      )}
      <Step to={to} />
      {asking && (
        <Suspense>
          <LockDialog what={{ pocket, students: shown.map((one) => one.id) }} groupId={groupId} locked={locked} onClose={() => setAsking(false)} />
        </Suspense>
      )}
    </span>
  );
}

/** The first of those that are stepped through, by a press or its key. */
function Step({ to }: { to: string | null }) {
  const navigate = useNavigate();
  const letters = useLetterKeys();
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!letters || event.key !== "n" || isTyped(event) || !to) return;
      event.preventDefault();
      void navigate(to);
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [letters, navigate, to]);
  if (!to) return null;
  return (
    <Link to={to} aria-keyshortcuts="n" className="inline-flex min-h-9 items-center gap-2 rounded-md bg-copper px-3 font-semibold text-paper hover:bg-copper-deep">
      {LOOKING.step}
    </Link>
  );
}

function periodsOf(students: Student[]): string[] {
  return [...new Set(students.map((one) => one.period))].filter(Boolean).sort();
}

/** What is in it, in numbers. */
function amount(student: Student, kind: string): string {
  if (!student.begun) return student.given ? (student.opened ? LOOKING.openedOnly : LOOKING.is.not_opened) : LOOKING.empty;
  const units = student.wanted > 0 ? TEXTS.metOfWanted({ met: student.met, wanted: student.wanted }) : "";
  const what = kind === "log" ? COUNTED.rows({ count: student.rows }) : kind === "links" || student.words === 0 ? COUNTED.artefacts({ count: student.artefacts }) : COUNTED.words({ count: student.words });
  return units ? `${units} · ${what}` : what;
}

/** With whom it is filled. */
function Mates({ mates }: { mates: { family_name: string; given_name: string; family_first?: boolean }[] }) {
  if (mates.length === 0) return null;
  const names = mates.map(listed).join(" · ");
  return (
    <span className="line-clamp-2 text-sm break-words text-ink-soft" title={names}>
      {LOOKING.withOthers({ names })}
    </span>
  );
}

function Card({ student, mates, kind, to }: { student: Student; mates: Student[]; kind: string; to: string }) {
  const share = student.wanted > 0 ? Math.min(student.met / student.wanted, 1) : 0;
  return (
    <li>
      <Link to={to} className={`flex h-full flex-col overflow-hidden rounded-lg border bg-paper hover:border-control ${student.begun ? "border-edge" : "border-dashed border-control"}`}>
        {student.artefact && student.artefact.kind !== "text" ? (
          <Thumbnail artefact={student.artefact} small />
        ) : (
          <span className="flex h-20 items-start bg-today p-2">
            <span className="line-clamp-3 text-sm break-words text-ink-soft">{student.text}</span>
          </span>
        )}
        <span aria-hidden className="block h-1.5 bg-line">
          <span className={`block h-full ${share >= 1 ? "bg-accepted" : "bg-in"}`} style={{ width: `${share * 100}%` }} />
        </span>
        <span className="block p-2 pt-1.5">
          <span className="flex items-center gap-1.5">
            <PegPicture picture={student.picture} tint={student.tint} size={18} />
            <span className="truncate font-semibold" title={listed(student)}>
              {listed(student)}
            </span>
          </span>
          <Mates mates={mates} />
          <span className="figures block text-sm break-words text-ink-soft">{amount(student, kind)}</span>
          <span className="block text-sm text-quiet">{[student.locked ? LOOKING.is.locked : "", student.last_work ? moment(student.last_work) : ""].filter(Boolean).join(" · ") || "\u00a0"}</span>
        </span>
      </Link>
    </li>
  );
}
