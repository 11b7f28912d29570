/** Deeds on the chosen pegs: more time, excusing, handing in for them, sending back. */
import { useState } from "react";
import { readBoard } from "../api/board";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { DeedDialog, undoOf } from "../live/DeedDialog";
import type { Done } from "../live/DeedDialog";
import { DateField } from "../ui/days/DateField";
import { useSettled } from "../ui/useSettled";
import { useDraft } from "../writing/useDraft";
import { MANY } from "./manyTexts";

export type Deed = "move" | "excuse" | "end" | "for" | "back" | "accept" | "reopen";
type Cell = Schema["ChosenCellIn"];

interface Props {
  /** As they stood when they were chosen. */
  cells: Cell[];
  groupId: number;
  onClose: () => void;
  onDone: () => void;
}

/** Each deed's own dialog; what was seen is acted on, whatever others do meanwhile. */
export function ManyDialog({ deed, cells: now, ...props }: Props & { deed: Deed }) {
  const [cells] = useState(now);
  if (deed === "move") return <MoveDialog cells={cells} {...props} />;
  if (deed === "for") return <HandInForDialog cells={cells} {...props} />;
  if (deed === "back") return <SendBackDialog cells={cells} {...props} />;
  if (deed === "accept") return <AcceptDialog cells={cells} {...props} />;
  if (deed === "reopen") return <ReopenDialog cells={cells} {...props} />;
  return <ExcuseDialog excused={deed === "excuse"} cells={cells} {...props} />;
}

const path = (groupId: number) => ({ params: { path: { group_id: groupId } } });
const FIELD = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";

function ExcuseDialog({ excused, cells, groupId, ...props }: Props & { excused: boolean }) {
  const excuse = (of: Cell[], to: boolean, only_look = false) => answer(client.POST("/api/groups/{group_id}/cells/excused", { ...path(groupId), body: { cells: of, excused: to, only_look } }));
  /** The other way round, for cells as they stand by then. */
  const again = async (of: Cell[]) => {
    const board = await readBoard(groupId, undefined);
    const places = new Map(board.handins.map((one, place) => [one.id, place]));
    const rows = new Map(board.students.map((row) => [row.id, row]));
    return excuse(
      of.map((one) => ({ ...one, status: rows.get(one.enrolment)?.cells[places.get(one.handin) ?? -1]?.status ?? one.status })),
      !excused,
    );
  };
  const act = async (): Promise<Done> => {
    const done = await excuse(cells, excused);
    // Who was excused before stays so.
    const mine = cells.filter((one) => (one.status === "excused") !== excused);
    const [said, undone] = excused ? [MANY.excused, MANY.ended] : [MANY.ended, MANY.excused];
    return {
      said: said(done),
      back: async () => {
        await again(mine);
        return undone(done);
      },
    };
  };
  return (
    <DeedDialog
      title={excused ? MANY.excuseTitle : MANY.endTitle}
      groupId={groupId}
      lookKey={[cells]}
      look={() => excuse(cells, excused, true)}
      act={act}
      doIt={excused ? MANY.excuseThem : MANY.endThem}
      {...props}
    />
  );
}

interface Move {
  how: "days" | "day";
  days: string;
  day: string;
  at: string;
}

/** What of a move goes to the server; null while it says nothing yet. */
function moveOf({ how, days, day, at }: Move): { days: number } | { day: string; at: string | null } | null {
  if (how === "day") return day ? { day, at: at || null } : null;
  const number = Number(days);
  return Number.isInteger(number) && number > 0 ? { days: number } : null;
}

function MoveDialog({ cells, groupId, ...props }: Props) {
  const [move, setMove] = useState<Move>({ how: "days", days: "2", day: "", at: "" });
  const wanted = useSettled(moveOf(move));
  const moved = (only_look = false) => answer(client.POST("/api/groups/{group_id}/cells/due", { ...path(groupId), body: { cells, days: 0, ...wanted, only_look } }));
  const act = async (): Promise<Done> => {
    const done = await moved();
    return {
      said: MANY.moved(done),
      back: async () => {
        await answer(client.PUT("/api/groups/{group_id}/cells/due", { ...path(groupId), body: { before: done.before } }));
        return MANY.movedBack(done);
      },
    };
  };
  return (
    <DeedDialog
      title={MANY.moveTitle}
      groupId={groupId}
      lookKey={[wanted, cells]}
      ready={wanted !== null}
      settled={JSON.stringify(wanted) === JSON.stringify(moveOf(move))}
      look={() => moved(true)}
      act={act}
      doIt={MANY.moveThem}
      {...props}
    >
      <How move={move} onChange={setMove} />
    </DeedDialog>
  );
}

function How({ move, onChange }: { move: Move; onChange: (move: Move) => void }) {
  const choice = (how: Move["how"], label: string) => (
    <label className="flex min-h-9 items-center gap-2 font-bold">
      <input type="radio" name="how" className="accent-ink" checked={move.how === how} onChange={() => onChange({ ...move, how })} />
      {label}
    </label>
  );
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="sr-only">{MANY.moveTitle}</legend>
      {choice("days", MANY.byDays)}
      {move.how === "days" && (
        <div className="pl-6">
          <input
            aria-label={MANY.byDays}
            data-autofocus
            inputMode="numeric"
            autoComplete="off"
            value={move.days}
            onChange={(event) => onChange({ ...move, days: event.target.value })}
            className="figures min-h-9 w-20 rounded-md border border-control bg-paper px-3"
          />
          <p className="mt-1 text-quiet">{MANY.byDaysHint}</p>
        </div>
      )}
      {choice("day", MANY.toDay)}
      {move.how === "day" && <DayAndTime day={move.day} at={move.at} onChange={(to) => onChange({ ...move, ...to })} hint={MANY.orEndOfDay} className="pl-6" />}
    </fieldset>
  );
}

interface Moment {
  day: string;
  at: string;
}

function DayAndTime({ day, at, onChange, hint, className = "" }: Moment & { onChange: (to: Partial<Moment>) => void; hint: string; className?: string }) {
  return (
    <div className={`grid grid-cols-2 gap-3 ${className}`}>
      <DateField label={MANY.day} value={day} onChange={(to) => onChange({ day: to })} />
      <label className="font-bold">
        {MANY.at} <span className="font-normal text-quiet">{hint}</span>
        <input type="time" value={at} onChange={(event) => onChange({ at: event.target.value })} className={FIELD} />
      </label>
    </div>
  );
}

const WAYS = ["paper", "mail", "other"] as const;

function HandInForDialog({ cells, groupId, ...props }: Props) {
  const [how, setHow] = useState<(typeof WAYS)[number]>("paper");
  const [when, setWhen] = useState<Moment>({ day: "", at: "" });
  const settled = useSettled(when);
  const send = (only_look: boolean) => answer(client.POST("/api/groups/{group_id}/cells/handed-in", { ...path(groupId), body: { cells, how, day: settled.day || null, at: settled.at || null, only_look } }));
  const act = async (): Promise<Done> => {
    const done = await send(false);
    return { said: MANY.handedInFor(done), back: undoOf("handed-in", groupId, done.deed) };
  };
  return (
    <DeedDialog
      title={MANY.forTitle}
      groupId={groupId}
      lookKey={[how, settled, cells]}
      settled={settled.day === when.day && settled.at === when.at}
      look={() => send(true)}
      act={act}
      doIt={MANY.handInForThem}
      {...props}
    >
      <fieldset>
        <legend className="font-bold">{MANY.itCame}</legend>
        <div className="mt-1 flex flex-wrap gap-x-5">
          {WAYS.map((one, place) => (
            <label key={one} className="flex min-h-9 items-center gap-2">
              <input type="radio" name="way" className="accent-ink" data-autofocus={place === 0 || undefined} checked={how === one} onChange={() => setHow(one)} />
              {MANY.ways[one]}
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="font-bold">
          {MANY.received} <span className="font-normal text-quiet">{MANY.receivedHint}</span>
        </legend>
        <DayAndTime {...when} onChange={(to) => setWhen({ ...when, ...to })} hint={MANY.orEndOfDay} />
      </fieldset>
      <p className="text-quiet">{MANY.forHint}</p>
    </DeedDialog>
  );
}

function AcceptDialog({ cells, groupId, ...props }: Props) {
  const [words, setWords] = useState("");
  const drop = useDraft(`accept/${groupId}`, words, 0, words !== "", setWords);
  const send = (only_look: boolean, feedback: string) => answer(client.POST("/api/groups/{group_id}/cells/accepted", { ...path(groupId), body: { cells, feedback, only_look } }));
  const act = async (): Promise<Done> => {
    const done = await send(false, words);
    drop();
    return { said: MANY.accepted(done), back: undoOf("accepted", groupId, done.deed) };
  };
  return (
    <DeedDialog title={MANY.acceptTitle} groupId={groupId} lookKey={[cells]} look={() => send(true, "")} act={act} doIt={MANY.acceptThem} {...props}>
      <WordsToAll label={MANY.wordsToAll} words={words} onChange={setWords} />
      <p className="text-quiet">{MANY.acceptHint}</p>
    </DeedDialog>
  );
}

function ReopenDialog({ cells, groupId, ...props }: Props) {
  const send = (only_look: boolean) => answer(client.POST("/api/groups/{group_id}/cells/reopened", { ...path(groupId), body: { cells, only_look } }));
  const act = async (): Promise<Done> => {
    const done = await send(false);
    return { said: MANY.reopened(done), back: undoOf("reopened", groupId, done.deed) };
  };
  return (
    <DeedDialog title={MANY.reopenTitle} groupId={groupId} lookKey={[cells]} look={() => send(true)} act={act} doIt={MANY.reopenThem} {...props}>
      <p className="text-quiet">{MANY.reopenHint}</p>
    </DeedDialog>
  );
}

function WordsToAll({ label, words, onChange }: { label: string; words: string; onChange: (words: string) => void }) {
  return (
    <label className="font-bold">
      {label} <span className="font-normal text-quiet">{MANY.wordsToAllHint}</span>
      <textarea data-autofocus rows={4} value={words} onChange={(event) => onChange(event.target.value)} className="mt-1 block w-full rounded-md border border-control bg-paper p-3 font-normal" />
    </label>
  );
}

function SendBackDialog({ cells, groupId, ...props }: Props) {
  const [words, setWords] = useState("");
  const [day, setDay] = useState("");
  const drop = useDraft(`send-back/${groupId}`, words, 0, words !== "", setWords);
  const settled = useSettled(day);
  const send = (only_look: boolean, feedback: string) => answer(client.POST("/api/groups/{group_id}/cells/sent-back", { ...path(groupId), body: { cells, feedback, due_again: settled || null, only_look } }));
  const act = async (): Promise<Done> => {
    const done = await send(false, words);
    drop();
    return { said: MANY.sentBack(done), back: undoOf("sent-back", groupId, done.deed) };
  };
  return (
    <DeedDialog
      title={MANY.backTitle}
      groupId={groupId}
      lookKey={[settled, cells]}
      settled={settled === day}
      look={() => send(true, "")}
      act={act}
      doIt={MANY.sendThemBack}
      {...props}
    >
      <WordsToAll label={MANY.whatToDo} words={words} onChange={setWords} />
      <DateField label={MANY.again} hint={MANY.againHint} value={day} onChange={setDay} />
      <p className="text-quiet">{MANY.backHint}</p>
    </DeedDialog>
  );
}
