/** The staff of a class: who is in it as what, and what each role may do. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { UserPlus } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery, staffQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { Select } from "../ui/Select";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { ROLES, ROLES_WITHIN } from "./texts";
import { TEXTS } from "./texts";

type Role = Schema["StaffLine"]["role"];
interface Change {
  person: number;
  name: string;
  role: Role | null;
  before: Role | null;
  me?: boolean;
}

export function StaffPart({ groupId }: { groupId: number }) {
  const found = useQuery(staffQuery(groupId));
  const queries = useQueryClient();
  const say = useSay();
  const navigate = useNavigate();
  const [leaving, setLeaving] = useState<Schema["StaffLine"] | null>(null);
  const set = useMutation({
    mutationFn: ({ person, role }: Change) =>
      data(client.PUT("/api/groups/{group_id}/staff/{person_id}", { params: { path: { group_id: groupId, person_id: person } }, body: { role } })),
    onSuccess: async (_, change) => {
      if (change.me && change.role === null) {
        // The class is theirs no more: the session says where else they are.
        await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
        await navigate("/");
        return;
      }
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const words = change.role ? TEXTS.nameIsRoleNow({ name: change.name, role: ROLES_WITHIN[change.role] ?? "" }) : TEXTS.nameIsNoLongerIn({ name: change.name });
      // Nobody gives themselves a role, so what one gave up oneself is not taken back here.
      say(words, change.me ? undefined : () => set.mutate({ ...change, role: change.before, before: change.role }));
    },
  });
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { staff, roles, may_add: add } = found.data;
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
            </span>
            {one.may_become.length > 1 || one.may_take_out ? (
              <>
                <Select
                  heard
                  label={TEXTS.roleOfName({ name: one.name })}
                  value={one.role}
                  options={one.may_become.map((role) => ({ value: role, shown: ROLES[role] ?? role }))}
                  onChange={(role) => set.mutate({ person: one.person, name: one.name, role: role as Role, before: one.role, me: one.me })}
                />
                {one.may_take_out && (
                  <Button look="quiet" className="w-36" onClick={() => (one.me ? setLeaving(one) : set.mutate({ person: one.person, name: one.name, role: null, before: one.role }))}>
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
                set.mutate({ person: leaving.person, name: leaving.name, role: null, before: leaving.role, me: true });
                setLeaving(null);
              }}
            >
              {TEXTS.leaveTheClass}
            </Button>
          </div>
        </Modal>
      )}
      {add.length > 0 && <Add groupId={groupId} roles={add} onAdd={(person, name, role) => set.mutate({ person, name, role, before: null })} />}
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

/** Find somebody with a staff account, by a part of the name or address; the role is chosen as they are added. */
function Add({ groupId, roles, onAdd }: { groupId: number; roles: Role[]; onAdd: (person: number, name: string, role: Role) => void }) {
  const [text, setText] = useState("");
  const [role, setRole] = useState<Role>(roles.includes("co_teacher") ? "co_teacher" : (roles[0] ?? "observer"));
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
        <label className="min-w-64 flex-1 font-bold">
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
                    onAdd(one.person, one.name, role);
                    setText("");
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
