/** Giving copies out: into which pocket, to whom, and what that does, said before. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { newKey } from "../ui/newKey";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { listed } from "../ui/words";
import { GiveVersions } from "./GiveVersions";
import type { Dealing } from "./GiveVersions";
import { Whom } from "./GiveWhom";
import type { Chosen, Way } from "./GiveWhom";
import { cupboardQuery } from "./queries";
import type { OpenedItem } from "./queries";
import { GIVING } from "./texts";
import { useTakeBack } from "./takingBack";

interface Props {
  item: OpenedItem;
  group: Group;
  /** Chosen already, as by dropping it there. */
  pocket?: number | undefined;
  students?: number[] | undefined;
  onClose: () => void;
}

/** What is chosen. */
function useChosen({ pocket: into = 0, students = [] }: Props) {
  const [pocket, setPocket] = useState(into);
  const [to, setTo] = useState<Chosen>({ way: students.length > 0 ? "students" : "all", periods: [], groups: [], students });
  const [dealing, setDealing] = useState<Dealing | null>(null);
  const only = <T,>(way: Way, of: T[]) => (to.way === way ? of : []);
  const body = { pocket, students: only("students", to.students), periods: only("some", to.periods), groups: only("some", to.groups), versions: dealing && dealing.versions.length > 1 ? dealing : null };
  const enough = dealing === null || dealing.versions.length > 1;
  const asks = pocket > 0 && enough && (to.way === "all" || body.students.length + body.periods.length + body.groups.length > 0);
  return { pocket, setPocket, to, setTo, dealing, setDealing, body, asks };
}

/** What it would do: of just what is chosen, and (``known``) as it was last answered; or why it cannot be. */
function useLook(item_id: number, group: number, body: Schema["GiveIn"], asks: boolean) {
  const settled = useSettled(body);
  const look = useQuery({
    queryKey: ["group", group, "giving", item_id, settled],
    queryFn: () => data(client.POST("/api/cupboard/{item_id}/giving", { params: { path: { item_id } }, body: settled })),
    enabled: asks && settled.pocket > 0,
    retry: false,
    // Until the next answer the one before stands: nothing that is being chosen goes away.
    placeholderData: (old: Schema["GivingImpact"] | undefined) => old,
  });
  const fresh = asks && !look.isPlaceholderData && JSON.stringify(settled) === JSON.stringify(body);
  const known = look.data ?? null;
  return { impact: fresh ? known : null, known, why: fresh ? look.error : null };
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
  const path = { params: { path: { item_id: item.id } } };
  const { impact, known, why } = useLook(item.id, group.id, body, asks);
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
  return { ...chosen, ask, setAsk, later, setLater, impact, known, count, give, problem: give.error ?? why };
}

export function GiveDialog(props: Props) {
  const { item, group, onClose } = props;
  const giving = useGiving(props);
  return (
    <Modal title={GIVING.title(item)} onClose={onClose}>
      <Into item={item} pocket={giving.pocket} onPocket={giving.setPocket} />
      <WhomAndWhat giving={giving} item={item} group={group} />
      <When later={giving.later} onLater={giving.setLater} />
      <Meant giving={giving} />
      {may(group, "set_handin") && (
        <label className="flex min-h-8 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={giving.ask} onChange={(event) => giving.setAsk(event.target.checked)} />
          {GIVING.ask}
        </label>
      )}
      {giving.problem instanceof Problem && <Notice title={giving.problem.title} fix={giving.problem.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {GIVING.cancel}
        </Button>
        <Give giving={giving} />
      </div>
    </Modal>
  );
}

type Giving = ReturnType<typeof useGiving>;

/** To whom, and whether each gets the same. */
function WhomAndWhat({ giving, item, group }: { giving: Giving; item: OpenedItem; group: Group }) {
  const cupboard = useQuery(cupboardQuery(group.id)).data;
  const places = { periods: cupboard?.periods ?? [], groups: cupboard?.groups ?? [] };
  return (
    <>
      <Whom group={group} {...places} to={giving.to} onTo={giving.setTo} />
      <GiveVersions item={item} group={group} {...places} items={cupboard?.items ?? []} dealing={giving.dealing} impact={giving.known} onDealing={giving.setDealing} />
    </>
  );
}

/** What it would do. */
function Meant({ giving: { impact, asks, problem } }: { giving: Giving }) {
  return (
    <div aria-live="polite" className="min-h-12 shrink-0">
      {impact ? <Impact impact={impact} /> : <p className="text-ink-soft">{asks && !problem && GIVING.asks}</p>}
    </div>
  );
}

function Give({ giving: { later, count, give } }: { giving: Giving }) {
  const says = later ? GIVING.plan : GIVING.give;
  return (
    <Button big look="main" disabled={count === 0 || give.isPending || later?.day === ""} onClick={() => give.mutate()}>
      {count > 0 ? says({ count }) : GIVING.out}
    </Button>
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
      {impact.versions.map((one) => (
        <li key={one.item}>{GIVING.versionGets({ title: one.title, count: one.gets.length, names: names(one.gets) })}</li>
      ))}
      {impact.nowhere.length > 0 && <li className="text-copper">{GIVING.nowhere({ count: impact.nowhere.length, names: names(impact.nowhere) })}</li>}
    </ul>
  );
}
