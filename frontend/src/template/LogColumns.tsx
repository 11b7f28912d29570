/** The columns of a log: named, typed, moved; then in which order the rows stand, and a target. */
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useFieldArray } from "react-hook-form";
import type { Control, UseFormRegister } from "react-hook-form";
import { TYPES } from "../log/cells";
import type { Column } from "../log/cells";
import { Button } from "../ui/Button";
import { client, data } from "../api/client";
import { newKey } from "../ui/newKey";
import { columnFields, newColumn } from "./fields";
import { OUTLINE } from "./outlineTexts";
import { PasteBox } from "./PasteBox";
import type { ColumnFields, Fields } from "./fields";
import { TEXTS } from "./texts";

interface Props {
  fields: Fields;
  control: Control<Fields>;
  register: UseFormRegister<Fields>;
  may: boolean;
  groupId: number;
}

/** The columns that a line of headings names, but for those that are there. */
async function headingsIn(groupId: number, text: string, there: ColumnFields[]): Promise<ColumnFields[]> {
  const found = await data(client.POST("/api/groups/{group_id}/template/columns/read", { params: { path: { group_id: groupId } }, body: { text } }));
  const names = new Set(there.map((one) => one.title.trim().toLocaleLowerCase()));
  return found.filter((one) => !names.has(one.title.toLocaleLowerCase())).map((one) => ({ ...columnFields(one), key: newKey() }));
}

const SMALL = "min-h-9 rounded-md border border-control bg-paper px-2 disabled:border-edge disabled:text-ink";
const ICON = "flex size-8 items-center justify-center rounded-sm text-ink-soft hover:bg-ground disabled:opacity-30";

export function LogColumns({ fields, control, register, may, groupId }: Props) {
  const { fields: rows, append, remove, move } = useFieldArray({ control, name: "columns", keyName: "id" });
  return (
    <fieldset className="flex flex-col gap-3 rounded-lg border border-edge bg-paper p-4">
      <legend className="px-1 font-bold">{TEXTS.columnsOfTheLog}</legend>
      <ol className="flex flex-col gap-2">
        {rows.map((row, at) => (
          <li key={row.id} aria-label={TEXTS.columnAt({ at: at + 1 })} className="flex flex-wrap items-center gap-2 border-b border-line pb-2 last:border-0">
            <input aria-label={TEXTS.headingOfColumnAt({ at: at + 1 })} {...register(`columns.${at}.title`)} autoComplete="off" placeholder={TEXTS.heading} className={`${SMALL} w-36 flex-1`} />
            <select aria-label={TEXTS.typeOfColumnAt({ at: at + 1 })} {...register(`columns.${at}.type`)} className={SMALL}>
              {(Object.keys(TYPES) as Column["type"][]).map((one) => (
                <option key={one} value={one}>
                  {TYPES[one]}
                </option>
              ))}
            </select>
            <label className="flex items-center gap-1.5">
              <input type="checkbox" className="size-4 accent-ink" {...register(`columns.${at}.required`)} />
              {TEXTS.needed}
            </label>
            {may && (
              <span className="ml-auto flex">
                <button type="button" aria-label={TEXTS.moveColumnAtUp({ at: at + 1 })} className={ICON} disabled={at === 0} onClick={() => move(at, at - 1)}>
                  <ArrowUp aria-hidden size={15} />
                </button>
                <button type="button" aria-label={TEXTS.moveColumnAtDown({ at: at + 1 })} className={ICON} disabled={at === rows.length - 1} onClick={() => move(at, at + 1)}>
                  <ArrowDown aria-hidden size={15} />
                </button>
                <button type="button" aria-label={TEXTS.takeAwayColumnAt({ at: at + 1 })} className={ICON} onClick={() => remove(at)}>
                  <Trash2 aria-hidden size={15} />
                </button>
              </span>
            )}
            <More column={fields.columns[at]} at={at} register={register} />
          </li>
        ))}
      </ol>
      {may && (
        <div className="flex flex-wrap gap-2">
          <Button icon={<Plus aria-hidden size={16} />} onClick={() => append(newColumn())}>
            {TEXTS.column}
          </Button>
          <PasteBox open={OUTLINE.headings} label={OUTLINE.headingsField} hint={OUTLINE.headingsHint} rows={2} onRead={async (text) => append(await headingsIn(groupId, text, fields.columns))} />
        </div>
      )}
      <Order columns={fields.columns} register={register} />
      <Target fields={fields} register={register} />
    </fieldset>
  );
}

/** What only some types have: a unit, choices, a length. */
function More({ column, at, register }: { column: ColumnFields | undefined; at: number; register: UseFormRegister<Fields> }) {
  if (column?.type === "number") {
    return (
      <label className="flex basis-full items-center gap-2">
        {TEXTS.newPattern}
        <input {...register(`columns.${at}.unit`)} autoComplete="off" className={`${SMALL} w-24`} />
      </label>
    );
  }
  if (column?.type === "choice") {
    return (
      <label className="flex basis-full flex-col">
        {TEXTS.choicesOneALine}
        <textarea rows={3} {...register(`columns.${at}.choices`)} className={`${SMALL} py-1`} />
      </label>
    );
  }
  if (column?.type !== "long_text") return null;
  return (
    <span className="flex basis-full flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        {TEXTS.itsLengthIs}
        <select {...register(`columns.${at}.measure`)} className={SMALL}>
          <option value="">{TEXTS.open}</option>
          <option value="sentences">{TEXTS.soManySentences}</option>
          <option value="words">{TEXTS.soManyWords}</option>
        </select>
      </label>
      {column.measure && (
        <>
          <label className="flex items-center gap-2">
            {TEXTS.from}
            <input type="number" min={1} {...register(`columns.${at}.least`)} className={`${SMALL} figures w-16`} />
          </label>
          <label className="flex items-center gap-2">
            {TEXTS.to}
            <input type="number" min={1} placeholder={TEXTS.open} {...register(`columns.${at}.most`)} className={`${SMALL} figures w-18`} />
          </label>
        </>
      )}
    </span>
  );
}

function Order({ columns, register }: { columns: ColumnFields[]; register: UseFormRegister<Fields> }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <label className="flex items-center gap-2">
        {TEXTS.rowsStandBy}
        <select {...register("order")} className={SMALL}>
          <option value="">{TEXTS.date}</option>
          {columns.map((one) => (
            <option key={one.key} value={one.key}>
              {one.title || "…"}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1.5">
        <input type="checkbox" className="size-4 accent-ink" {...register("newestFirst")} />
        {TEXTS.lastOneFirst}
      </label>
    </div>
  );
}

function Target({ fields, register }: { fields: Fields; register: UseFormRegister<Fields> }) {
  const numbers = fields.columns.filter((one) => one.type === "number");
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        {TEXTS.aTargetOf}
        <input inputMode="decimal" autoComplete="off" placeholder={TEXTS.none2} {...register("targetAmount")} className={`${SMALL} figures w-24`} />
      </label>
      <select aria-label={TEXTS.whatTheTargetCounts} {...register("targetColumn")} className={SMALL}>
        <option value="">{TEXTS.rows}</option>
        {numbers.map((one) => (
          <option key={one.key} value={one.key}>
            {one.unit ? `${one.title} (${one.unit})` : one.title || "…"}
          </option>
        ))}
      </select>
      <select aria-label={TEXTS.whenTheTargetIsTo} {...register("targetEach")} className={SMALL}>
        <option value="all">{TEXTS.overAll}</option>
        <option value="week">{TEXTS.eachWeek}</option>
      </select>
    </div>
  );
}
