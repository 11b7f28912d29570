/** To whom copies are given: the class, some periods and groups, or chosen students. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schema } from "../api/client";
import { boardQuery } from "../api/queries";
import type { Group } from "../api/session";
import { found } from "../ui/people/find";
import { listed } from "../ui/words";
import { GIVING } from "./texts";

/** The whole class, some periods and groups of it, or chosen students. */
export type Way = "all" | "some" | "students";

export interface Chosen {
  way: Way;
  periods: number[];
  groups: number[];
  students: number[];
}

interface Props {
  group: Group;
  periods: Schema["Named"][];
  groups: Schema["Named"][];
  to: Chosen;
  onTo: (to: Chosen) => void;
}

const toggled = (all: number[], id: number) => (all.includes(id) ? all.filter((one) => one !== id) : [...all, id]);

export function Whom({ group, periods, groups, to, onTo }: Props) {
  const places = [
    { name: "periods", of: periods.length > 1 ? periods : [] },
    { name: "groups", of: groups },
  ] as const;
  const ways: Way[] = places.some((one) => one.of.length > 0) ? ["all", "some", "students"] : ["all", "students"];
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="font-bold">{GIVING.whom}</legend>
      {ways.map((one) => (
        <label key={one} className="flex min-h-8 items-center gap-2">
          <input type="radio" className="size-4 accent-ink" checked={to.way === one} onChange={() => onTo({ ...to, way: one })} />
          {GIVING[one]}
        </label>
      ))}
      {to.way === "some" && (
        <div className="ml-6 flex max-h-40 flex-wrap gap-x-8 overflow-y-auto">
          {places.map(({ name, of }) => (
            <div key={name} className="flex flex-col">
              {of.map((one) => (
                <label key={one.id} className="flex min-h-8 items-center gap-2">
                  <input type="checkbox" className="size-4 accent-ink" checked={to[name].includes(one.id)} onChange={() => onTo({ ...to, [name]: toggled(to[name], one.id) })} />
                  {one.title}
                </label>
              ))}
            </div>
          ))}
        </div>
      )}
      {to.way === "students" && <Students groupId={group.id} chosen={to.students} onToggle={(id) => onTo({ ...to, students: toggled(to.students, id) })} />}
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
