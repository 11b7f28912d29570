/** The staff of a class: who is in it as what, and what each role may do. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { UserPlus } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { staffQuery } from "../api/queries";
import { freshSession } from "../api/session";
import { useLeaving } from "../app/leaving";
import { unfollowed } from "../live/live";
import { Button } from "../ui/Button";
import { fullDay } from "../ui/dates";
import { DateField } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { Select } from "../ui/Select";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { ROLES, ROLES_WITHIN } from "./texts";
import { TEXTS } from "./texts";

type Line = Schema["StaffLine"];
type Role = Line["role"];
interface Days {
  first: string | null;
  last: string | null;
}
const ALWAYS: Days = { first: null, last: null };
interface Had extends Days {
  role: Role | null;
}
interface Change extends Had {
  person: number;
  name: string;
  before: Had;
  me?: boolean;
}

function hadOf({ role, first, last }: Line): Had {
  return { role, first, last };
}

export function StaffPart({ groupId }: { groupId: number }) {
  const found = useQuery(staffQuery(groupId));
  const queries = useQueryClient();
  const say = useSay();
  const leave = useLeaving(groupId);
  const [leaving, setLeaving] = useState<Line | null>(null);
  const [dating, setDating] = useState<Line | null>(null);
  const [handing, setHanding] = useState(false);
  const set = useMutation({
    mutationFn: ({ person, role, first, last, me }: Change) => {
      const path = { group_id: groupId, person_id: person };
      const setting = () => data(client.PUT("/api/groups/{group_id}/staff/{person_id}", { params: { path }, body: { role, first, last } }));
      return me && role === null ? unfollowed(groupId, setting) : setting();
    },
    onSuccess: async (_, change) => {
      if (change.me && change.role === null) {
        await leave();
        return;
      }
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const words = change.role ? TEXTS.nameIsRoleNow({ name: change.name, role: ROLES_WITHIN[change.role] ?? "", days: daysOf(change) || TEXTS.now }) : TEXTS.nameIsNoLongerIn({ name: change.name });
      // Nobody gives themselves a role, so what one gave up oneself is not taken back here.
      say(words, change.me ? undefined : () => set.mutate({ ...change, ...change.before, before: { role: change.role, first: change.first, last: change.last } }));
    },
  });
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { staff, roles, may_add: add, may_hand_over: mayHandOver } = found.data;
  const change = (one: Line, to: Partial<Had>) => set.mutate({ ...hadOf(one), ...to, person: one.person, name: one.name, before: hadOf(one), me: one.me });
  return (
    <section aria-labelledby="staff" className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <h1 id="staff" className="text-xl">
        {TEXTS.staff}
      </h1>
      {set.error instanceof Problem && (
        <div className="max-w-3xl">
          <Notice title={set.error.title} fix={set.error.fix} />
        </div>
      )}
      <ul className="max-w-3xl divide-y divide-line rounded-lg border border-edge bg-paper">
        {staff.map((one) => (
          <li key={one.person} className="flex flex-wrap items-center gap-3 px-4 py-2">
            <span className="min-w-48 flex-1">
              <span className="block truncate font-semibold">
                {one.name}
                {one.me && <span className="font-normal text-quiet">{" "}{TEXTS.you}</span>}
              </span>
              <span className="block truncate text-quiet">{one.email}</span>
              {daysOf(one) && <span className="block font-semibold text-copper">{daysOf(one)}</span>}
            </span>
            {one.may_become.length > 1 || one.may_take_out ? (
              <>
                <Select
                  heard
                  label={TEXTS.roleOfName({ name: one.name })}
                  value={one.role}
                  options={one.may_become.map((role) => ({ value: role, shown: ROLES[role] ?? role }))}
                  onChange={(role) => change(one, { role: role as Role })}
                />
                {one.may_take_out && !one.me ? (
                  <Button look="quiet" className="w-20" onClick={() => setDating(one)}>
                    {TEXTS.days}
                    <span className="sr-only"> {one.name}</span>
                  </Button>
                ) : (
                  <span className="w-20 max-sm:hidden" />
                )}
                {one.may_take_out && (
                  <Button look="quiet" className="w-36" onClick={() => (one.me ? setLeaving(one) : change(one, { role: null, ...ALWAYS }))}>
                    {one.me ? TEXTS.leaveTheClass : TEXTS.takeOut}
                    <span className="sr-only"> {one.name}</span>
                  </Button>
                )}
              </>
            ) : (
              <span>{ROLES[one.role]}</span>
            )}
          </li>
        ))}
      </ul>
      {leaving && (
        <Modal title={TEXTS.leaveTheClass2} narrow onClose={() => setLeaving(null)}>
          <p>{TEXTS.youNoLongerSeeIt}</p>
          <div className="flex justify-end gap-2">
            <Button big onClick={() => setLeaving(null)}>
              {TEXTS.stay}
            </Button>
            <Button
              big
              look="main"
              onClick={() => {
                change(leaving, { role: null, ...ALWAYS });
                setLeaving(null);
              }}
            >
              {TEXTS.leaveTheClass}
            </Button>
          </div>
        </Modal>
      )}
      {dating && (
        <DaysDialog
          line={dating}
          onClose={() => setDating(null)}
          onDone={(days) => {
            setDating(null);
            change(dating, days);
          }}
        />
      )}
      {handing && <HandOver groupId={groupId} staff={staff.filter((one) => !one.me)} onClose={() => setHanding(false)} />}
      {add.length > 0 && <Add groupId={groupId} roles={add} onAdd={(person, name, had) => set.mutate({ person, name, ...had, before: { role: null, ...ALWAYS } })} />}
      {mayHandOver && (
        <div className="flex max-w-3xl flex-wrap items-center gap-3 rounded-lg border border-edge bg-paper px-4 py-3">
          <p className="min-w-0 flex-1">{TEXTS.handOverHint}</p>
          <Button onClick={() => setHanding(true)}>{TEXTS.handOver}</Button>
        </div>
      )}
      <section aria-labelledby="roles" className="max-w-3xl">
        <h2 id="roles" className="mb-2 text-base">
          {TEXTS.whatEachRoleMayDo}
        </h2>
        <dl className="grid grid-cols-[110px_1fr] gap-x-4 gap-y-1">
          {roles.map((one) => (
            <div key={one.role} className="contents">
              <dt className="font-semibold">{ROLES[one.role]}</dt>
              <dd>{one.may}</dd>
            </div>
          ))}
        </dl>
      </section>
    </section>
  );
}

/** ``from Mon 7 Dec until Fri 18 Dec``; nothing where it is for good. */
function daysOf({ first, last }: Days): string {
  if (!first && !last) return "";
  return TEXTS.fromUntil({ first: first ? fullDay(first) : "", last: last ? fullDay(last) : "", span: first ? (last ? "both" : "first") : "last" });
}

/** From when to when somebody is in the class. */
function DaysDialog({ line, onClose, onDone }: { line: Line; onClose: () => void; onDone: (days: Days) => void }) {
  const [first, setFirst] = useState(line.first ?? "");
  const [last, setLast] = useState(line.last ?? "");
  return (
    <Modal title={TEXTS.daysOfName({ name: line.name })} narrow onClose={onClose}>
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onDone({ first: first || null, last: last || null });
        }}
      >
        <p>{TEXTS.daysHint}</p>
        <div className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <DateField label={TEXTS.firstDayHere} value={first} onChange={setFirst} />
          <DateField label={TEXTS.lastDayHere} value={last} onChange={setLast} />
        </div>
        <div className="flex justify-end gap-2">
          <Button big onClick={onClose}>
            {TEXTS.leaveAsItIs}
          </Button>
          <Button big look="main" type="submit">
            {TEXTS.setDays}
          </Button>
        </div>
      </form>
    </Modal>
  );
}

const STAYS = ["co_teacher", "marker", "observer"] as const;

/** The class goes to a colleague who is in it: asked before, since only they can give it back. */
function HandOver({ groupId, staff, onClose }: { groupId: number; staff: Line[]; onClose: () => void }) {
  const queries = useQueryClient();
  const leave = useLeaving(groupId);
  const say = useSay();
  const [to, setTo] = useState(staff[0]?.person ?? 0);
  const [stays, setStays] = useState<(typeof STAYS)[number] | "">("co_teacher");
  const hand = useMutation({
    mutationFn: () => {
      const handing = () => data(client.POST("/api/groups/{group_id}/hand-over", { params: { path: { group_id: groupId } }, body: { person: to, stays: stays || null } }));
      return stays ? handing() : unfollowed(groupId, handing);
    },
    onSuccess: async () => {
      onClose();
      if (!stays) await leave();
      say(TEXTS.handedOver({ name: staff.find((one) => one.person === to)?.name ?? "" }));
      if (!stays) return;
      // What one may do in it is another thing now.
      await freshSession(queries);
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    },
  });
  return (
    <Modal title={TEXTS.handOverTitle} narrow onClose={onClose}>
      {staff.length === 0 ? (
        <p>{TEXTS.addThemFirst}</p>
      ) : (
        <form
          noValidate
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            hand.mutate();
          }}
        >
          <label className="font-bold">
            {TEXTS.handOverTo}
            <select value={to} onChange={(event) => setTo(Number(event.target.value))} className={PICK}>
              {staff.map((one) => (
                <option key={one.person} value={one.person}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <label className="font-bold">
            {TEXTS.youStayAs}
            <select value={stays} onChange={(event) => setStays(event.target.value as typeof stays)} className={PICK}>
              {STAYS.map((one) => (
                <option key={one} value={one}>
                  {ROLES[one]}
                </option>
              ))}
              <option value="">{TEXTS.notAtAll}</option>
            </select>
          </label>
          <p>{TEXTS.handOverWhat}</p>
          {hand.error instanceof Problem && <Notice title={hand.error.title} fix={hand.error.fix} />}
          <div className="flex justify-end gap-2">
            <Button big onClick={onClose}>
              {TEXTS.keepTheClass}
            </Button>
            <Button big look="main" type="submit" disabled={hand.isPending}>
              {TEXTS.handOverNow}
            </Button>
          </div>
        </form>
      )}
    </Modal>
  );
}

const PICK = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-2 font-normal";

/** Find somebody with a staff account, by a part of the name or address; the role is chosen as they are added. */
function Add({ groupId, roles, onAdd }: { groupId: number; roles: Role[]; onAdd: (person: number, name: string, had: Had) => void }) {
  const [text, setText] = useState("");
  const [role, setRole] = useState<Role>(roles.includes("co_teacher") ? "co_teacher" : (roles[0] ?? "observer"));
  const [days, setDays] = useState({ first: "", last: "" });
  const wanted = text.trim();
  const found = useQuery({
    queryKey: ["group", groupId, "find-staff", wanted],
    enabled: wanted.length > 1,
    queryFn: () => data(client.GET("/api/groups/{group_id}/staff/find", { params: { path: { group_id: groupId }, query: { text: wanted } } })),
  });
  const shown = wanted.length > 1 ? found.data : undefined;
  return (
    <div className="max-w-3xl">
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-52 flex-1 font-bold">
          {TEXTS.addSomebodyByNameOr}
          <input
            value={text}
            onChange={(event) => setText(event.target.value)}
            autoComplete="off"
            className="mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal"
          />
        </label>
        <label className="flex min-h-9 items-center gap-2">
          {TEXTS.addAs}
          <select value={role} onChange={(event) => setRole(event.target.value as Role)} className="min-h-9 rounded-md border border-control bg-paper px-2">
            {roles.map((one) => (
              <option key={one} value={one}>
                {ROLES[one]}
              </option>
            ))}
          </select>
        </label>
        <DateField label={TEXTS.fromDay} hint={TEXTS.orAtOnce} value={days.first} onChange={(first) => setDays({ ...days, first })} className="w-44" />
        <DateField label={TEXTS.untilDay} hint={TEXTS.orForGood} value={days.last} onChange={(last) => setDays({ ...days, last })} className="w-44" />
      </div>
      <div aria-live="polite">
        {shown?.length === 0 && <p className="mt-2 text-quiet">{TEXTS.nobodyOfThatNameHas}</p>}
        {shown && shown.length > 0 && (
          <ul className="mt-2 max-w-md divide-y divide-line rounded-md border border-edge bg-paper">
            {shown.map((one) => (
              <li key={one.person} className="flex items-center gap-3 px-3 py-1.5">
                <span className="min-w-0 flex-1 truncate">
                  <span className="font-semibold">{one.name}</span> <span className="text-quiet">{one.email}</span>
                </span>
                <Button
                  icon={<UserPlus aria-hidden size={16} />}
                  onClick={() => {
                    onAdd(one.person, one.name, { role, first: days.first || null, last: days.last || null });
                    setText("");
                    setDays({ first: "", last: "" });
                  }}
                >
                  {TEXTS.add}<span className="sr-only"> {one.name}</span>
                </Button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
