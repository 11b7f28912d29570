/** The form of a new hand-in, and what of it goes to the server. */
import type { Schema } from "../api/client";

export interface PeriodFields {
  id: number;
  name: string;
  asked: boolean;
  day: string;
  time: string;
}

export interface Fields {
  title: string;
  pockets: number[];
  opens: string;
  day: string;
  time: string;
  forEveryone: boolean;
  byPeriod: boolean;
  periods: PeriodFields[];
  points: string;
}

/** What stands in the form at first: open today, for everyone, without points. */
export function firstFields(data: Schema["HandInsShape"]): Fields {
  return {
    title: "",
    pockets: [],
    opens: data.today,
    day: "",
    time: "",
    forEveryone: true,
    byPeriod: false,
    periods: data.all_periods.map((one) => ({ ...one, asked: true, day: "", time: "" })),
    points: "",
  };
}

function dueOf(day: string, time: string): Schema["PlanDue"] | null {
  return day ? { day, at: time || null } : null;
}

/** The plan as the server takes it. */
export function planOf(fields: Fields): Schema["PlanIn"] {
  const points = fields.points.trim().replace(",", ".");
  return {
    title: fields.title,
    pockets: fields.pockets,
    opens: fields.opens,
    due: dueOf(fields.day, fields.time),
    for_everyone: fields.forEveryone,
    periods: fields.periods.map((one) => ({
      period: one.id,
      asked: one.asked,
      due: fields.byPeriod ? dueOf(one.day, one.time) : null,
    })),
    points: points || null,
    step: 1,
  };
}
