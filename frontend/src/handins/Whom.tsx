/** Whom a hand-in asks of those whom its periods name: all, some groups, chosen students, all but some. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import type { UseFormReturn } from "react-hook-form";
import type { Schema } from "../api/client";
import { boardQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { found } from "../ui/people/find";
import { listed } from "../ui/words";
import type { Fields } from "./plan";
import { WHOM } from "./texts";

type Way = Fields["whom"];

const MOST_SHOWN = 60;
/** Names in the list at once: beyond it a search finds them. */

export function Whom({ data, form }: { data: Schema["HandInsShape"]; form: UseFormReturn<Fields> }) {
  const whom = useWatch({ control: form.control, name: "whom" });
  const groups = useWatch({ control: form.control, name: "groups" });
  const ways: Way[] = data.all_groups.length > 0 || whom === "groups" ? ["all", "groups", "students", "but"] : ["all", "students", "but"];
  const toggle = (id: number) => form.setValue("groups", toggled(groups, id));
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-bold">{WHOM.title}</legend>
      {ways.map((way) => (
        <label key={way} className="flex min-h-7 items-center gap-2">
          <input type="radio" className="size-4 accent-ink" checked={whom === way} onChange={() => form.setValue("whom", way)} />
          {WHOM[way]}
        </label>
      ))}
      {whom === "groups" && (
        <ul aria-label={WHOM.groupsOf} className="mt-1 max-h-40 overflow-y-auto rounded-md border border-control px-3 py-1">
          {data.all_groups.map((one) => (
            <li key={one.id}>
              <label className="flex min-h-7 items-center gap-2">
                <input type="checkbox" className="size-4 accent-ink" checked={groups.includes(one.id)} onChange={() => toggle(one.id)} />
                {one.name}
              </label>
            </li>
          ))}
        </ul>
      )}
      {(whom === "students" || whom === "but") && <Students form={form} label={WHOM[whom]} />}
    </fieldset>
  );
}

function toggled(all: number[], id: number): number[] {
  return all.includes(id) ? all.filter((one) => one !== id) : [...all, id];
}

function Students({ form, label }: { form: UseFormReturn<Fields>; label: string }) {
  const board = useQuery(boardQuery(useGroupId()));
  const chosen = useWatch({ control: form.control, name: "students" });
  const [text, setText] = useState("");
  const all = (board.data?.students ?? []).filter((one) => !one.left || chosen.includes(one.id));
  const shown = found(all, text);
  // Whom one chose stands on top, so that it is seen at a glance.
  const first = text ? shown : [...shown.filter((one) => chosen.includes(one.id)), ...shown.filter((one) => !chosen.includes(one.id))];
  return (
    <div className="mt-1 rounded-md border border-control">
      <div className="flex items-center gap-3 border-b border-line px-3">
        <input
          aria-label={WHOM.find}
          placeholder={WHOM.find}
          autoComplete="off"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            // The form is not sent by it: of one name that is left, it is chosen.
            event.preventDefault();
            const [one, ...more] = shown;
            if (!one || more.length > 0) return;
            form.setValue("students", toggled(chosen, one.id));
            setText("");
          }}
          className="min-h-9 min-w-0 flex-1 bg-transparent"
        />
        <span aria-live="polite" className="shrink-0 text-quiet">
          {WHOM.chosen({ count: chosen.length })}
        </span>
      </div>
      <ul aria-label={label} className="max-h-40 overflow-y-auto px-3 py-1">
        {first.slice(0, MOST_SHOWN).map((one) => (
          <li key={one.id}>
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" className="size-4 shrink-0 accent-ink" checked={chosen.includes(one.id)} onChange={() => form.setValue("students", toggled(chosen, one.id))} />
              <span className="min-w-0 flex-1 break-words">{listed(one)}</span>
              <span className="text-sm text-quiet">{one.period}</span>
            </label>
          </li>
        ))}
        {first.length > MOST_SHOWN && <li className="py-1 text-quiet">{WHOM.more({ count: first.length - MOST_SHOWN })}</li>}
        {first.length === 0 && <li className="py-1 text-quiet">{WHOM.nobody}</li>}
      </ul>
    </div>
  );
}
