/** The school's calendar to choose a day on: its weeks numbered, days without school marked and named. */
import { useQuery } from "@tanstack/react-query";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useState } from "react";
import { DayPicker } from "react-day-picker";
import type { WeekNumberProps } from "react-day-picker";
import { LOCALE } from "../../language/chosen";
import { calendarQuery, loadQuery } from "../../api/queries";
import type { Schema } from "../../api/client";
import { fullDay, shortDay, today } from "../dates";
import { DATES, TEXTS } from "../texts";

type Calendar = Schema["CalendarShape"];

const CAPTION = new Intl.DateTimeFormat(LOCALE, { month: "long", year: "numeric" });

interface Props {
  value: string;
  onChoose: (day: string) => void;
  /** The class for whose students it is said how much is due in each week; null where nobody asks that. */
  loadOf: number | null;
}

export function SchoolCalendar({ value, onChoose, loadOf }: Props) {
  const found = useQuery(calendarQuery);
  const load = useQuery({ ...loadQuery(loadOf ?? 0), enabled: loadOf !== null }).data;
  const now = today();
  const [month, setMonth] = useState(() => dateOf(value || now));
  const calendar = found.data;
  const off = (date: Date) => nameOff(calendar, isoOf(date));
  const named = (calendar?.days_off ?? []).filter((one) => one.first.slice(0, 7) <= isoOf(month).slice(0, 7) && one.last.slice(0, 7) >= isoOf(month).slice(0, 7));
  const weeks = new Map((calendar?.weeks ?? []).map((one) => [one.monday, one.number]));
  const WeekNumber = ({ week, ...rest }: WeekNumberProps) => {
    const monday = isoOf(week.days[0]?.date ?? month);
    const number = weeks.get(monday);
    const due = load?.weeks.find((one) => one.monday === monday);
    const heard = [number ? DATES.schoolWeek({ number }) : "", due ? DATES.mostDue({ count: due.most }) : ""].filter(Boolean).join(", ");
    return (
      <th {...rest} scope="row" aria-label={heard || undefined}>
        {number ?? ""}
        {due && <MostDue week={due} />}
      </th>
    );
  };
  return (
    <div>
      <DayPicker
        mode="single"
        required
        // eslint-disable-next-line jsx-a11y/no-autofocus -- it was opened to choose a day: the keyboard goes on in the month
        autoFocus
        showWeekNumber
        showOutsideDays
        weekStartsOn={1}
        today={dateOf(now)}
        month={month}
        onMonthChange={setMonth}
        {...(value ? { selected: dateOf(value) } : { selected: undefined })}
        onSelect={(date: Date) => onChoose(isoOf(date))}
        modifiers={{ off: (date: Date) => off(date) !== null }}
        modifiersClassNames={{ off: "hatched text-quiet", outside: "text-quiet", today: "font-bold underline", selected: "outline-2 -outline-offset-2 outline-copper rounded-md bg-today" }}
        components={{
          WeekNumber,
          Chevron: ({ orientation }) => (orientation === "left" ? <ChevronLeft aria-hidden size={18} /> : <ChevronRight aria-hidden size={18} />),
        }}
        formatters={{ formatCaption: (date: Date) => CAPTION.format(date), formatWeekNumberHeader: () => TEXTS.week, formatWeekdayName: (date: Date) => fullDay(isoOf(date)).slice(0, 2) }}
        labels={{
          labelDayButton: (date: Date) => [fullDay(isoOf(date)), isoOf(date) === now ? DATES.today : "", off(date) ?? ""].filter(Boolean).join(", "),
          labelNext: () => TEXTS.theMonthAfter,
          labelPrevious: () => TEXTS.theMonthBefore,
          labelWeekNumberHeader: () => TEXTS.schoolWeek,
        }}
        classNames={{
          months: "relative",
          month_caption: "flex h-9 items-center justify-center text-base font-bold",
          nav: "absolute inset-x-0 top-0 flex justify-between",
          button_previous: "flex size-9 items-center justify-center rounded-md hover:bg-ground",
          button_next: "flex size-9 items-center justify-center rounded-md hover:bg-ground",
          month_grid: "mt-1 border-collapse",
          weekday: "h-8 w-10 text-sm font-normal text-quiet",
          week_number_header: "h-8 w-14 pr-2 text-right text-sm font-normal text-quiet",
          week_number: "figures w-14 pr-2 text-right whitespace-nowrap text-sm font-normal text-quiet",
          day: "p-0 text-center",
          day_button: "figures size-10 rounded-md hover:bg-today",
        }}
      />
      {load && load.weeks.length > 0 && <p className="mt-2 max-w-84 border-t border-line pt-2 text-sm text-ink-soft">{DATES.mostDueHint({ limit: load.limit })}</p>}
      {named.length > 0 && (
        <ul aria-label={TEXTS.noSchool} className="mt-2 max-w-84 border-t border-line pt-2 text-sm text-ink-soft">
          {named.map((one) => (
            <li key={one.first + one.name} className="flex gap-2">
              <span aria-hidden className="hatched mt-1 size-3 shrink-0 rounded-sm border border-edge" />
              <span className="min-w-0 break-words">
                <span className="figures">{one.first === one.last ? shortDay(one.first) : `${shortDay(one.first)} – ${shortDay(one.last)}`}</span> {one.name}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** How much is due in a week for whoever has most. */
function MostDue({ week: { most, heavy } }: { week: { most: number; heavy: number } }) {
  if (most === 0) return null;
  return <span className={`ml-1.5 rounded-sm px-1 font-bold ${heavy > 0 ? "bg-copper text-paper" : "bg-in-soft text-ink"}`}>{most}</span>;
}

/** Why there is no school on a day; null where there is, or as long as nobody knows. */
function nameOff(calendar: Calendar | undefined, day: string): string | null {
  if (!calendar) return null;
  const named = calendar.days_off.find((one) => one.first <= day && day <= one.last);
  if (named) return named.name;
  const weekday = (new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7;
  return calendar.weekdays.includes(weekday) ? null : DATES.noSchoolWithin;
}

function dateOf(day: string): Date {
  const [year, month, date] = day.split("-").map(Number);
  return new Date(year ?? 0, (month ?? 1) - 1, date ?? 1);
}

function isoOf(date: Date): string {
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, "0")}-${String(date.getDate()).padStart(2, "0")}`;
}
