/** A day: typed as people write days, or chosen on the school's calendar; its weekday stands beside it. */
import { CalendarDays } from "lucide-react";
import { lazy, Suspense, useId, useState } from "react";
import { useController } from "react-hook-form";
import type { Control, FieldPath, FieldValues } from "react-hook-form";
import { patiently } from "../../api/patiently";
import { fullDay, today } from "../dates";
import { OnFirstUse } from "../OnFirstUse";
import { isDay, parseDay } from "./parseDay";
import { TEXTS } from "../texts";

const SchoolCalendar = lazy(() => patiently(() => import("./SchoolCalendar")).then((view) => ({ default: view.SchoolCalendar })));

export const WORDS = {
  open: TEXTS.chooseOnTheCalendar,
  wrong: TEXTS.thisIsNoDayType,
  like: TEXTS.eGDec,
} as const;

interface Props {
  label: string;
  hint?: string;
  /** The label is only heard: what it is for stands beside. */
  heard?: boolean;
  /** Label and field side by side. */
  row?: boolean;
  /** ``2026-11-05``, or empty; what is no day stays as it was typed, for the server to refuse. */
  value: string;
  onChange: (value: string) => void;
  onBlur?: () => void;
  disabled?: boolean | undefined;
  className?: string;
  /** As high as students' fields are. */
  big?: boolean;
  /** The id of what the server says against it. */
  refused?: string | undefined;
  /** The class for whose students the calendar says how much is due in each week. */
  loadOf?: number | undefined;
}

/** What stands in the field, and what becomes of what is typed there. */
function useDayText(value: string, onChange: (value: string) => void) {
  // What is being typed; null when nobody types.
  const [typed, setTyped] = useState<string | null>(null);
  return {
    shown: typed ?? (isDay(value) ? fullDay(value) : value),
    wrong: typed === null && value !== "" && !isDay(value),
    read: (text: string) => {
      setTyped(text);
      onChange(parseDay(text, today()) ?? "");
    },
    done: () => {
      if (typed === null) return;
      setTyped(null);
      onChange(parseDay(typed, today()) ?? typed.trim());
    },
    choose: (day: string) => {
      setTyped(null);
      onChange(day);
    },
  };
}

const USUAL = { label: "font-bold", field: "min-h-9", button: "size-9" };
const BIG = { label: "text-base font-bold", field: "min-h-11 text-base", button: "size-11" };

/** What is heard of a field that holds something wrong, by the id of what says so. */
function wrongBy(why: string | undefined) {
  return why ? { "aria-invalid": true, "aria-describedby": why } : {};
}

export function DateField({ label, hint, heard, row, value, onChange, onBlur, disabled, className = "", big, refused, loadOf }: Props) {
  const id = useId();
  const text = useDayText(value, onChange);
  const size = big ? BIG : USUAL;
  return (
    <div className={`${row ? "flex flex-wrap items-center gap-2" : ""} ${className}`}>
      <Named id={id} label={label} hint={hint} look={heard ? "sr-only" : size.label} />
      <div className={`relative max-w-52 ${heard || row ? "" : "mt-1"}`}>
        <input
          id={id}
          type="text"
          autoComplete="off"
          disabled={disabled}
          value={text.shown}
          onChange={(event) => text.read(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={() => {
            text.done();
            onBlur?.();
          }}
          onKeyDown={(event) => event.key === "Enter" && text.done()}
          placeholder={WORDS.like}
          {...wrongBy(text.wrong ? `${id}-wrong` : refused)}
          className={`figures block w-full rounded-md ${size.field} border border-control bg-paper pr-10 pl-3 font-normal disabled:text-quiet aria-invalid:border-overdue`}
        />
        {!disabled && <OnCalendar size={size.button} value={value} onChoose={text.choose} loadOf={loadOf ?? null} />}
      </div>
      <Wrong id={`${id}-wrong`} shown={text.wrong} />
    </div>
  );
}

function Named({ id, label, hint, look }: { id: string; label: string; hint: string | undefined; look: string }) {
  return (
    <label htmlFor={id} className={look}>
      {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
    </label>
  );
}

function Wrong({ id, shown }: { id: string; shown: boolean }) {
  if (!shown) return null;
  return (
    <p id={id} role="alert" className="mt-1 max-w-72 font-normal text-overdue">
      {WORDS.wrong}
    </p>
  );
}

function OnCalendar({ size, value, onChoose, loadOf }: { size: string; value: string; onChoose: (day: string) => void; loadOf: number | null }) {
  return (
    <OnFirstUse
      kind="Panel"
      face={{
        label: WORDS.open,
        className: `absolute top-0 right-0 flex items-center justify-center rounded-md text-ink-soft hover:bg-ground ${size}`,
        content: <CalendarDays aria-hidden size={17} />,
      }}
      className="max-h-[80vh] max-w-[94vw] overflow-y-auto p-3"
    >
      {(close) => (
        <Suspense>
          <SchoolCalendar
            value={isDay(value) ? value : ""}
            loadOf={loadOf}
            onChoose={(chosen) => {
              onChoose(chosen);
              close();
            }}
          />
        </Suspense>
      )}
    </OnFirstUse>
  );
}

type OfForm<T extends FieldValues> = Omit<Props, "value" | "onChange" | "onBlur" | "disabled"> & { control: Control<T>; name: FieldPath<T> };

/** The same as a field of a form. */
export function FormDate<T extends FieldValues>({ control, name, ...props }: OfForm<T>) {
  const { field } = useController({ control, name });
  return <DateField {...props} value={field.value ?? ""} onChange={field.onChange} onBlur={field.onBlur} disabled={field.disabled} />;
}
