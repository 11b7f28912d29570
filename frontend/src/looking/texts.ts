/** The words of looking in over a class. */
import { catalogue, message } from "../language/catalogue";

export const LOOKING = catalogue("looking.looking", {
  title: "Look in",
  pocket: "Pocket",
  order: "Order",
  byName: "by name",
  byWork: "newest work first",
  empty: "Nothing yet",
  openedOnly: "Opened, not begun",
  only: "Show only",
  is: { all: "All", not_begun: "Not begun", not_opened: "Not opened", begun: "Begun", locked: "Locked" },
  stop: message<{ count: number }>("Stop work for {count, number}"),
  goOn: message<{ count: number }>("Let {count, number} go on"),
  step: "Step through",
  noPocket: "There is no pocket in this class yet",
  noPocketHint: "Lay one out in the template, and everybody's shows here.",
  ownPages: "Pages of their own",
  noOwnPage: "Nobody has made a page of their own yet.",
  withOthers: message<{ names: string }>("with {names}"),
  noStudent: "There is nobody in this class yet.",
});

/** All rows of a log. */
export const ROWS = catalogue("looking.rows", {
  show: "Show",
  each: "student by student",
  all: "all rows",
  rows: "Rows",
  student: "Student",
  period: "Period",
  allPeriods: "All periods",
  words: "Words in it",
  everybodyAgain: message<{ name: string }>("{name} only: show everybody again"),
  found: message<{ count: number; complete: number }>("{count, plural, one {# row} other {# rows}}, {complete, number} finished"),
  sum: message<{ title: string; amount: string; unit: string }>("{title} {amount} {unit}"),
  endings: { xlsx: "XLSX", ods: "ODS", csv: "CSV" },
  takeAlong: message<{ ending: string }>("These rows as {ending}"),
  more: message<{ count: number }>("Show more: {count, number} left"),
  none: "No row fits this.",
  notFinished: "not finished",
  addedUp: "Added up",
  perStudent: "Each student",
  perWeek: "Each week",
  weekOf: message<{ day: string }>("Week of {day}"),
});

export const TEXTS = catalogue("looking", {
  begunOfAll: message<{ begun: number; count: number; full: number }>("{begun, number} of {count, number} have begun, {full, number} have everything"),
  metOfWanted: message<{ met: number; wanted: number }>("{met, number} of {wanted, number}"),
});
