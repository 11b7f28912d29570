/** Two independent marks side by side, the differences lit, and the one mark that both agree on. */
import { Check, Undo2 } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useDraft } from "../writing/useDraft";
import type { Problem } from "../api/problem";
import { packed, unpacked } from "../submission/mark";
import type { Fields } from "../submission/mark";
import { RUBRIC } from "../submission/rubricTexts";
import { RubricLevels } from "./RubricLevels";
import { TEXTS } from "./texts";
import { TWO } from "./twoTexts";

type Desk = Schema["Desk"];
type Mark = Schema["MarkShape"];
type Rubric = Schema["RubricShape"];

const FIELD = "mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal";

interface Props {
  desk: Desk;
  marks: Mark[];
  busy: boolean;
  problem: Problem | null;
  onAccept: (fields: Fields) => void;
  onSendBack: (fields: Fields) => void;
}

/** What both have given alike; where they differ nothing is chosen yet. */
function begun(desk: Desk, marks: Mark[]): Fields {
  const [one, other] = marks;
  const same = Object.entries(one?.levels ?? {}).filter(([key, level]) => String(level) === String(other?.levels[key]));
  return {
    feedback: marks.map((each) => each.feedback.trim()).filter(Boolean).join("\n\n"),
    score: !desk.handin.rubric && one?.score !== null && one?.score === other?.score ? String(one?.score) : "",
    levels: Object.fromEntries(same),
    own: "",
    why: "",
  };
}

export function Agreeing({ desk, marks, busy, problem, onAccept, onSendBack }: Props) {
  const [fields, setFields] = useState(() => begun(desk, marks));
  const text = packed(fields);
  useDraft(`agreed/${desk.id}`, text, 0, text !== packed(begun(desk, marks)), (kept) => setFields(unpacked(kept)));
  const change = (next: Partial<Fields>) => setFields((now) => ({ ...now, ...next }));
  const rubric = desk.handin.rubric ?? null;
  const points = desk.handin.points ?? null;
  return (
    <>
      <div className="flex flex-1 flex-col gap-4 p-4">
        <h3 className="text-base">{TWO.agree}</h3>
        <Compared rubric={rubric} points={points} marks={marks} onTake={(one) => change({ levels: { ...fields.levels, ...one.levels }, score: one.score === null || rubric ? fields.score : String(one.score) })} />
        {rubric && <RubricLevels rubric={rubric} levels={fields.levels} own={desk.judged} ownIs={RUBRIC.theirs({ name: desk.student.given_name })} score={null} points={points} onChange={(levels) => change({ levels })} />}
        {!rubric && points !== null && (
          <label className="block font-bold">
            {TEXTS.score} <span className="font-normal text-quiet">{TEXTS.ofPointsPoints({ points })}</span>
            <input value={fields.score} inputMode="decimal" autoComplete="off" onChange={(event) => change({ score: event.target.value })} className={`${FIELD} figures max-w-28`} />
          </label>
        )}
        <label className="block font-bold">
          {TEXTS.feedback}
          <span className="block text-sm font-normal text-quiet">{TWO.joined}</span>
          <textarea rows={8} value={fields.feedback} onChange={(event) => change({ feedback: event.target.value })} className={FIELD} />
        </label>
        {problem && <Notice title={problem.title} fix={problem.fix} />}
      </div>
      <div className="sticky bottom-0 low:static flex flex-col gap-2 border-t border-line bg-paper p-4">
        <Button look="main" className="min-h-10" icon={<Check aria-hidden size={18} />} disabled={busy} onClick={() => onAccept(fields)}>
          {TEXTS.accept}
        </Button>
        <Button className="min-h-9" icon={<Undo2 aria-hidden size={16} />} disabled={busy} onClick={() => onSendBack(fields)}>
          {TEXTS.sendBack}
        </Button>
      </div>
    </>
  );
}

function named(one: Mark): string {
  return one.mine ? TWO.you({ who: one.who }) : one.who;
}

/** Row by row what each gave; what differs is lit. */
function Compared({ rubric, points, marks, onTake }: { rubric: Rubric | null; points: number | null; marks: Mark[]; onTake: (one: Mark) => void }) {
  const titles = new Map(rubric?.levels.map((one) => [one.key, one.title]));
  const level = (one: Mark, key: string) => (one.levels[key]?.length ? one.levels[key].map((each) => titles.get(each) ?? each.replace("=", "")).join(" – ") : TWO.notJudged);
  const rows = (rubric?.criteria ?? []).map((one) => ({ key: one.key, title: one.title, given: marks.map((mark) => level(mark, one.key)) }));
  if (points !== null) rows.push({ key: "", title: TWO.score, given: marks.map((mark) => String(mark.score ?? "–")) });
  return (
    <table aria-label={TWO.differ} className="w-full table-fixed border-collapse text-sm">
      <thead>
        <tr>
          <th scope="col" className="py-1 pr-2 text-left font-normal text-quiet">
            {rubric ? TWO.criterion : ""}
          </th>
          {marks.map((one) => (
            <th key={one.who} scope="col" className="px-1 py-1 text-left align-bottom break-words">
              {named(one)}
              <Button look="quiet" className="-ml-3 text-xs" aria-label={TWO.takeAllOf({ who: one.who })} onClick={() => onTake(one)}>
                {TWO.takeAll}
              </Button>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => {
          const differs = new Set(row.given).size > 1;
          return (
            <tr key={row.key} className={`border-t border-line ${differs ? "bg-today" : ""}`}>
              <th scope="row" className="py-1 pr-2 text-left font-normal break-words">
                {row.title}
              </th>
              {row.given.map((one, at) => (
                <td key={at} className={`figures break-words px-1 py-1 ${differs ? "font-bold" : ""}`}>
                  {one}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
