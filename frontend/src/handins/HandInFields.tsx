/** The fields of a hand-in. */
import { useFieldArray, useWatch } from "react-hook-form";
import type { Control, UseFormRegister, UseFormReturn } from "react-hook-form";
import type { Schema } from "../api/client";
import { useGroupId } from "../api/session";
import { upload } from "../api/upload";
import { FormDate } from "../ui/days/DateField";
import { useSay } from "../ui/Toasts";
import { GivenField } from "../viewer/GivenField";
import type { Given } from "../viewer/GivenField";
import { RichField } from "../writing/rich/RichField";
import type { Fields } from "./plan";
import { RubricFields } from "./RubricFields";
import { SERIES, TEXTS } from "./texts";
import { Whom } from "./Whom";

type Data = Schema["HandInsShape"];

const FIELD = "mt-1 flex min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";
const LABEL = "font-bold";

interface Props {
  data: Data;
  form: UseFormReturn<Fields>;
  /** The hand-in that is changed, as it is one of a series or not; null for a new one. */
  series: Pick<Schema["PlanShape"], "others" | "later"> | null;
}

export function HandInFields({ data, form, series }: Props) {
  const fields = useWatch({ control: form.control }) as Fields;
  return (
    <>
      {series && series.others > 0 && <Scope series={series} form={form} />}
      <label className={LABEL}>
        {TEXTS.title}
        <input {...form.register("title")} className={FIELD} autoComplete="off" />
      </label>
      {!(fields.anything && fields.pockets.length === 0) && <Pockets data={data} control={form.control} onChange={(chosen) => choose(data, form, chosen)} />}
      <Along data={data} form={form} chosen={fields.pockets} />
      {fields.pockets.length === 0 && <Anything form={form} chosen={fields.anything} />}
      <FormDate label={TEXTS.opens} control={form.control} name="opens" />
      <Moment label={TEXTS.due} form={form} day="day" time="time" />
      {!series && fields.day && <Repeat form={form} every={fields.every} units={data.pockets.some((one) => one.of_unit && fields.pockets.includes(one.id))} />}
      {data.all_periods.length > 0 && <Periods fields={fields} register={form.register} control={form.control} />}
      <Whom data={data} form={form} />
      <label className={LABEL}>
        {TEXTS.points}{" "}<span className="font-normal text-quiet">{TEXTS.mayStayEmpty}</span>
        <input {...form.register("points")} inputMode="decimal" autoComplete="off" className={`${FIELD} figures max-w-28`} />
      </label>
      <RubricFields rubric={fields.rubric} onChange={(rubric) => form.setValue("rubric", rubric, { shouldDirty: true })} />
      <More form={form} fields={fields} />
    </>
  );
}

/** A day with a time that may be left out. */
function Moment({ label, form, day, time }: { label: string; form: UseFormReturn<Fields>; day: "day" | "closes"; time: "time" | "closesTime" }) {
  const groupId = useGroupId();
  return (
    <div className="grid grid-cols-2 gap-3">
      <FormDate label={label} control={form.control} name={day} loadOf={day === "day" ? groupId : undefined} />
      <label className={LABEL}>
        {TEXTS.at}{" "}<span className="font-normal text-quiet">{TEXTS.orEndOfDay}</span>
        <input type="time" {...form.register(time)} className={FIELD} />
      </label>
    </div>
  );
}

/** The same again every week, every second one, or for the units that come after. */
function Repeat({ form, every, units }: { form: UseFormReturn<Fields>; every: Fields["every"]; units: boolean }) {
  const choices = (["0", "1", "2", "unit"] as const).filter((one) => one !== "unit" || units || every === "unit");
  return (
    <div className="grid grid-cols-2 gap-3">
      <label className={`${LABEL} min-w-0`}>
        {SERIES.again}
        <select {...form.register("every")} className={FIELD}>
          {choices.map((one) => (
            <option key={one} value={one}>
              {SERIES.every[one]}
            </option>
          ))}
        </select>
      </label>
      {(every === "1" || every === "2") && <FormDate label={SERIES.until} control={form.control} name="until" />}
      {every === "unit" && <p className="col-span-2 text-quiet">{SERIES.unitHint}</p>}
    </div>
  );
}

/** Which of its series a change is for. */
function Scope({ series, form }: { series: NonNullable<Props["series"]>; form: UseFormReturn<Fields> }) {
  const choice = (value: NonNullable<Fields["scope"]>, label: string) => (
    <label className="flex min-h-7 items-center gap-2">
      <input type="radio" className="accent-ink" value={value} {...form.register("scope")} />
      {label}
    </label>
  );
  return (
    <fieldset className="rounded-md bg-in-soft p-3">
      <legend className="float-left mb-1 w-full font-bold">{SERIES.scope}</legend>
      <div className="clear-both">
        {choice("one", SERIES.one)}
        {series.later > 0 && choice("on", SERIES.on({ count: series.later }))}
        {choice("all", SERIES.all({ count: series.others + 1 }))}
      </div>
      <p className="text-quiet">{SERIES.hint}</p>
    </fieldset>
  );
}

/** What most hand-ins leave as it is; it stands open where one does not. */
function More({ form, fields }: { form: UseFormReturn<Fields>; fields: Fields }) {
  return (
    <details open={Boolean(fields.directions || fields.files.length > 0 || fields.modelAnswer || fields.closes || fields.opensAgain || fields.again || !fields.takeBack) || undefined}>
      <summary className={`${LABEL} cursor-pointer`}>{TEXTS.more}</summary>
      <div className="mt-3 flex flex-col gap-4">
        <RichField label={TEXTS.directions} control={form.control} name="directions" may />
        <Files form={form} files={fields.files} />
        <div>
          <RichField label={TEXTS.modelAnswer} control={form.control} name="modelAnswer" may />
          {fields.modelAnswer ? <FormDate label={TEXTS.modelFrom} control={form.control} name="modelFrom" /> : null}
          <p className="mt-1 text-quiet">{TEXTS.modelHint}</p>
        </div>
        <div>
          <Moment label={TEXTS.closes} form={form} day="closes" time="closesTime" />
          <p className="mt-1 text-quiet">{TEXTS.closesHint}</p>
          {fields.closes && (
            <label className={`${LABEL} mt-3 block`}>
              {TEXTS.onceClosed}
              <select {...form.register("closing")} className={FIELD}>
                {CLOSINGS.map((one) => (
                  <option key={one} value={one}>
                    {TEXTS.closings[one]}
                  </option>
                ))}
              </select>
            </label>
          )}
        </div>
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("takeBack")} />
          {TEXTS.takeBack}
        </label>
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("again")} />
          {TEXTS.again}
        </label>
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("opensAgain")} />
          {TEXTS.opensAgain}
        </label>
      </div>
    </details>
  );
}

/** Pictures and files beside the directions: kept as they are chosen, given as the hand-in is set. */
function Files({ form, files }: { form: UseFormReturn<Fields>; files: Given[] }) {
  const groupId = useGroupId();
  const say = useSay();
  const put = (change: (now: Given[]) => Given[]) => form.setValue("files", change(form.getValues("files")), { shouldDirty: true });
  const give = async (file: File) => {
    const made = await upload<Given>(`/api/groups/${groupId}/handins/files`, file);
    put((now) => [...now, made]);
  };
  const takeAway = (one: Given) => {
    put((now) => now.filter((other) => other.id !== one.id));
    say(TEXTS.fileTakenAway(one), () => put((now) => [...now.filter((other) => other.id !== one.id), one]));
  };
  return <GivenField files={files} title={TEXTS.files} hint={TEXTS.filesHint} may onGive={give} onTakeAway={takeAway} />;
}

const CLOSINGS = ["nothing", "lock_in", "lock_all", "closed"] as const;

function Pockets({ data, control, onChange }: { data: Data; control: Control<Fields>; onChange: (ids: number[]) => void }) {
  const chosen = useWatch({ control, name: "pockets" });
  const sections = [...new Set(data.pockets.map((pocket) => pocket.section))];
  const toggle = (id: number) => onChange(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  const all = data.pockets.map((one) => one.id);
  return (
    <fieldset>
      <legend className={LABEL}>{TEXTS.pocketsItCollects}</legend>
      <div className="mt-1 max-h-44 overflow-y-auto rounded-md border border-control px-3 py-1">
        {all.length > 1 && <AllOf label={TEXTS.wholePortfolio} ids={all} chosen={chosen} onChange={onChange} />}
        {sections.map((section) => {
          const inside = data.pockets.filter((pocket) => pocket.section === section);
          return (
            <div key={section} className="py-1">
              {inside.length > 1 ? (
                <AllOf label={section} heard={TEXTS.allOfSection({ section })} ids={inside.map((one) => one.id)} chosen={chosen} onChange={onChange} />
              ) : (
                <p className="text-xs text-quiet">{section}</p>
              )}
              {inside.map((pocket) => (
                <label key={pocket.id} className={`flex min-h-7 items-center gap-2 ${inside.length > 1 ? "pl-4" : ""}`}>
                  <input type="checkbox" className="size-4 accent-ink" checked={chosen.includes(pocket.id)} onChange={() => toggle(pocket.id)} />
                  {pocket.title}
                </label>
              ))}
            </div>
          );
        })}
        {data.pockets.length === 0 && <p className="py-2">{TEXTS.thisClassHasNoPockets}</p>}
      </div>
    </fieldset>
  );
}

/** The sections all of whose pockets are chosen. */
function wholeSections(data: Data, chosen: number[]): string[] {
  const missing = new Set(data.pockets.filter((one) => !chosen.includes(one.id)).map((one) => one.section));
  return [...new Set(data.pockets.map((one) => one.section))].filter((section) => !missing.has(section));
}

/** Choose pockets; where no section is whole any more there is nothing to follow. */
function choose(data: Data, form: UseFormReturn<Fields>, chosen: number[]): void {
  form.setValue("pockets", chosen);
  if (wholeSections(data, chosen).length === 0) form.setValue("follows", false);
}

/** What goes along with the chosen pockets: later ones of a whole section, only the new rows of a log. */
function Along({ data, form, chosen }: { data: Data; form: UseFormReturn<Fields>; chosen: number[] }) {
  const full = wholeSections(data, chosen);
  const logs = data.pockets.some((one) => one.kind === "log" && chosen.includes(one.id));
  const what = data.pockets.every((one) => chosen.includes(one.id)) ? TEXTS.wholeLater : full.join(", ");
  return (
    <div className="-mt-2 flex flex-col gap-1 empty:hidden">
      {full.length > 0 && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("follows")} />
          {TEXTS.follows({ what })}
        </label>
      )}
      {logs && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("sinceLast")} />
          {TEXTS.sinceLast}
        </label>
      )}
    </div>
  );
}

/** Instead of pockets: what is given lies in a pocket of its own, which is there once it is set. */
function Anything({ form, chosen }: { form: UseFormReturn<Fields>; chosen: boolean }) {
  return (
    <div className="-mt-2">
      <label className="flex items-start gap-2">
        <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...form.register("anything")} />
        {TEXTS.anything}
      </label>
      {chosen && <p className="mt-1 text-quiet">{TEXTS.anythingHint}</p>}
    </div>
  );
}

/** A box for several pockets at once: half set where only some of them are chosen. */
function AllOf({ label, heard, ids, chosen, onChange }: { label: string; heard?: string; ids: number[]; chosen: number[]; onChange: (ids: number[]) => void }) {
  const has = ids.filter((id) => chosen.includes(id)).length;
  const full = has === ids.length;
  return (
    <label className="flex min-h-7 items-center gap-2 font-semibold">
      <input
        ref={(box) => {
          if (box) box.indeterminate = has > 0 && !full;
        }}
        type="checkbox"
        aria-label={heard}
        className="size-4 accent-ink"
        checked={full}
        onChange={() => onChange(full ? chosen.filter((id) => !ids.includes(id)) : [...new Set([...chosen, ...ids])])}
      />
      {label}
    </label>
  );
}

function Periods({ fields, register, control }: { fields: Fields; register: UseFormRegister<Fields>; control: Control<Fields> }) {
  const rows = useFieldArray({ control, name: "periods", keyName: "key" });
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className={LABEL}>{TEXTS.periods}</legend>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...register("forEveryone")} />
        {TEXTS.forEveryoneInTheClass}
      </label>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...register("byPeriod")} />
        {TEXTS.anotherDueDateForSome}
      </label>
      {(!fields.forEveryone || fields.byPeriod) && (
        <ul className="mt-1 flex flex-col gap-2">
          {rows.fields.map((row, place) => (
            <li key={row.key} className="flex flex-wrap items-center gap-2">
              {fields.forEveryone ? (
                <span className="w-20 font-semibold">{row.name}</span>
              ) : (
                <label className="flex w-20 items-center gap-2 font-semibold">
                  <input type="checkbox" className="size-4 accent-ink" {...register(`periods.${place}.asked`)} />
                  {row.name}
                </label>
              )}
              {fields.byPeriod && (
                <>
                  <FormDate heard label={TEXTS.nameDue({ name: row.name })} control={control} name={`periods.${place}.day`} className="w-48" />
                  <input
                    type="time"
                    aria-label={TEXTS.nameDueAt({ name: row.name })}
                    {...register(`periods.${place}.time`)}
                    className="min-h-9 rounded-md border border-control px-2"
                  />
                </>
              )}
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}
