/** The hand-ins of a class, and the form for a new one beside them. */
import { useQuery } from "@tanstack/react-query";
import { CalendarArrowDown, CopyPlus, Plus } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { handinsQuery } from "../api/queries";
import { Rail } from "../app/Rail";
import { may, useGroupId, useSession } from "../api/session";
import { patiently } from "../api/patiently";
import { GivenPart } from "../cupboard/GivenPart";
import { useAddress } from "../ui/address";
import { Button } from "../ui/Button";
import { due } from "../ui/dates";
import { Failed, Waiting } from "../ui/Waiting";
import { Drafts } from "./Drafts";
import { HandInPanel } from "./HandInForm";
import type { From } from "./HandInForm";
import { RowActions, TakenAway } from "./RowActions";
import { CHANGE, DRAFT, MOVE, TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

const LayOutDialog = lazy(() => patiently(() => import("./LayOutDialog")).then((view) => ({ default: view.LayOutDialog })));
const MoveOnDialog = lazy(() => patiently(() => import("./MoveOnDialog")).then((view) => ({ default: view.MoveOnDialog })));

type Column = Schema["ColumnShape"];

// eslint-disable-next-line complexity -- one branch for each state of the page and its form
export function HandInsView() {
  const groupId = useGroupId();
  const found = useQuery(handinsQuery(groupId));
  const [address, setAddress] = useAddress();
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const from = found.data.may_set ? fromAddress(address) : null;
  const making = from !== null;
  const selected = Number(address.get("handin")) || null;
  const close = () => setAddress((old) => new URLSearchParams([...old].filter(([key]) => !FORM.includes(key))));
  const set = (key: string, value: string | null) =>
    setAddress((old) => {
      const next = new URLSearchParams(old);
      if (value) next.set(key, value);
      else next.delete(key);
      return next;
    });
  return (
    <>
      <Rail frame={found.data} selected={selected} onSelect={(id) => set("handin", id ? String(id) : null)} />
      <div className="flex min-h-0 flex-1 gap-4 p-5 max-lg:flex-col lg:overflow-hidden">
        <section aria-labelledby="handins" className={`flex min-w-0 flex-1 flex-col gap-3 lg:overflow-y-auto ${making ? "max-lg:hidden" : ""}`}>
          <Head mayMake={found.data.may_set && !making} some={found.data.handins.length > 0} groupId={groupId} />
          <Table data={found.data} groupId={groupId} selected={from?.what === "change" ? from.id : selected} narrow={making} />
          {found.data.drafts.length > 0 && <Drafts lines={found.data.drafts} groupId={groupId} may={found.data.may_set} />}
          <GivenPart groupId={groupId} />
          {found.data.taken_away.length > 0 && <TakenAway lines={found.data.taken_away} groupId={groupId} may={found.data.may_set} />}
        </section>
        {from && <HandInPanel key={JSON.stringify(from)} data={found.data} groupId={groupId} from={from} onClose={close} />}
      </div>
    </>
  );
}

function Head({ mayMake, some, groupId }: { mayMake: boolean; some: boolean; groupId: number }) {
  const [moving, setMoving] = useState(false);
  const [laying, setLaying] = useState(false);
  const others = useSession().groups.some((one) => one.id !== groupId && may(one, "see_handins"));
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-2">
      <h1 id="handins" className="mr-auto text-xl">
        {TEXTS.handIns}
      </h1>
      {mayMake && some && (
        <Button icon={<CalendarArrowDown aria-hidden size={16} />} onClick={() => setMoving(true)}>
          {MOVE.open}
        </Button>
      )}
      {mayMake && others && (
        <Button icon={<CopyPlus aria-hidden size={16} />} onClick={() => setLaying(true)}>
          {DRAFT.from}
        </Button>
      )}
      {laying && (
        <Suspense>
          <LayOutDialog groupId={groupId} onClose={() => setLaying(false)} />
        </Suspense>
      )}
      {moving && (
        <Suspense>
          <MoveOnDialog groupId={groupId} onClose={() => setMoving(false)} />
        </Suspense>
      )}
      {mayMake && (
        <Link
          to="?new=1"
          className="inline-flex min-h-8 items-center gap-2 rounded-md bg-copper px-3 font-semibold text-paper hover:bg-copper-deep"
        >
          <Plus aria-hidden size={16} />
          {TEXTS.newHandIn}
        </Link>
      )}
    </div>
  );
}

/** What of the address belongs to the form. */
const FORM = ["new", "like", "change", "pocket"];

function fromAddress(address: URLSearchParams): From | null {
  const changed = Number(address.get("change"));
  if (changed) return { what: "change", id: changed };
  if (address.get("new") !== "1") return null;
  const like = Number(address.get("like"));
  return like ? { what: "like", id: like } : { what: "new", pocket: Number(address.get("pocket")) };
}

interface TableProps {
  data: Schema["HandInsShape"];
  groupId: number;
  selected: number | null;
  narrow: boolean;
}

function Table({ data, groupId, selected, narrow }: TableProps) {
  if (data.handins.length === 0) {
    return (
      <p className="rounded-lg border border-edge bg-paper p-8 text-center text-base">
        {TEXTS.nothingIsAskedForYet({ may_setIs: data.may_set })}
      </p>
    );
  }
  const titles = new Map(data.pockets.map((pocket) => [pocket.id, pocket.title]));
  return (
    <div className="relative shrink-0 overflow-x-auto rounded-lg border border-edge bg-paper">
      <table className="w-full border-collapse text-left">
        <thead className="bg-ground">
          <tr>
            {[TEXTS.handIn, TEXTS.due, TEXTS.for, TEXTS.in, TEXTS.toMark, TEXTS.sentBack, TEXTS.overdue].map((head, place) => (
              <th key={head} scope="col" className={`px-3 py-2 ${place > 2 ? "text-right" : ""} ${narrow && place > 3 ? "xl:hidden" : ""}`}>
                {head}
              </th>
            ))}
            {data.may_set && (
              <th scope="col" className="px-3 py-2">
                <span className="sr-only">{CHANGE.change}</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {data.handins.map((one) => (
            <Line key={one.id} one={one} titles={titles} groupId={groupId} chosen={one.id === selected} narrow={narrow} may={data.may_set} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface LineProps {
  one: Column;
  titles: Map<number, string>;
  groupId: number;
  chosen: boolean;
  narrow: boolean;
  may: boolean;
}

function Line({ one, titles, groupId, chosen, narrow, may }: LineProps) {
  const pockets = one.pockets.map((id) => titles.get(id)).filter(Boolean);
  const shown = pockets.length > 3 ? COUNTED.pockets({ count: pockets.length }) : pockets.join(", ");
  const counts = [one.to_mark, one.sent_back, one.overdue];
  return (
    <tr className={`border-t border-line align-top ${chosen ? "bg-today" : ""}`}>
      <td className="min-w-44 px-3 py-2">
        <Link to={`/g/${groupId}/pegs?handin=${one.id}`} className="font-bold text-in underline">
          {one.title}
        </Link>
        <span className="block text-quiet">
          {shown}
          {one.points !== null && ` · ${COUNTED.points({ count: one.points })}`}
        </span>
      </td>
      <td className="figures px-3 py-2 whitespace-nowrap">
        {one.due ? due(one.due, one.due_time) : TEXTS.noDueDate}
        {one.several_dues && <span className="block text-quiet">{TEXTS.andByPeriod}</span>}
        {one.closed && <span className="block font-semibold text-ink-soft">{TEXTS.closed}</span>}
      </td>
      <td className="px-3 py-2 whitespace-nowrap">{COUNTED.students({ count: one.asked })}</td>
      <td className="figures px-3 py-2 text-right whitespace-nowrap">{one.open ? TEXTS.inOfAsked({ in: one.in, asked: one.asked }) : TEXTS.opensLater}</td>
      {counts.map((count, place) => (
        <td
          key={place}
          className={`figures px-3 py-2 text-right ${narrow ? "xl:hidden" : ""} ${count ? (place === 2 ? "font-bold text-overdue" : "font-bold") : "text-quiet"}`}
        >
          {count || "–"}
        </td>
      ))}
      {may && (
        <td className="px-2 py-1">
          <RowActions one={one} groupId={groupId} />
        </td>
      )}
    </tr>
  );
}
