/** Sets of groups: who is in which, moved by hand, drawn at random, or chosen by the students. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dices, Hand, Pencil, Plus, Trash2, X } from "lucide-react";
import { useState } from "react";
import type { ReactNode } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { useAddress } from "../ui/address";
import { Button } from "../ui/Button";
import { fullDay, shortDay } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { DrawDialog } from "./DrawDialog";
import { fullName } from "./fullName";
import { GROUPS } from "./groupTexts";
import { LetChoose } from "./LetChoose";
import { groupSetsQuery } from "./queries";
import { useGroupDeeds, useMoving } from "./useGroupDeeds";
import type { Deeds } from "./useGroupDeeds";

type Sets = Schema["GroupSetsShape"];
type Set_ = Schema["GroupSetShape"];
type Group = Schema["GroupOfSet"];
type Student = Schema["GroupedStudent"];

export function GroupsPart({ groupId }: { groupId: number }) {
  const found = useQuery(groupSetsQuery(groupId));
  const [address, setAddress] = useAddress();
  const deeds = useGroupDeeds(groupId);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { sets, may_change: may } = found.data;
  const open = sets.find((one) => one.id === Number(address.get("set"))) ?? sets[0];
  const go = (id: number) => setAddress({ set: String(id) });
  return (
    <section aria-labelledby="groups" className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-5 pt-5">
        <h1 id="groups" className="text-xl">
          {GROUPS.title}
        </h1>
        {sets.length > 0 && (
          <div role="group" aria-label={GROUPS.sets} className="flex flex-wrap gap-1">
            {sets.map((one) => (
              <Button key={one.id} aria-pressed={one === open} onClick={() => go(one.id)}>
                {one.name}
              </Button>
            ))}
          </div>
        )}
        {may && sets.length > 0 && <NewSet deeds={deeds} onMade={go} />}
      </div>
      <PagesTogether groupId={groupId} allowed={found.data.pages_together} may={may} />
      {open ? <OneSet key={open.id} groupId={groupId} of={open} all={found.data} deeds={deeds} /> : <NoSet may={may} deeds={deeds} onMade={go} />}
    </section>
  );
}

/** Whether students may begin pages with classmates whom they choose. */
function PagesTogether({ groupId, allowed, may }: { groupId: number; allowed: boolean; may: boolean }) {
  const queries = useQueryClient();
  const say = useSay();
  const set = useMutation({
    mutationFn: (now: boolean) => data(client.PUT("/api/groups/{group_id}/pages-together", { params: { path: { group_id: groupId } }, body: { allowed: now } })),
    onSuccess: async (_, now) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(now ? GROUPS.pagesAllowed : GROUPS.pagesNotAllowed, () => set.mutate(!now));
    },
    onError: (error) => say(error.message),
  });
  if (!may && !allowed) return null;
  return (
    <label className="flex min-h-9 items-center gap-2 px-5 pt-2">
      <input type="checkbox" className="size-4 shrink-0 accent-ink" disabled={!may || set.isPending} checked={allowed} onChange={() => set.mutate(!allowed)} />
      {GROUPS.pagesTogether}
    </label>
  );
}

function NoSet({ may, deeds, onMade }: { may: boolean; deeds: Deeds; onMade: (id: number) => void }) {
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-5 text-center">
      <h2 className="text-xl">{GROUPS.none}</h2>
      <p className="text-base text-ink-soft">{GROUPS.noneHint}</p>
      {may && <NameForm label={GROUPS.nameOfSet} button={GROUPS.makeSet} main onName={(name) => deeds.makeSet(name).then(onMade)} />}
    </div>
  );
}

function NewSet({ deeds, onMade }: { deeds: Deeds; onMade: (id: number) => void }) {
  const [asking, setAsking] = useState(false);
  if (!asking) {
    return (
      <Button look="quiet" icon={<Plus aria-hidden size={16} />} onClick={() => setAsking(true)}>
        {GROUPS.newSet}
      </Button>
    );
  }
  const made = async (name: string) => {
    onMade(await deeds.makeSet(name));
    setAsking(false);
  };
  return <NameForm label={GROUPS.nameOfSet} button={GROUPS.makeSet} onName={made} onCancel={() => setAsking(false)} />;
}

interface Naming {
  label: string;
  button: string;
  was?: string;
  main?: boolean;
  onName: (name: string) => Promise<void>;
  onCancel?: () => void;
}

/** A name, given or changed; what is refused is said beside it and stays as it was typed. */
function NameForm({ label, button, was = "", main = false, onName, onCancel }: Naming) {
  const [name, setName] = useState(was);
  const [problem, setProblem] = useState<Problem | null>(null);
  const keep = () =>
    onName(name).catch((error: unknown) => {
      if (!(error instanceof Problem)) throw error;
      setProblem(error);
    });
  return (
    <form
      noValidate
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <input
        // The hand that asked for it is to type the name.
        // eslint-disable-next-line jsx-a11y/no-autofocus
        autoFocus={!main}
        aria-label={label}
        placeholder={label}
        value={name}
        maxLength={60}
        autoComplete="off"
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && onCancel?.()}
        className="min-h-8 w-44 rounded-md border border-control bg-paper px-2"
      />
      <Button type="submit" look={main ? "main" : "plain"} disabled={!name.trim()}>
        {button}
      </Button>
      {onCancel && (
        <Button look="quiet" onClick={onCancel}>
          {GROUPS.cancel}
        </Button>
      )}
      {problem && <Notice title={problem.title} fix={problem.fix} />}
    </form>
  );
}

interface OneProps {
  groupId: number;
  of: Set_;
  all: Sets;
  deeds: Deeds;
}

function OneSet({ groupId, of, all, deeds }: OneProps) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const moving = useMoving(groupId, of);
  const students = new Map(all.students.map((one) => [one.id, one]));
  const inside = new Set(of.groups.flatMap((one) => one.members.map((member) => member.id)));
  const without = all.students.filter((one) => !inside.has(one.id));
  const toggle = (id: number) =>
    setChosen((old) => {
      const next = new Set(old);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const move = (ids: number[], to: Group | null) => {
    moving(ids, to);
    setChosen(new Set());
  };
  /** Whoever is dragged takes the others along who are chosen with them. */
  const dropped = (id: number, to: Group | null) => move(chosen.has(id) ? [...chosen] : [id], to);
  const chips = { chosen, may: all.may_change, onToggle: toggle };
  return (
    <>
      <Head groupId={groupId} of={of} all={all} deeds={deeds} />
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard */}
      <div tabIndex={0} className="min-h-0 flex-1 overflow-y-auto p-5 low:flex-none">
        {all.may_change && <p className="pb-3 text-ink-soft">{GROUPS.choose}</p>}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] items-start gap-3">
          {without.length > 0 && (
            <Card label={GROUPS.inNone} count={without.length} onDrop={(id) => dropped(id, null)}>
              <Chips students={without} {...chips} />
            </Card>
          )}
          {of.groups.map((one) => (
            <GroupCard key={one.id} one={one} may={all.may_change} deeds={deeds} onDrop={(id) => dropped(id, one)}>
              <Chips students={one.members.flatMap((member) => students.get(member.id) ?? [])} since={new Map(one.members.map((member) => [member.id, member.since]))} {...chips} />
            </GroupCard>
          ))}
          {all.may_change && <NewGroup of={of} deeds={deeds} />}
        </ul>
        <Wishes of={of} students={students} deeds={deeds} />
        <Former of={of} />
      </div>
      {chosen.size > 0 && <Chosen of={of} chosen={[...chosen]} deeds={deeds} onMove={move} onDone={() => setChosen(new Set())} />}
    </>
  );
}

function Head({ groupId, of, all, deeds }: OneProps) {
  const [asking, setAsking] = useState<"draw" | "let" | "away" | "name" | null>(null);
  const close = () => setAsking(null);
  return (
    <div className="flex flex-col gap-2 px-5 pt-3">
      <div className="flex flex-wrap items-center gap-2">
        {asking === "name" ? (
          <NameForm label={GROUPS.newName({ name: of.name })} button={GROUPS.keepName} was={of.name} onName={(name) => deeds.renameSet(of.id, name).then(close)} onCancel={close} />
        ) : (
          <>
            <span className="text-quiet">{GROUPS.count({ count: all.students.length })}</span>
            {of.fills.length > 0 && <span className="text-ink-soft">{GROUPS.fills({ titles: of.fills.join(", ") })}</span>}
          </>
        )}
        {all.may_change && (
          <span className="ml-auto flex flex-wrap gap-2">
            <Button look="quiet" icon={<Pencil aria-hidden size={15} />} onClick={() => setAsking("name")} title={GROUPS.renameIt({ name: of.name })}>
              {GROUPS.rename}
            </Button>
            <Button look="quiet" icon={<Trash2 aria-hidden size={15} />} onClick={() => setAsking("away")}>
              {GROUPS.takeSetAway}
            </Button>
            <Button icon={<Hand aria-hidden size={16} />} onClick={() => setAsking("let")}>
              {GROUPS.let}
            </Button>
            <Button look="main" icon={<Dices aria-hidden size={16} />} onClick={() => setAsking("draw")}>
              {GROUPS.draw}
            </Button>
          </span>
        )}
      </div>
      {of.chosen_until && (
        <Notice look="info" title={GROUPS.choosing({ day: fullDay(of.chosen_until), most: of.most ?? 0 })}>
          {all.may_change && (
            <div className="mt-2 flex gap-2">
              <Button onClick={() => setAsking("let")}>{GROUPS.changeChoosing}</Button>
              <Button onClick={() => deeds.endChoice(of.id)}>{GROUPS.endChoosing}</Button>
            </div>
          )}
        </Notice>
      )}
      {asking === "draw" && <DrawDialog groupId={groupId} of={of} all={all} onClose={close} />}
      {asking === "let" && <LetChoose groupId={groupId} of={of} students={all.students.length} onClose={close} />}
      {asking === "away" && <Away of={of} deeds={deeds} onClose={close} />}
    </div>
  );
}

function Away({ of, deeds, onClose }: { of: Set_; deeds: Deeds; onClose: () => void }) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const away = () =>
    deeds
      .removeSet(of)
      .then(onClose)
      .catch((error: unknown) => setProblem(error instanceof Problem ? error : null));
  return (
    <Modal narrow title={GROUPS.takeSetAwayTitle({ name: of.name })} onClose={onClose}>
      <p>{GROUPS.takeSetAwayWhat}</p>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex justify-end gap-2">
        <Button big onClick={onClose}>
          {GROUPS.keepIt}
        </Button>
        <Button big look="main" onClick={() => void away()}>
          {GROUPS.takeIt}
        </Button>
      </div>
    </Modal>
  );
}

interface CardProps {
  label: string;
  count: number;
  onDrop: (id: number) => void;
  tools?: ReactNode;
  children: ReactNode;
}

function Card({ label, count, onDrop, tools, children }: CardProps) {
  const [over, setOver] = useState(false);
  return (
    // Dragging is one way of several: whoever is chosen is moved by the bar below, too.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <li
      aria-label={label}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const id = Number(event.dataTransfer.getData("text/plain"));
        if (id) onDrop(id);
      }}
      className={`flex min-h-24 flex-col gap-2 rounded-lg border bg-paper p-3 ${over ? "border-copper" : "border-edge"}`}
    >
      <div className="flex min-h-8 items-center gap-1">
        <h2 className="min-w-0 flex-1 text-base break-words">
          {label} <span className="text-sm font-normal whitespace-nowrap text-quiet">{GROUPS.count({ count })}</span>
        </h2>
        {tools}
      </div>
      {children}
    </li>
  );
}

function GroupCard({ one, may, deeds, onDrop, children }: { one: Group; may: boolean; deeds: Deeds; onDrop: (id: number) => void; children: ReactNode }) {
  const [naming, setNaming] = useState(false);
  const tool = "flex size-8 shrink-0 items-center justify-center rounded-md text-ink-soft hover:bg-ground";
  const tools = may && (
    <>
      <button type="button" aria-label={GROUPS.renameIt({ name: one.name })} title={GROUPS.renameIt({ name: one.name })} onClick={() => setNaming(true)} className={tool}>
        <Pencil aria-hidden size={15} />
      </button>
      {one.members.length === 0 && (
        <button type="button" aria-label={GROUPS.takeGroupAway({ name: one.name })} title={GROUPS.takeGroupAway({ name: one.name })} onClick={() => deeds.removeGroup(one)} className={tool}>
          <Trash2 aria-hidden size={15} />
        </button>
      )}
    </>
  );
  return (
    <Card label={one.name} count={one.members.length} onDrop={onDrop} tools={tools}>
      {naming && (
        <NameForm
          label={GROUPS.newName({ name: one.name })}
          button={GROUPS.keepName}
          was={one.name}
          onName={(name) => deeds.renameGroup(one.id, name).then(() => setNaming(false))}
          onCancel={() => setNaming(false)}
        />
      )}
      {children}
    </Card>
  );
}

interface ChipsProps {
  students: Student[];
  since?: Map<number, string | null>;
  chosen: ReadonlySet<number>;
  may: boolean;
  onToggle: (id: number) => void;
}

function Chips({ students, since, chosen, may, onToggle }: ChipsProps) {
  return (
    <ul className="flex flex-col gap-1">
      {students.map((one) => {
        const day = since?.get(one.id);
        const title = [one.period, day ? GROUPS.since({ day: shortDay(day) }) : ""].filter(Boolean).join(" · ");
        const face = (
          <>
            <PegPicture picture={one.picture} tint={one.tint} />
            <span className="min-w-0 flex-1 truncate text-left">{fullName(one)}</span>
            {one.period && <span className="text-sm text-quiet">{one.period}</span>}
          </>
        );
        return (
          // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- as above: the button in it does the same
          <li key={one.id} draggable={may} onDragStart={(event) => event.dataTransfer.setData("text/plain", String(one.id))}>
            {may ? (
              <button
                type="button"
                title={title}
                aria-pressed={chosen.has(one.id)}
                onClick={() => onToggle(one.id)}
                className={`flex min-h-9 w-full items-center gap-2 rounded-md border px-1 ${chosen.has(one.id) ? "border-copper bg-today" : "border-transparent hover:bg-ground"}`}
              >
                {face}
              </button>
            ) : (
              <span title={title} className="flex min-h-9 items-center gap-2 px-1">
                {face}
              </span>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function NewGroup({ of, deeds }: { of: Set_; deeds: Deeds }) {
  const [asking, setAsking] = useState(false);
  return (
    <li className="flex min-h-24 items-center justify-center rounded-lg border border-dashed border-control p-3">
      {asking ? (
        <NameForm label={GROUPS.nameOfGroup} button={GROUPS.makeGroup} onName={(name) => deeds.makeGroup(of.id, name).then(() => setAsking(false))} onCancel={() => setAsking(false)} />
      ) : (
        <Button look="quiet" icon={<Plus aria-hidden size={16} />} onClick={() => setAsking(true)}>
          {GROUPS.newGroup}
        </Button>
      )}
    </li>
  );
}

interface ChosenProps {
  of: Set_;
  chosen: number[];
  deeds: Deeds;
  onMove: (ids: number[], to: Group | null) => void;
  onDone: () => void;
}

/** What can be done with the chosen ones. */
function Chosen({ of, chosen, deeds, onMove, onDone }: ChosenProps) {
  const [to, setTo] = useState("");
  const [making, setMaking] = useState(false);
  const wish = (which: "apart" | "together") => {
    void deeds.wish(of, { apart: of.apart, together: of.together, [which]: [...of[which], chosen] }, true);
    onDone();
  };
  const withNew = async (name: string) => {
    const id = await deeds.makeGroup(of.id, name);
    onMove(chosen, { id, name, members: [] });
  };
  return (
    <div role="toolbar" aria-label={GROUPS.chosen({ count: chosen.length })} className="flex flex-wrap items-center gap-2 border-t border-edge bg-paper px-5 py-3">
      <span className="font-bold">{GROUPS.chosen({ count: chosen.length })}</span>
      <select aria-label={GROUPS.moveTo} value={to} onChange={(event) => setTo(event.target.value)} className="flex min-h-9 max-w-52 items-center rounded-md border border-control bg-paper px-2">
        <option value="">{GROUPS.moveTo} …</option>
        {of.groups.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
        <option value="none">{GROUPS.outOf}</option>
      </select>
      <Button disabled={!to} onClick={() => onMove(chosen, of.groups.find((one) => String(one.id) === to) ?? null)}>
        {GROUPS.move}
      </Button>
      {making ? (
        <NameForm label={GROUPS.nameOfGroup} button={GROUPS.makeGroup} onName={withNew} onCancel={() => setMaking(false)} />
      ) : (
        <Button onClick={() => setMaking(true)}>{GROUPS.withNew}</Button>
      )}
      {chosen.length > 1 && (
        <>
          <Button onClick={() => wish("apart")}>{GROUPS.never}</Button>
          <Button onClick={() => wish("together")}>{GROUPS.always}</Button>
        </>
      )}
      <Button look="quiet" onClick={onDone}>
        {GROUPS.clear}
      </Button>
    </div>
  );
}

function Wishes({ of, students, deeds }: { of: Set_; students: Map<number, Student>; deeds: Deeds }) {
  if (of.apart.length + of.together.length === 0) return null;
  const names = (ids: number[]) => ids.flatMap((id) => students.get(id) ?? []).map(fullName).join(", ");
  const without = (which: "apart" | "together", place: number) => {
    void deeds.wish(of, { apart: of.apart, together: of.together, [which]: of[which].filter((_, at) => at !== place) }, false);
  };
  const lines = [
    ...of.apart.map((ids, at) => ({ key: `a${at}`, text: GROUPS.neverOne({ names: names(ids) }), out: () => without("apart", at) })),
    ...of.together.map((ids, at) => ({ key: `t${at}`, text: GROUPS.alwaysOne({ names: names(ids) }), out: () => without("together", at) })),
  ];
  return (
    <section aria-labelledby="wishes" className="mt-6">
      <h2 id="wishes" className="text-base">
        {GROUPS.wishes} <span className="text-sm font-normal text-quiet">{GROUPS.wishesHint}</span>
      </h2>
      <ul className="mt-1 flex flex-col">
        {lines.map((one) => (
          <li key={one.key} className="flex min-h-9 items-center gap-2">
            <span className="min-w-0 break-words">{one.text}</span>
            <button type="button" aria-label={`${GROUPS.takeOut}: ${one.text}`} title={GROUPS.takeOut} onClick={one.out} className="flex size-8 shrink-0 items-center justify-center rounded-md text-ink-soft hover:bg-ground">
              <X aria-hidden size={16} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Former({ of }: { of: Set_ }) {
  if (of.former.length === 0) return null;
  return (
    <details className="mt-6">
      <summary className="font-semibold">{GROUPS.former}</summary>
      <ul className="mt-1">
        {of.former.map((one, at) => (
          <li key={at} className="py-1">
            {GROUPS.formerOne({ name: one.name, group: one.group, first: one.first ? shortDay(one.first) : GROUPS.fromTheStart, last: shortDay(one.last) })}
          </li>
        ))}
      </ul>
    </details>
  );
}
