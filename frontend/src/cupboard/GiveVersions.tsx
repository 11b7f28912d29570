/** Several things of the cupboard of which each student gets one, and how they are dealt. */
import { useQuery } from "@tanstack/react-query";
import { Shuffle, X } from "lucide-react";
import type { Schema } from "../api/client";
import { boardQuery } from "../api/queries";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { listed } from "../ui/words";
import type { Item, OpenedItem } from "./queries";
import { GIVING } from "./texts";

export type Dealing = Schema["GivenVersionsIn"];
type Version = Dealing["versions"][number];

interface Props {
  item: OpenedItem;
  group: Group;
  periods: Schema["Named"][];
  groups: Schema["Named"][];
  items: Item[];
  dealing: Dealing | null;
  /** What it would do, as far as that is known. */
  impact: Schema["GivingImpact"] | null;
  onDealing: (dealing: Dealing | null) => void;
}

const FIELD = "flex min-h-9 items-center rounded-md border border-control bg-paper px-2 font-normal";
const MOST = 12;
const LETTERS = 26;
const FIRST_LETTER = 65;

const letter = (at: number) => String.fromCharCode(FIRST_LETTER + at);
const drawn = () => Math.floor(Math.random() * 2 ** 31);

/** The alphabet in as many even parts as there are versions. */
function evenly(versions: Version[]): Version[] {
  const bound = (at: number) => Math.round((at * LETTERS) / versions.length);
  return versions.map((one, at) => ({ ...one, first: letter(bound(at)), last: letter(bound(at + 1) - 1) }));
}

export function GiveVersions(props: Props) {
  const { item, dealing, onDealing } = props;
  const begin = (several: boolean) => onDealing(several ? { by: "random", seed: drawn(), versions: [{ item: item.id, first: "", last: "", places: [] }], hand: {} } : null);
  return (
    <fieldset className="flex flex-col gap-2">
      <label className="flex min-h-8 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={dealing !== null} onChange={(event) => begin(event.target.checked)} />
        {GIVING.several}
      </label>
      {dealing && <Several {...props} dealing={dealing} />}
    </fieldset>
  );
}

function Several({ item, group, periods, groups, items, dealing, impact, onDealing }: Props & { dealing: Dealing }) {
  const { versions, by } = dealing;
  const set = (next: Version[]) => {
    const hand = Object.fromEntries(Object.entries(dealing.hand).filter(([, of]) => next.some((one) => one.item === of)));
    onDealing({ ...dealing, hand, versions: by === "surname" && next.length !== versions.length ? evenly(next) : next });
  };
  const choose = (way: Dealing["by"]) => onDealing({ ...dealing, by: way, versions: way === "surname" ? evenly(versions) : versions.map((one) => ({ ...one, places: [] })) });
  const titled = (id: number) => (id === item.id ? item.title : (items.find((one) => one.id === id)?.title ?? ""));
  const others = items.filter((one) => !versions.some((of) => of.item === one.id));
  const change = (at: number, changed: Partial<Version>) => set(versions.map((one, place) => (place === at ? { ...one, ...changed } : one)));
  return (
    <div className="ml-6 flex flex-col gap-2 border-l-2 border-line pl-4">
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          {GIVING.dealt}
          <select value={by} onChange={(event) => choose(event.target.value as Dealing["by"])} className={FIELD}>
            {(Object.keys(GIVING.dealtBy) as Dealing["by"][]).map((way) => (
              <option key={way} value={way}>
                {GIVING.dealtBy[way]}
              </option>
            ))}
          </select>
        </label>
        {by === "random" && (
          <Button icon={<Shuffle aria-hidden size={16} />} onClick={() => onDealing({ ...dealing, seed: drawn() })}>
            {GIVING.dealAgain}
          </Button>
        )}
      </div>
      <ol className="flex flex-col gap-1">
        {versions.map((one, at) => (
          <li key={one.item} className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <span className="min-w-32 flex-1 font-semibold break-words">{titled(one.item)}</span>
            {by === "surname" && <Range title={titled(one.item)} version={one} onChange={(range) => change(at, range)} />}
            {(by === "period" || by === "group") && <Places title={titled(one.item)} of={by === "period" ? periods : groups} chosen={one.places} onChange={(places) => change(at, { places })} />}
            {at > 0 && (
              <button type="button" aria-label={GIVING.dropVersion({ title: titled(one.item) })} className="flex size-8 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={() => set(versions.toSpliced(at, 1))}>
                <X aria-hidden size={15} />
              </button>
            )}
          </li>
        ))}
      </ol>
      {versions.length < MOST && others.length > 0 && (
        <select aria-label={GIVING.addVersion} value="" onChange={(event) => set([...versions, { item: Number(event.target.value), first: "", last: "", places: [] }])} className={`${FIELD} max-w-full self-start`}>
          <option value="">{GIVING.addVersion}</option>
          {others.map((one) => (
            <option key={one.id} value={one.id}>
              {one.title}
            </option>
          ))}
        </select>
      )}
      {versions.length < 2 && <p className="text-sm text-ink-soft">{GIVING.twoAtLeast}</p>}
      {by === "hand" && versions.length > 1 && <ByHand groupId={group.id} dealing={dealing} gets={impact?.gets.map((one) => one.id) ?? []} titled={titled} onDealing={onDealing} />}
    </div>
  );
}

function Range({ title, version, onChange }: { title: string; version: Version; onChange: (range: Partial<Version>) => void }) {
  const field = `${FIELD} inline-block w-14 uppercase`;
  return (
    <span className="flex items-center gap-2">
      {GIVING.from}
      <input aria-label={GIVING.versionFrom({ title })} value={version.first} maxLength={3} autoComplete="off" onChange={(event) => onChange({ first: event.target.value })} className={field} />
      {GIVING.to_}
      <input aria-label={GIVING.versionTo({ title })} value={version.last} maxLength={3} autoComplete="off" onChange={(event) => onChange({ last: event.target.value })} className={field} />
    </span>
  );
}

function Places({ title, of, chosen, onChange }: { title: string; of: Schema["Named"][]; chosen: number[]; onChange: (chosen: number[]) => void }) {
  if (of.length === 0) return <span className="text-quiet">{GIVING.noPlaces}</span>;
  return (
    <span role="group" aria-label={GIVING.whoGets({ title })} className="flex flex-wrap gap-x-4">
      {of.map((one) => (
        <label key={one.id} className="flex min-h-8 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={chosen.includes(one.id)} onChange={() => onChange(chosen.includes(one.id) ? chosen.filter((id) => id !== one.id) : [...chosen, one.id])} />
          {one.title}
        </label>
      ))}
    </span>
  );
}

interface ByHandProps {
  groupId: number;
  dealing: Dealing;
  /** Those who get one (enrolments). */
  gets: number[];
  titled: (item: number) => string;
  onDealing: (dealing: Dealing) => void;
}

/** Which version each gets, by name. */
function ByHand({ groupId, dealing, gets, titled, onDealing }: ByHandProps) {
  const board = useQuery(boardQuery(groupId));
  const students = (board.data?.students ?? []).filter((one) => gets.includes(one.id) || dealing.hand[one.id] !== undefined);
  return (
    <ul aria-label={GIVING.dealtBy.hand} className="grid max-h-48 gap-x-6 gap-y-1 overflow-y-auto sm:grid-cols-2">
      {students.map((one) => (
        <li key={one.id} className="flex items-center justify-between gap-2">
          <span className="min-w-0 truncate" title={listed(one)}>
            {listed(one)}
          </span>
          <select
            aria-label={GIVING.whichFor({ name: listed(one) })}
            value={dealing.hand[one.id] ?? dealing.versions[0]?.item}
            onChange={(event) => onDealing({ ...dealing, hand: { ...dealing.hand, [one.id]: Number(event.target.value) } })}
            className={`${FIELD} w-40 shrink-0 whitespace-nowrap`}
          >
            {dealing.versions.map((of) => (
              <option key={of.item} value={of.item}>
                {titled(of.item)}
              </option>
            ))}
          </select>
        </li>
      ))}
    </ul>
  );
}
