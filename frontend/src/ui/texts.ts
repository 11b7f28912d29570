/** The words of what all views share. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("ui", {
  oneMoment: "One moment …",
  thisCouldNotBeLoaded: "This could not be loaded.",
  tryAgain: "Try again",
  close: "Close",
  week: "Week",
  schoolWeek: "School week",
  noSchool: "No school",
  theMonthBefore: "The month before",
  theMonthAfter: "The month after",
  chooseOnTheCalendar: "Choose on the calendar",
  thisIsNoDayType: "This is no day. Type it like 26 Nov or 26.11.2026, with its own weekday or none.",
  eGDec: "e.g. 4 Dec",
  undo: "Undo",
  closeThisMessage: "Close this message",
  readAloud: "Read aloud",
  stopReading: "Stop reading",
  thisDeviceHasNoVoice: "This device has no voice to read with.",
  doneOfRowsWeekBy: message<{ done: number; wanted: number }>("{done, number} of {wanted, plural, one {# row} other {# rows}}, week by week"),
  yourText: "your text",
  reflectionOnOn: message<{ on: string }>("reflection on {on}"),
  stillWanted: "Still wanted",
  done: ", done",
  stillWanted2: ", still wanted",
  missing: ", missing",
  reflection: "Reflection",
  nothingWritten: "Nothing written.",
  stayHere: "Stay here",
  letItGo: "Let it go",
  doneOfRows: message<{ done: number; wanted: number }>("{done, number} of {wanted, plural, one {# row} other {# rows}}"),
});

/** So and so many, standing by themselves. */
export const COUNTED = catalogue("ui.counted", {
  rows: message<{ count: number }>("{count, plural, one {# row} other {# rows}}"),
  students: message<{ count: number }>("{count, plural, one {# student} other {# students}}"),
  pockets: message<{ count: number }>("{count, plural, one {# pocket} other {# pockets}}"),
  artefacts: message<{ count: number }>("{count, plural, one {# artefact} other {# artefacts}}"),
  links: message<{ count: number }>("{count, plural, one {# link} other {# links}}"),
  words: message<{ count: number }>("{count, plural, one {# word} other {# words}}"),
  sentences: message<{ count: number }>("{count, plural, one {# sentence} other {# sentences}}"),
  points: message<{ count: number }>("{count, plural, one {# point} other {# points}}"),
  lines: message<{ count: number }>("{count, plural, one {# line} other {# lines}}"),
});

/** How long a time is, and how long ago something was. */
export const TIMES = catalogue("ui.times", {
  minutes: message<{ count: number }>("{count, plural, one {# minute} other {# minutes}}"),
  hours: message<{ count: number }>("{count, plural, one {# hour} other {# hours}}"),
  days: message<{ count: number }>("{count, plural, one {# day} other {# days}}"),
  today: "today",
  daysAgo: message<{ count: number }>("{count, number} d"),
});

/** The order in which a date is told. */
export const DATES = catalogue("ui.dates", {
  day: message<{ weekday: string; day: string; month: string }>("{weekday} {day} {month}"),
  fullDay: message<{ weekday: string; day: string; month: string; year: string }>("{weekday} {day} {month} {year}"),
  shortDay: message<{ day: string; month: string }>("{day} {month}"),
  moment: message<{ weekday: string; day: string; month: string; clock: string }>("{weekday} {day} {month}, {clock}"),
  dayAt: message<{ day: string; clock: string }>("{day}, {clock}"),
  today: "today",
  tomorrow: "tomorrow",
  schoolWeek: message<{ number: number }>("School week {number, number}"),
  mostDue: message<{ count: number }>("at most {count, plural, one {# hand-in} other {# hand-ins}} due for one student"),
  mostDueHint: message<{ limit: number }>("Beside a week: the most that is due then for one student, over all classes; coloured where somebody has {limit, number} or more."),
  noSchoolWithin: "no school",
});
