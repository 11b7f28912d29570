/** The school's calendar: terms, weekdays, days off; what a change would do before it is made. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { CalendarPlus, FileUp, Plus, Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import type { Control, UseFormRegister } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { calendarQuery } from "../api/queries";
import { upload } from "../api/upload";
import { Button } from "../ui/Button";
import { day } from "../ui/dates";
import { FormDate } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { SaveBar } from "../ui/SaveBar";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { useBack } from "../writing/useBack";
import { useDraft } from "../writing/useDraft";
import { WEEKDAYS, CALENDAR } from "./texts";
import { SPANS, TEXTS } from "./texts";

type Calendar = Schema["CalendarShape"];
type Span = Schema["SpanShape"];
interface Fields {
  terms: Span[];
  days_off: Span[];
  weekdays: boolean[];
  zone: string;
}

const INPUT = "min-h-9 rounded-md border border-control bg-paper px-2";

export function CalendarPart() {
  const found = useQuery(calendarQuery);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return found.data.may_change ? <Keep key={found.data.key} calendar={found.data} /> : <Read calendar={found.data} />;
}

/** The calendar for those who do not keep it. */
function Read({ calendar }: { calendar: Calendar }) {
  return (
    <section aria-labelledby="calendar" className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <h1 id="calendar" className="text-xl">
        {TEXTS.calendarOfSchool({ school: calendar.school })}
      </h1>
      <p className="max-w-3xl text-ink-soft">
        {TEXTS.schoolOnWeekdaysDatesAre({ WEEKDAYS: WEEKDAYS.filter((_, place) => calendar.weekdays.includes(place)).join(", "), zone: calendar.zone })}
      </p>
      <SpanTable title={TEXTS.terms} spans={calendar.terms} none={TEXTS.noTermIsSetUp} />
      <SpanTable title={TEXTS.daysWithoutSchool} spans={calendar.days_off} none={TEXTS.none} />
    </section>
  );
}

function SpanTable({ title, spans, none }: { title: string; spans: Span[]; none: string }) {
  return (
    <div className="max-w-3xl">
      <h2 className="mb-1 text-base">{title}</h2>
      {spans.length === 0 ? (
        <p>{none}</p>
      ) : (
        <ul className="divide-y divide-line rounded-lg border border-edge bg-paper">
          {spans.map((one) => (
            <li key={`${one.first} ${one.name}`} className="flex justify-between gap-4 px-4 py-2">
              <span className="font-semibold">{one.name}</span>
              <span className="figures">{one.first === one.last ? day(one.first) : TEXTS.firstToLast({ first: day(one.first), last: day(one.last) })}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function fieldsOf(calendar: Calendar): Fields {
  return {
    terms: calendar.terms,
    days_off: calendar.days_off,
    weekdays: WEEKDAYS.map((_, place) => calendar.weekdays.includes(place)),
    zone: calendar.zone,
  };
}

function planOf(fields: Fields, key: string): Schema["CalendarIn"] {
  const weekdays = fields.weekdays.flatMap((on, place) => (on ? [place] : []));
  return { key, zone: fields.zone, weekdays, terms: fields.terms, days_off: fields.days_off };
}

function Keep({ calendar }: { calendar: Calendar }) {
  const form = useForm<Fields>({ defaultValues: fieldsOf(calendar) });
  const fields = useWatch({ control: form.control }) as Fields;
  const queries = useQueryClient();
  const say = useSay();
  const body = planOf(fields, calendar.key);
  const complete = [...body.terms, ...body.days_off].every((one) => one.first && one.last);
  const changed = JSON.stringify(body) !== JSON.stringify(planOf(fieldsOf(calendar), calendar.key));
  const drop = useDraft("calendar", fields, 0, changed, useBack(form, 0));
  const preview = useQuery({
    queryKey: ["calendar", "preview", body],
    enabled: complete && changed,
    queryFn: () => data(client.POST("/api/calendar/preview", { body })),
  });
  const save = useMutation({
    mutationFn: () => data(client.PUT("/api/calendar", { body })),
    onSuccess: async (done) => {
      await queries.invalidateQueries();
      drop();
      const moved = done.moved.reduce((sum, one) => sum + one.statuses, 0);
      say(TEXTS.theCalendarIsKept({ moved, movedIs: moved === 0 }));
    },
  });
  return (
    <section aria-labelledby="calendar" className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 flex-col gap-5 overflow-y-auto p-5">
        <h1 id="calendar" className="text-xl">
          {TEXTS.calendarOfSchool({ school: calendar.school })}
        </h1>
        <Spans title={TEXTS.terms} name="terms" add={TEXTS.term} control={form.control} register={form.register} />
        <fieldset className="max-w-3xl">
          <legend className="mb-1 text-base font-bold">{TEXTS.schoolWeekdays}</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1">
            {WEEKDAYS.map((name, place) => (
              <label key={name} className="flex min-h-8 items-center gap-2">
                <input type="checkbox" className="size-4 accent-ink" {...form.register(`weekdays.${place}`)} />
                {name}
              </label>
            ))}
          </div>
        </fieldset>
        <Spans title={TEXTS.daysWithoutSchool} name="days_off" add={TEXTS.daysOff} control={form.control} register={form.register} fromFile />
        <label className="max-w-3xl font-bold">
          {TEXTS.timeZoneInWhichAll}
          <input {...form.register("zone")} className={`${INPUT} mt-1 block w-64 font-normal`} />
        </label>
      </div>
      <SaveBar
        changed={changed}
        means={preview.data ? <Does preview={preview.data} /> : complete ? undefined : <p className="p-3 text-quiet">{CALENDAR.incomplete}</p>}
        wrong={changed ? preview.error : null}
        refused={save.error}
        saving={save.isPending || !complete}
        onSave={() => save.mutate()}
        onAsWas={() => {
          form.reset(fieldsOf(calendar));
          save.reset();
        }}
        words={CALENDAR}
      />
    </section>
  );
}

/** What the change would do. */
function Does({ preview }: { preview: Schema["CalendarPreviewShape"] }) {
  const few = (days: string[]) => TEXTS.andMore({ some: days.slice(0, 4).map(day).join(", "), more: Math.max(days.length - 4, 0) });
  return (
    <div role="status" aria-label={TEXTS.whatThisChanges} className="rounded-md bg-in-soft p-3">
      {preview.lost.length > 0 && (
        <p>
          {TEXTS.schoolDaysFewerLost({ count: preview.lost.length, lost: few(preview.lost) })}
        </p>
      )}
      {preview.gained.length > 0 && (
        <p>
          {TEXTS.schoolDaysMoreGained({ count: preview.gained.length, gained: few(preview.gained) })}
        </p>
      )}
      {preview.moved.map((one) => (
        <p key={one.group}>
          {TEXTS.groupMoves({ group: <strong key="group">{one.group}</strong>, dues: one.dues, statuses: one.statuses })}
        </p>
      ))}
      {preview.moved.length === 0 && <p>{TEXTS.noDueMomentAndNo}</p>}
      {preview.due_on_days_off.map((one) => (
        <p key={one} className="mt-1 rounded-sm bg-today p-2">
          {one}
        </p>
      ))}
    </div>
  );
}

interface SpansProps {
  title: string;
  name: "terms" | "days_off";
  add: string;
  control: Control<Fields>;
  register: UseFormRegister<Fields>;
  fromFile?: boolean;
}

/** Named spans of days, one a line. */
function Spans({ title, name, add, control, register, fromFile = false }: SpansProps) {
  const rows = useFieldArray({ control, name, keyName: "key" });
  const [told, setTold] = useState<Schema["ReadCalendarShape"] | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const read = useMutation({
    mutationFn: (file: File) => upload<Schema["ReadCalendarShape"]>("/api/calendar/files", file),
    onSuccess: (found) => {
      const have = new Set(rows.fields.map((one) => `${one.first} ${one.last}`));
      rows.append(found.days_off.filter((one) => !have.has(`${one.first} ${one.last}`)));
      setTold(found);
    },
  });
  return (
    <fieldset className="max-w-3xl">
      <legend className="mb-1 text-base font-bold">{title}</legend>
      <ul className="flex flex-col gap-1.5">
        {rows.fields.map((row, place) => (
          <li key={row.key} className="flex flex-wrap items-center gap-2">
            <input aria-label={SPANS[name].nameOf({ place: place + 1 })} {...register(`${name}.${place}.name`)} className={`${INPUT} min-w-40 flex-1`} />
            <FormDate heard label={TEXTS.firstDayOfName({ name: row.name || SPANS[name].called({ place: place + 1 }) })} control={control} name={`${name}.${place}.first`} className="w-48" />
            <span aria-hidden>–</span>
            <FormDate heard label={TEXTS.lastDayOfName({ name: row.name || SPANS[name].called({ place: place + 1 }) })} control={control} name={`${name}.${place}.last`} className="w-48" />
            <button type="button" aria-label={TEXTS.leaveOutName({ name: row.name || SPANS[name].called({ place: place + 1 }) })} className="p-2 text-quiet hover:text-ink" onClick={() => rows.remove(place)}>
              <Trash2 aria-hidden size={16} />
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button icon={fromFile ? <CalendarPlus aria-hidden size={16} /> : <Plus aria-hidden size={16} />} onClick={() => rows.append({ name: "", first: "", last: "" })}>
          {add}
        </Button>
        {fromFile && (
          <>
            <input
              ref={chooser}
              type="file"
              accept=".ics,text/calendar"
              className="hidden"
              aria-label={TEXTS.calendarFile}
              onChange={(event) => event.target.files?.[0] && read.mutate(event.target.files[0])}
            />
            <Button icon={<FileUp aria-hidden size={16} />} disabled={read.isPending} onClick={() => chooser.current?.click()}>
              {TEXTS.fromACalendarFileIcs}
            </Button>
          </>
        )}
      </div>
      {read.error instanceof Problem && (
        <div className="mt-2">
          <Notice title={read.error.title} fix={read.error.fix} />
        </div>
      )}
      {told && !read.error && (
        <div role="status" className="mt-2 rounded-md bg-in-soft p-3">
          <p>
            {TEXTS.theFileHasRunsOf({ count: told.days_off.length, count2: told.left_out.length, countIs: told.left_out.length > 0 })}
          </p>
          <ul>
            {told.left_out.slice(0, 6).map((one) => (
              <li key={one.name}>
                {one.name}: {one.why}.
              </li>
            ))}
          </ul>
        </div>
      )}
    </fieldset>
  );
}
