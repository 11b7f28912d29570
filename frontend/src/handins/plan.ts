/** The form of a new hand-in, and what of it goes to the server. */
import type { Schema } from "../api/client";
import { rubricFields, rubricOf } from "./rubric";
import type { RubricForm } from "./rubric";

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
  closes: string;
  closesTime: string;
  directions: string;
  /** Pictures and files beside its directions. */
  files: Schema["GivenFileShape"][];
  modelAnswer: string;
  /** From which day on students see it. */
  modelFrom: string;
  opensAgain: boolean;
  /** It may be handed in again until it is due. */
  again: boolean;
  /** Students may take back what they handed in, until it is due. */
  takeBack: boolean;
  /** What is added later to the sections that it collects whole belongs to it too. */
  follows: boolean;
  /** No pocket is named: students put in what fits. */
  anything: boolean;
  /** Of its logs only new rows are handed in. */
  sinceLast: boolean;
  /** What is done once it has closed. */
  closing: Schema["PlanShape"]["closing"];
  step: string;
  forEveryone: boolean;
  byPeriod: boolean;
  periods: PeriodFields[];
  points: string;
  rubric: RubricForm | null;
  /** A new one is set again every so many weeks, until a day; "0": once. "unit": once for each unit. */
  every: "0" | "1" | "2" | "unit";
  until: string;
  /** Of a series that is changed: this one, from here on, or all. */
  scope: Schema["ChangeIn"]["scope"];
  /** Of those whom the periods name. */
  whom: Schema["PlanShape"]["whom"];
  groups: number[];
  students: number[];
}

/** The last day of the class's weeks. */
function lastDay({ weeks }: Schema["HandInsShape"]): string {
  const monday = weeks.at(-1)?.monday;
  return monday ? new Date(Date.parse(`${monday}T12:00:00Z`) + 6 * 24 * 3600 * 1000).toISOString().slice(0, 10) : "";
}

/** What stands in the form at first: open today, for everyone, without points; of one pocket where it is asked from there. */
export function firstFields(data: Schema["HandInsShape"], pocket: number): Fields {
  const from = data.pockets.find((one) => one.id === pocket);
  return {
    title: from?.title ?? "",
    pockets: from ? [from.id] : [],
    opens: data.today,
    day: "",
    time: "",
    closes: "",
    closesTime: "",
    directions: "",
    files: [],
    modelAnswer: "",
    modelFrom: "",
    opensAgain: false,
    again: false,
    takeBack: true,
    follows: false,
    anything: false,
    sinceLast: false,
    closing: "nothing",
    step: "1",
    forEveryone: true,
    byPeriod: false,
    periods: data.all_periods.map((one) => ({ ...one, asked: true, day: "", time: "" })),
    points: "",
    rubric: null,
    every: "0",
    until: lastDay(data),
    scope: "one",
    whom: "all",
    groups: [],
    students: [],
  };
}

/** A due as two fields. */
function parts(due: Schema["DueOut"] | null | undefined): { day: string; time: string } {
  return due ? { day: due.day, time: due.at?.slice(0, 5) ?? "" } : { day: "", time: "" };
}

/** What stands in the form of a hand-in that is there, or of one like it. */
export function fieldsOf(plan: Schema["PlanShape"], data: Schema["HandInsShape"]): Fields {
  const own = new Map(plan.periods.map((one) => [one.period, one]));
  const closes = parts(plan.closes);
  return {
    title: plan.title,
    pockets: plan.pockets,
    opens: plan.opens,
    ...parts(plan.due),
    closes: closes.day,
    closesTime: closes.time,
    directions: plan.directions,
    files: plan.given,
    modelAnswer: plan.model_answer,
    modelFrom: plan.model_from ?? "",
    opensAgain: plan.opens_again,
    again: plan.again,
    takeBack: plan.take_back,
    follows: plan.follows,
    anything: plan.anything,
    sinceLast: plan.since_last,
    closing: plan.closing,
    step: plan.step,
    forEveryone: plan.for_everyone,
    byPeriod: plan.periods.some((one) => one.due),
    periods: data.all_periods.map((one) => {
      const part = own.get(one.id);
      return { ...one, asked: plan.for_everyone || Boolean(part?.asked), ...parts(part?.due) };
    }),
    every: "0",
    until: lastDay(data),
    scope: "one",
    whom: plan.whom,
    groups: plan.groups,
    students: plan.students,
    rubric: rubricFields(plan.rubric),
    points: plan.points === null ? "" : String(Number(plan.points)),
  };
}

function dueOf(day: string, time: string): Schema["PlanDue"] | null {
  return day ? { day, at: time || null } : null;
}

function repeatOf({ every, day, until }: Fields): Schema["RepeatIn"] | null {
  if (every === "0" || !day) return null;
  return every === "unit" ? { every: 0, until: null } : { every: every === "1" ? 1 : 2, until };
}

/** The plan as the server takes it; a draft is seen by staff only. */
export function planOf(fields: Fields, draft = false): Schema["PlanIn"] {
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
    rubric: rubricOf(fields.rubric),
    step: fields.step,
    closes: dueOf(fields.closes, fields.closesTime),
    directions: fields.directions,
    files: fields.files.map((one) => one.id),
    model_answer: fields.modelAnswer,
    model_from: fields.modelFrom || null,
    opens_again: fields.opensAgain,
    again: fields.again,
    take_back: fields.takeBack,
    follows: fields.follows,
    anything: fields.anything,
    since_last: fields.sinceLast,
    draft,
    closing: fields.closes ? fields.closing : "nothing",
    whom: fields.whom,
    groups: fields.groups,
    students: fields.students,
    repeat: repeatOf(fields),
  };
}
