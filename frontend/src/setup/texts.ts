/** The words of setting up a class. */
import type { Schema } from "../api/client";

export const PARTS = { list: "Class list", staff: "Staff", calendar: "Calendar" } as const;
export type Part = keyof typeof PARTS;

export const TEXTS = {
  setup: "Set-up",
  parts: "Parts of the set-up",
  bring: "Bring in a list",
  bringTitle: "Bring in a class list",
  paste: "Paste the list here",
  pasteHint: "Straight from a spreadsheet: names, and if you have them e-mail, student number, period and group, in any order.",
  file: "Or choose a file",
  fileHint: "CSV, Excel workbook or OneRoster zip",
  fileClass: "Class in the file",
  byItself: "Take lists that come through the roster folder by themselves, in my name",
  byItselfHint: "They are called after the class. Who is missing from one is never marked as left by itself; every list can be undone.",
  restart: "Start over",
  mend: "Download the lines to mend",
  joins: "They join on",
  missing: "not in this list",
  nobody: "There is nobody in this class yet",
  nobodyHint: "Paste the list from your spreadsheet: every student has a portfolio the moment they are added.",
  find: "Find in the list",
  left: "left",
  markLeft: "Mark as left",
  cards: "Sign-in cards",
  voidCards: "Make their cards void",
  password: "New password",
  swap: "Swap the pegs of these two",
} as const;

type Verdict = Schema["LineShape"]["verdict"];

export const VERDICTS: Record<Verdict, string> = {
  new: "New",
  joins: "Joins from another class",
  back: "Back again",
  asked: "To be asked for",
  changed: "Changed",
  here: "Already here",
  twice: "Twice in the list",
  incomplete: "Incomplete",
  unreadable: "Not understood",
};

export const COLUMNS: Record<Schema["TableShape"]["columns"][number], string> = {
  name: "Name",
  family: "Family name",
  given: "Given name",
  email: "E-mail",
  number: "Number",
  period: "Period",
  group: "Group",
  ignore: "Leave out",
};

export const ROLES: Record<string, string> = {
  lead: "Lead",
  co_teacher: "Co-teacher",
  marker: "Marker",
  observer: "Observer",
};

export const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** The mail that was sent. */
export const MAIL = {
  title: "Mail",
  hint: "What was told by mail, newest first. Only these lines are kept; what a mail says can be read here in the demo.",
  none: "No mail was sent yet. Whoever has an address here chooses under the bell how they are told.",
  bounced: "not delivered",
  why: "The other side said:",
  notKept: "What it says is not kept.",
} as const;

/** Keeping the calendar. */
export const CALENDAR = {
  save: "Keep the calendar",
  asWas: "As it was",
  workingOut: "Working out what this changes …",
  incomplete: "Give every line its first and its last day.",
} as const;

/** Requests for students known from elsewhere. */
export const REQUESTS = {
  title: "Requests for students",
  hint: "Another class asks for a student whom you have, or whom you may let in. The staff of a class see the student’s work in that class; those of a caseload see it in all.",
  none: "Nobody waits for your word.",
  caseload: "a caseload",
  confirm: "Let them in",
  decline: "Decline",
  waits: "waits for somebody’s word",
  wait: "wait for somebody’s word",
  withdraw: "Withdraw",
} as const;

/** The school's accounts. */
export const ACCOUNTS = {
  title: "Accounts",
  find: "Find a student",
  findHint: "by name, user name or number; else the staff is listed",
  nobody: "No student has this name, user name or number.",
} as const;

/** What changed the class list. */
export const LIST_CHANGES = {
  title: "What changed this list",
  undo: "Undo",
} as const;
