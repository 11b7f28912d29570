/** Who works in the class with its lead: found by a part of the name, the role chosen as they are added. */
import { useQuery } from "@tanstack/react-query";
import { UserPlus, X } from "lucide-react";
import { useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import { client, data } from "../api/client";
import { Button } from "../ui/Button";
import type { Colleague, Fields, Role } from "./fields";
import { TEXTS } from "./texts";

const ROLES = Object.keys(TEXTS.roles) as Role[];
const SELECT = "min-h-9 rounded-md border border-control bg-paper px-2";

interface Props {
  form: UseFormReturn<Fields>;
  fields: Fields;
}

export function StaffPart({ form, fields }: Props) {
  const [text, setText] = useState("");
  const [role, setRole] = useState<Role>("co_teacher");
  const wanted = text.trim();
  const found = useQuery({
    queryKey: ["start", "staff", wanted],
    enabled: wanted.length > 1,
    queryFn: () => data(client.GET("/api/start/staff", { params: { query: { text: wanted } } })),
  });
  const shown = wanted.length > 1 ? found.data?.filter((one) => fields.staff.every((of) => of.person !== one.person)) : undefined;
  const put = (staff: Fields["staff"]) => form.setValue("staff", staff);
  const add = (one: Colleague) => {
    put([...fields.staff, { person: one.person, name: one.name, role }]);
    setText("");
  };
  return (
    <fieldset className="flex flex-col gap-3 rounded-lg border border-edge p-4">
      <legend className="px-1 text-base font-bold">{TEXTS.staff}</legend>
      {fields.staff.length > 0 && (
        <ul className="divide-y divide-line rounded-md border border-edge">
          {fields.staff.map((one) => (
            <li key={one.person} className="flex items-center gap-2 px-3 py-1">
              <span className="min-w-0 flex-1 truncate font-semibold">{one.name}</span>
              <select
                aria-label={TEXTS.roleOf({ name: one.name })}
                value={one.role}
                onChange={(event) => put(fields.staff.map((of) => (of.person === one.person ? { ...of, role: event.target.value as Role } : of)))}
                className={SELECT}
              >
                {ROLES.map((of) => (
                  <option key={of} value={of}>
                    {TEXTS.roles[of]}
                  </option>
                ))}
              </select>
              <button type="button" aria-label={TEXTS.takeOut({ name: one.name })} className="flex size-9 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={() => put(fields.staff.filter((of) => of.person !== one.person))}>
                <X aria-hidden size={16} />
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-56 flex-1 font-bold">
          {TEXTS.findStaff}
          <input
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              const first = shown?.[0];
              if (event.key !== "Enter" || !wanted) return;
              // Enter takes the one that is left, and never starts the class from here.
              event.preventDefault();
              if (first && shown.length === 1) add(first);
            }}
            autoComplete="off"
            className="mt-1 flex min-h-10 w-full rounded-md border border-control bg-paper px-3 font-normal"
          />
        </label>
        <label className="flex min-h-10 items-center gap-2">
          {TEXTS.role}
          <select value={role} onChange={(event) => setRole(event.target.value as Role)} className={SELECT}>
            {ROLES.map((of) => (
              <option key={of} value={of}>
                {TEXTS.roles[of]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div aria-live="polite">
        {shown?.length === 0 && <p className="text-quiet">{TEXTS.nobody}</p>}
        {shown && shown.length > 0 && (
          <ul className="divide-y divide-line rounded-md border border-edge">
            {shown.map((one) => (
              <li key={one.person} className="flex items-center gap-3 px-3 py-1.5">
                <span className="min-w-0 flex-1 truncate">
                  <span className="font-semibold">{one.name}</span> <span className="text-quiet">{one.email}</span>
                </span>
                <Button icon={<UserPlus aria-hidden size={16} />} onClick={() => add(one)}>
                  {TEXTS.add}
                  <span className="sr-only"> {one.name}</span>
                </Button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </fieldset>
  );
}
