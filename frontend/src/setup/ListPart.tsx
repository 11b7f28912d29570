/** The class list as it stands, or the bringing in of a new one. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowLeftRight, ClipboardPaste, IdCard, KeyRound, LogOut, Search, UserPlus } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { rosterQuery } from "../api/queries";
import { download } from "../api/upload";
import { useAddress } from "../ui/address";
import { Button } from "../ui/Button";
import { dayOf, moment, shortDay } from "../ui/dates";
import { found } from "../ui/people/find";
import { ListedName } from "../ui/people/ListedName";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { FirstPassword } from "./FirstPassword";
import { AddOne } from "./AddOne";
import { AskedPanel } from "./AskedPanel";
import { ListChanges } from "./ListChanges";
import { MoveStudent } from "./MoveStudent";
import { dropsQuery, ownRequestsQuery } from "./queries";
import { ListImport } from "./ListImport";
import { PlaceForm } from "./PlaceForm";
import { ONE, REQUESTS, TEXTS } from "./texts";
import { useUndoList } from "./undo";

type Student = Schema["ListedStudent"];
const ROW = 40;
const GRID = "32px 36px minmax(180px,2fr) 64px minmax(90px,1fr) minmax(90px,1fr) minmax(120px,1.3fr) minmax(150px,1.6fr) 110px";
const HEADS = ["", "", TEXTS.student, TEXTS.period, TEXTS.group, TEXTS.number, TEXTS.userName, TEXTS.eMail, TEXTS.inTheClass];

export function ListPart({ groupId }: { groupId: number }) {
  const [address, setAddress] = useAddress();
  const roster = useQuery(rosterQuery(groupId));
  if (roster.isPending) return <Waiting />;
  if (roster.isError) return <Failed error={roster.error} again={() => void roster.refetch()} />;
  if (address.get("bring") === "1" && roster.data.may_change) {
    const drop = Number(address.get("drop")) || null;
    return <ListImport key={drop} groupId={groupId} roster={roster.data} drop={drop} onClose={() => setAddress({})} />;
  }
  const asked = Number(address.get("asked"));
  return (
    <>
      {roster.data.may_change && <Came groupId={groupId} />}
      {roster.data.may_change && <Asked groupId={groupId} />}
      <div className="flex min-h-0 flex-1">
        <div className="flex min-h-0 min-w-0 flex-1 flex-col">
          {roster.data.students.length === 0 ? <Nobody may={roster.data.may_change} /> : <List roster={roster.data} groupId={groupId} />}
        </div>
        {asked > 0 && <AskedPanel key={asked} groupId={groupId} enrolment={asked} may={roster.data.may_change} onClose={() => setAddress({})} />}
      </div>
    </>
  );
}

/** What came through the roster folder and waits, or was applied by itself. */
function Came({ groupId }: { groupId: number }) {
  const queries = useQueryClient();
  const drops = useQuery(dropsQuery(groupId));
  const aside = useMutation({
    mutationFn: (drop_id: number) => data(client.DELETE("/api/groups/{group_id}/roster/drops/{drop_id}", { params: { path: { group_id: groupId, drop_id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["group", groupId, "drops"] }),
  });
  const say = useSay();
  const undo = useUndoList(groupId);
  const leave = useMutation({
    mutationFn: (students: number[]) => data(client.POST("/api/groups/{group_id}/roster/leave", { params: { path: { group_id: groupId } }, body: { students } })),
    onSuccess: async (done) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(TEXTS.studentsMarkedAsLeftTheir({ left: done.left }), () => undo(done.change));
    },
  });
  const all = drops.data?.drops ?? [];
  const waiting = all.filter((one) => one.state === "pending");
  const vanished = all.filter((one) => one.missing.length > 0);
  return [
    ...vanished.map((one) => (
      <div key={`missing ${one.id}`} className="px-5 pt-4">
        <Notice look="info" title={TEXTS.vanished({ count: one.missing.length, file: one.name, at: moment(one.at) })} fix={one.missing.map((of) => of.name).join("; ")}>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button disabled={leave.isPending} onClick={() => leave.mutate(one.missing.map((of) => of.id))}>
              {TEXTS.markThemLeft({ count: one.missing.length })}
            </Button>
            <Button look="quiet" disabled={aside.isPending} onClick={() => aside.mutate(one.id)}>
              {TEXTS.theyStay}
            </Button>
          </div>
        </Notice>
      </div>
    )),
    ...waiting.map((one) => (    <div key={one.id} className="px-5 pt-4">
      <Notice look="info" title={TEXTS.nameCameFromTheSchools({ name: one.name, at: moment(one.at) })} fix={one.message || TEXTS.nothingOfItIsWritten}>
        <div className="mt-2 flex gap-2">
          <Link to={`?bring=1&drop=${one.id}`} className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 font-semibold hover:border-control">
            {TEXTS.seeWhatItDoes}
          </Link>
          <Button disabled={aside.isPending} onClick={() => aside.mutate(one.id)}>
            {TEXTS.putItAside}
          </Button>
        </div>
      </Notice>
    </div>
    )),
  ];
}

/** Students whom the class has asked for, until somebody says that they come in. */
function Asked({ groupId }: { groupId: number }) {
  const queries = useQueryClient();
  const asked = useQuery(ownRequestsQuery(groupId));
  const withdraw = useMutation({
    mutationFn: (request_id: number) => data(client.DELETE("/api/groups/{group_id}/roster/requests/{request_id}", { params: { path: { group_id: groupId, request_id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["group", groupId, "requests"] }),
  });
  const waiting = asked.data ?? [];
  if (waiting.length === 0) return null;
  return (
    <details className="mx-5 mt-4 rounded-md bg-in-soft px-3 py-2">
      <summary className="font-semibold">
        {REQUESTS.waiting({ count: waiting.length })}
      </summary>
      <ul className="mt-2 flex max-h-40 flex-col gap-1 overflow-y-auto">
        {waiting.map((one) => (
          <li key={one.id} className="flex min-h-9 items-center gap-3">
            <span className="min-w-0 truncate">{one.name}</span>
            <span className="text-quiet">{TEXTS.untilLapses({ lapses: shortDay(one.lapses) })}</span>
            <Button look="quiet" disabled={withdraw.isPending} onClick={() => withdraw.mutate(one.id)}>
              {REQUESTS.withdraw}
              <span className="sr-only">{" "}{TEXTS.theRequestForName({ name: one.name })}</span>
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Nobody({ may }: { may: boolean }) {
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-5 text-center">
      <h1 className="text-xl">{TEXTS.nobody}</h1>
      <p className="text-base text-ink-soft">{TEXTS.nobodyHint}</p>
      {may && <BringLink />}
    </div>
  );
}

function BringLink() {
  return (
    <Link to="?bring=1" className="inline-flex min-h-9 items-center gap-2 rounded-md bg-copper px-4 font-semibold text-paper hover:bg-copper-deep">
      <ClipboardPaste aria-hidden size={16} />
      {TEXTS.bring}
    </Link>
  );
}

function List({ roster, groupId }: { roster: Schema["RosterShape"]; groupId: number }) {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [adding, setAdding] = useState(false);
  const rows = found(roster.students, text);
  const present = roster.students.filter((one) => !one.left).length;
  const choosable = rows.filter((one) => !one.left).map((one) => one.id);
  const all = choosable.length > 0 && choosable.every((id) => chosen.has(id));
  const toggle = (id: number) =>
    setChosen((old) => {
      const next = new Set(old);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <section aria-labelledby="class-list" className="flex min-h-0 flex-1 flex-col gap-3 p-5">
      <div className="flex flex-wrap items-center gap-3">
        <h1 id="class-list" className="text-xl">
          {TEXTS.classList}
        </h1>
        <span className="text-quiet">
          {TEXTS.presentAndLeft({ present, left: roster.students.length - present })}
        </span>
        <label className="ml-auto flex min-h-9 items-center gap-2 rounded-md border border-control bg-paper px-3">
          <Search aria-hidden size={16} className="text-quiet" />
          <span className="sr-only">{TEXTS.find}</span>
          <input value={text} onChange={(event) => setText(event.target.value)} placeholder={TEXTS.find} className="w-44 outline-none" />
        </label>
        {roster.may_change && (
          <Button className="min-h-9" icon={<UserPlus aria-hidden size={16} />} aria-expanded={adding} onClick={() => setAdding(!adding)}>
            {ONE.open}
          </Button>
        )}
        {roster.may_change && <BringLink />}
      </div>
      {adding && <AddOne groupId={groupId} periods={[...new Set(roster.students.map((one) => one.period).filter(Boolean))].sort()} onClose={() => setAdding(false)} />}
      {chosen.size > 0 && <Chosen groupId={groupId} chosen={chosen} students={roster.students} onDone={() => setChosen(new Set())} />}
      <Rows rows={rows} chosen={chosen} may={roster.may_change} all={all} onAll={() => setChosen(new Set(all ? [] : choosable))} onToggle={toggle} />
      {roster.may_change && <ListChanges groupId={groupId} />}
    </section>
  );
}

interface RowsProps {
  rows: Student[];
  chosen: ReadonlySet<number>;
  may: boolean;
  all: boolean;
  onAll: () => void;
  onToggle: (id: number) => void;
}

function Rows({ rows, chosen, may, all, onAll, onToggle }: RowsProps) {
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are used in this render only
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => scroller.current, estimateSize: () => ROW, overscan: 12 });
  return (
    // The list scrolls by itself, so the keyboard must reach it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <div ref={scroller} tabIndex={0} className="min-h-0 flex-1 overflow-auto rounded-lg border border-edge bg-paper low:h-[90dvh] low:flex-none">
      <div role="table" aria-label={TEXTS.classList} aria-rowcount={rows.length + 1} style={{ minWidth: 900 }}>
        <div role="row" className="sticky top-0 z-10 grid items-center gap-x-2 border-b border-edge bg-ground px-3 font-bold" style={{ gridTemplateColumns: GRID, height: ROW }}>
          {HEADS.map((head, place) => (
            <div key={place} role="columnheader">
              {place === 0 && may ? (
                <input type="checkbox" className="block size-4 accent-ink" checked={all} aria-label={TEXTS.chooseAllThatAreShown} onChange={onAll} />
              ) : (
                head || <span className="sr-only">{place === 0 ? TEXTS.choose : TEXTS.peg}</span>
              )}
            </div>
          ))}
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const one = rows[item.index];
            return one && <Row key={one.id} one={one} start={item.start} chosen={chosen.has(one.id)} may={may} onToggle={onToggle} />;
          })}
        </div>
      </div>
      {rows.length === 0 && <p className="p-8 text-center text-base">{TEXTS.nobodyOfThatNameIs}</p>}
    </div>
  );
}

function Row({ one, start, chosen, may, onToggle }: { one: Student; start: number; chosen: boolean; may: boolean; onToggle: (id: number) => void }) {
  const quiet = one.left ? "text-quiet" : "";
  return (
    <div
      role="row"
      className={`absolute inset-x-0 grid items-center gap-x-2 border-b border-line px-3 ${chosen ? "bg-today" : ""} ${quiet}`}
      style={{ gridTemplateColumns: GRID, height: ROW, transform: `translateY(${start}px)` }}
    >
      <div role="cell" className="flex items-center">
        {may && !one.left && (
          <input type="checkbox" className="size-4 accent-ink" checked={chosen} aria-label={TEXTS.chooseGivenNameFamilyName({ given_name: one.given_name, family_name: one.family_name })} onChange={() => onToggle(one.id)} />
        )}
      </div>
      <div role="cell" className="flex items-center">
        <PegPicture picture={one.picture} tint={one.tint} />
      </div>
      <div role="cell" className="truncate">
        <ListedName person={one} />
        {one.to_complete && <span className="text-sm text-copper"> · {TEXTS.toComplete}</span>}
      </div>
      <div role="cell">{one.period}</div>
      <div role="cell" className="truncate">
        {one.groups.join(", ")}
      </div>
      <div role="cell" className="figures truncate">
        {one.number}
      </div>
      <div role="cell" className="flex min-w-0 items-center gap-1.5">
        <span className="truncate">{one.username}</span>
        {one.card && (
          <span className="shrink-0 text-quiet" title={TEXTS.signInCardOf({ day: dayOf(one.card) })}>
            <IdCard aria-hidden size={16} />
            <span className="sr-only">{TEXTS.hasASignInCard}</span>
          </span>
        )}
      </div>
      <div role="cell" className="truncate" title={one.email}>
        {one.email}
      </div>
      <div role="cell" className="figures whitespace-nowrap">
        {one.last ? (
          TEXTS.leftOrUntil({ left: one.left, day: shortDay(one.last) })
        ) : (
          <Link to={`?asked=${one.id}`} title={TEXTS.whatTheyAreAskedFor} className="text-in underline">
            {TEXTS.sinceFirst({ first: shortDay(one.first) })}
          </Link>
        )}
      </div>
    </div>
  );
}

interface ChosenProps {
  groupId: number;
  chosen: ReadonlySet<number>;
  students: Student[];
  onDone: () => void;
}

/** What can be done with the chosen students. */
function Chosen({ groupId, chosen, students, onDone }: ChosenProps) {
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndoList(groupId);
  const [asking, setAsking] = useState(false);
  const path = { params: { path: { group_id: groupId } } };
  const ids = [...chosen];
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const leave = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/roster/leave", { ...path, body: { students: ids } })),
    onSuccess: async (done) => {
      await fresh();
      onDone();
      say(TEXTS.studentsMarkedAsLeftTheir({ left: done.left }), () => undo(done.change));
    },
  });
  const swap = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/roster/pegs", { ...path, body: { one: ids[0] ?? 0, other: ids[1] ?? 0 } })),
    onSuccess: async () => {
      await fresh();
      onDone();
    },
  });
  const print = useMutation({
    mutationFn: (passwords: boolean) => download(`/api/groups/${groupId}/cards`, { students: ids, passwords }, "sign-in-cards.pdf"),
    onSuccess: async (_, passwords) => {
      await fresh();
      setAsking(false);
      say(passwords ? TEXTS.cardsWithPasswordsMade({ count: ids.length }) : TEXTS.signInCardsMadeOlder({ count: ids.length }));
    },
  });
  const voiding = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/cards/void", { ...path, body: { students: ids } })),
    onSuccess: async () => {
      await fresh();
      say(TEXTS.theirCardsNoLongerWork);
    },
  });
  const error = [leave, swap, print, voiding].find((one) => one.error)?.error;
  const carded = students.some((one) => chosen.has(one.id) && one.card);
  const names = students.filter((one) => chosen.has(one.id)).map((one) => one.given_name);
  return (
    <div role="group" aria-label={TEXTS.theChosenStudents} className="flex flex-wrap items-center gap-3 rounded-md bg-in-soft px-3 py-2">
      <span className="font-semibold">
        {TEXTS.andMore({ some: names.slice(0, 3).join(", "), more: Math.max(names.length - 3, 0) })}
      </span>
      {ids.length === 2 && (
        <Button icon={<ArrowLeftRight aria-hidden size={16} />} disabled={swap.isPending} onClick={() => swap.mutate()}>
          {TEXTS.swap}
        </Button>
      )}
      <Button icon={<IdCard aria-hidden size={16} />} disabled={print.isPending} onClick={() => print.mutate(false)}>
        {print.isPending ? TEXTS.makingTheCards : TEXTS.cards}
      </Button>
      {students.every((one) => !chosen.has(one.id) || one.may_give_password) && (
        <Button icon={<KeyRound aria-hidden size={16} />} onClick={() => setAsking(true)}>
          {TEXTS.cardsWithPasswords}
        </Button>
      )}
      {asking && (
        <Modal title={TEXTS.newPasswordsFor({ count: ids.length })} narrow onClose={() => setAsking(false)}>
          <p>{TEXTS.newPasswordsHint}</p>
          {print.error instanceof Problem && <Notice title={print.error.title} fix={print.error.fix} />}
          <div className="flex flex-wrap justify-end gap-2">
            <Button big onClick={() => setAsking(false)}>
              {TEXTS.leaveThem}
            </Button>
            <Button big look="main" disabled={print.isPending} onClick={() => print.mutate(true)}>
              {print.isPending ? TEXTS.makingTheCards : TEXTS.makeThem}
            </Button>
          </div>
        </Modal>
      )}
      <MoveStudent groupId={groupId} students={students.filter((one) => chosen.has(one.id))} onDone={onDone} />
      {carded && (
        <Button disabled={voiding.isPending} onClick={() => voiding.mutate()}>
          {TEXTS.voidCards}
        </Button>
      )}
      <NewPassword students={students.filter((one) => chosen.has(one.id))} />
      <PlaceForm groupId={groupId} students={ids} onDone={onDone} />
      <Button icon={<LogOut aria-hidden size={16} />} disabled={leave.isPending} onClick={() => leave.mutate()}>
        {TEXTS.markLeft}
      </Button>
      <Button look="quiet" onClick={onDone}>
        {TEXTS.chooseNobody}
      </Button>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
    </div>
  );
}

/** A new password for the one student who is chosen, where this person may give it. */
function NewPassword({ students }: { students: Student[] }) {
  const [made, setMade] = useState<Schema["NewAccountShape"] | null>(null);
  const give = useMutation({
    mutationFn: (enrolment_id: number) => data(client.POST("/api/students/{enrolment_id}/password", { params: { path: { enrolment_id } } })),
    onSuccess: setMade,
  });
  const [only, other] = students;
  if (!only?.may_give_password || other) return null;
  return (
    <>
      <Button icon={<KeyRound aria-hidden size={16} />} disabled={give.isPending} onClick={() => give.mutate(only.id)}>
        {TEXTS.password}
      </Button>
      {give.error instanceof Problem && <Notice title={give.error.title} fix={give.error.fix} />}
      {made && <FirstPassword made={made} onClose={() => setMade(null)} />}
    </>
  );
}
