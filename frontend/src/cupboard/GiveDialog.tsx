/** Giving copies out: into which pocket, to whom, and what that does, said before. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { boardQuery } from "../api/queries";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { newKey } from "../ui/newKey";
import { Notice } from "../ui/Notice";
import { found } from "../ui/people/find";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { listed } from "../ui/words";
import type { OpenedItem } from "./queries";
import { GIVING } from "./texts";
import { useTakeBack } from "./takingBack";

interface Props {
  item: OpenedItem;
  group: Group;
  periods: Schema["Named"][];
  /** Chosen already, as by dropping it there. */
  pocket?: number | undefined;
  students?: number[] | undefined;
  onClose: () => void;
}

type Way = "all" | "periods" | "students";

/** What is chosen. */
function useChosen({ pocket: into = 0, students: to = [] }: Props) {
  const [pocket, setPocket] = useState(into);
  const [way, setWay] = useState<Way>(to.length > 0 ? "students" : "all");
  const [some, setSome] = useState<number[]>([]);
  const [students, setStudents] = useState<number[]>(to);
  const body = { pocket, students: way === "students" ? students : [], periods: way === "periods" ? some : [] };
  const asks = pocket > 0 && (way === "all" || body.students.length + body.periods.length > 0);
  return { pocket, setPocket, way, setWay, some, setSome, students, setStudents, body, asks };
}

/** What it would do, and doing it. */
function useGiving(props: Props) {
  const { item, group, onClose } = props;
  const chosen = useChosen(props);
  const { body, asks } = chosen;
  const [key] = useState(newKey);
  const [ask, setAsk] = useState(false);
  const [later, setLater] = useState<Later | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const say = useSay();
  const takeBack = useTakeBack(group.id);
  const settled = useSettled(body);
  const path = { params: { path: { item_id: item.id } } };
  const look = useQuery({
    queryKey: ["group", group.id, "giving", item.id, settled],
    queryFn: () => data(client.POST("/api/cupboard/{item_id}/giving", { ...path, body: settled })),
    enabled: asks && settled.pocket > 0,
    retry: false,
  });
  const fresh = asks && JSON.stringify(settled) === JSON.stringify(body);
  const impact = fresh ? (look.data ?? null) : null;
  const count = impact?.gets.length ?? 0;
  const give = useMutation({
    mutationFn: () => data(client.POST("/api/cupboard/{item_id}/give", { ...path, body: { ...body, key, ...(later && { day: later.day, time: later.time || null }) } })),
    onSuccess: async (made) => {
      onClose();
      const where = { title: made.item.title, pocket: made.pocket.title };
      say(made.waits_for ? GIVING.planned({ ...where, at: moment(made.waits_for) }) : GIVING.given({ ...where, count }), () => takeBack(made.id));
      if (ask) void navigate(`/g/${group.id}/hand-ins?new=1&pocket=${made.pocket.id}`);
      await queries.invalidateQueries({ queryKey: ["group", group.id] });
    },
  });
  const problem = give.error ?? (fresh ? look.error : null);
  return { ...chosen, ask, setAsk, later, setLater, impact, count, give, problem };
}

export function GiveDialog(props: Props) {
  const { item, group, periods, onClose } = props;
  const giving = useGiving(props);
  const { asks, later, impact, count, give, problem } = giving;
  return (
    <Modal title={GIVING.title(item)} onClose={onClose}>
      <Into item={item} pocket={giving.pocket} onPocket={giving.setPocket} />
      <Whom group={group} periods={periods} way={giving.way} onWay={giving.setWay} some={giving.some} onSome={giving.setSome} students={giving.students} onStudents={giving.setStudents} />
      <When later={later} onLater={giving.setLater} />
      <div aria-live="polite" className="min-h-12">
        {impact ? <Impact impact={impact} /> : <p className="text-ink-soft">{asks && !problem && GIVING.asks}</p>}
      </div>
      {may(group, "set_handin") && (
        <label className="flex min-h-8 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={giving.ask} onChange={(event) => giving.setAsk(event.target.checked)} />
          {GIVING.ask}
        </label>
      )}
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {GIVING.cancel}
        </Button>
        <Button big look="main" disabled={count === 0 || give.isPending || later?.day === ""} onClick={() => give.mutate()}>
          {(later ? GIVING.plan : GIVING.give)({ count })}
        </Button>
      </div>
    </Modal>
  );
}

/** A day and a local time to come. */
interface Later {
  day: string;
  time: string;
}

const MORNING = "08:00";

/** At once, or at a moment: until then students see nothing of it. */
function When({ later, onLater }: { later: Later | null; onLater: (later: Later | null) => void }) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-bold">{GIVING.when}</legend>
      <label className="flex min-h-8 items-center gap-2">
        <input type="radio" className="size-4 accent-ink" checked={later === null} onChange={() => onLater(null)} />
        {GIVING.atOnce}
      </label>
      <label className="flex min-h-8 items-center gap-2">
        <input type="radio" className="size-4 accent-ink" checked={later !== null} onChange={() => onLater({ day: "", time: MORNING })} />
        {GIVING.atAMoment}
      </label>
      {later && (
        <div className="ml-6 flex flex-wrap items-end gap-3">
          <DateField label={GIVING.day} value={later.day} onChange={(day) => onLater({ ...later, day })} />
          <label className="font-bold">
            {GIVING.time}
            <input type="time" value={later.time} onChange={(event) => onLater({ ...later, time: event.target.value })} className="mt-1 block min-h-9 rounded-md border border-control bg-paper px-3 font-normal" />
          </label>
        </div>
      )}
    </fieldset>
  );
}

/** The pockets that take it, under their sections. */
function Into({ item, pocket, onPocket }: { item: OpenedItem; pocket: number; onPocket: (pocket: number) => void }) {
  const fitting = item.pockets.filter((one) => !one.why_not);
  return (
    <label className="font-bold">
      {GIVING.into}
      {/* eslint-disable-next-line jsx-a11y/no-autofocus -- the dialog was opened to choose it */}
      <select autoFocus value={pocket} onChange={(event) => onPocket(Number(event.target.value))} className="mt-1 flex min-h-9 items-center w-full rounded-md border border-control bg-paper px-3 font-normal">
        <option value={0}>{GIVING.choose}</option>
        {[...new Set(fitting.map((one) => one.section))].map((section) => (
          <optgroup key={section} label={section}>
            {fitting
              .filter((one) => one.section === section)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.title}
                </option>
              ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}

const NAMED = 6;

function names(people: Schema["Face"][]): string {
  const shown = people.slice(0, NAMED).map(listed).join("; ");
  return people.length > NAMED ? GIVING.andMore({ names: shown, count: people.length - NAMED }) : shown;
}

/** What it will do, by name. */
function Impact({ impact }: { impact: Schema["GivingImpact"] }) {
  return (
    <ul className="flex flex-col gap-1 rounded-md bg-ground px-4 py-2">
      <li className="font-semibold">{GIVING.gets({ count: impact.gets.length })}</li>
      {(["has", "locked", "full"] as const).map(
        (what) => impact[what].length > 0 && <li key={what}>{GIVING[what]({ count: impact[what].length, names: names(impact[what]) })}</li>,
      )}
    </ul>
  );
}

interface WhomProps {
  group: Group;
  periods: Schema["Named"][];
  way: Way;
  onWay: (way: Way) => void;
  some: number[];
  onSome: (periods: number[]) => void;
  students: number[];
  onStudents: (students: number[]) => void;
}

function Whom({ group, periods, way, onWay, some, onSome, students, onStudents }: WhomProps) {
  const ways: Way[] = periods.length > 1 ? ["all", "periods", "students"] : ["all", "students"];
  const toggled = (all: number[], id: number) => (all.includes(id) ? all.filter((one) => one !== id) : [...all, id]);
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-bold">{GIVING.whom}</legend>
      {ways.map((one) => (
        <label key={one} className="flex min-h-8 items-center gap-2">
          <input type="radio" className="size-4 accent-ink" checked={way === one} onChange={() => onWay(one)} />
          {GIVING[one]}
        </label>
      ))}
      {way === "periods" && (
        <div className="ml-6 flex flex-wrap gap-x-5">
          {periods.map((one) => (
            <label key={one.id} className="flex min-h-8 items-center gap-2">
              <input type="checkbox" className="size-4 accent-ink" checked={some.includes(one.id)} onChange={() => onSome(toggled(some, one.id))} />
              {one.title}
            </label>
          ))}
        </div>
      )}
      {way === "students" && <Students groupId={group.id} chosen={students} onToggle={(id) => onStudents(toggled(students, id))} />}
    </fieldset>
  );
}

const MOST_SHOWN = 60;

function Students({ groupId, chosen, onToggle }: { groupId: number; chosen: number[]; onToggle: (id: number) => void }) {
  const board = useQuery(boardQuery(groupId));
  const [text, setText] = useState("");
  const shown = found((board.data?.students ?? []).filter((one) => !one.left), text);
  const first = text ? shown : [...shown.filter((one) => chosen.includes(one.id)), ...shown.filter((one) => !chosen.includes(one.id))];
  return (
    <div className="mt-1 rounded-md border border-control">
      <div className="flex items-center gap-3 border-b border-line px-3">
        <input aria-label={GIVING.find} placeholder={GIVING.find} autoComplete="off" value={text} onChange={(event) => setText(event.target.value)} className="min-h-9 min-w-0 flex-1 bg-transparent" />
        <span aria-live="polite" className="shrink-0 text-quiet">
          {GIVING.chosen({ count: chosen.length })}
        </span>
      </div>
      <ul aria-label={GIVING.students} className="max-h-40 overflow-y-auto px-3 py-1">
        {first.slice(0, MOST_SHOWN).map((one) => (
          <li key={one.id}>
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" className="size-4 shrink-0 accent-ink" checked={chosen.includes(one.id)} onChange={() => onToggle(one.id)} />
              <span className="min-w-0 flex-1 break-words">{listed(one)}</span>
              <span className="text-sm text-quiet">{one.period}</span>
            </label>
          </li>
        ))}
        {first.length > MOST_SHOWN && <li className="py-1 text-quiet">{GIVING.more({ count: first.length - MOST_SHOWN })}</li>}
      </ul>
    </div>
  );
}
