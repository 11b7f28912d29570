/** The words of taking the pegs along, and of their order. */
import { catalogue, message } from "../language/catalogue";

export const ALONG = catalogue("pegs.along", {
  title: "Take these pegs along",
  what: message<{ students: number; handins: number }>("{students, plural, one {# student} other {# students}}, {handins, plural, one {# hand-in} other {# hand-ins}}, as shown"),
  copy: "Copy as a table",
  results: "Scores for the school’s system (OneRoster)",
  formats: { xlsx: "Spreadsheet (XLSX)", ods: "Spreadsheet (ODS)", csv: "Plain table (CSV)" },
  period: "Period",
  copied: message<{ students: number; handins: number }>("Copied: {students, plural, one {# student} other {# students}} by {handins, plural, one {# hand-in} other {# hand-ins}}."),
  notCopied: "The browser did not let it be copied. Take a file instead.",
  kept: message<{ students: number; handins: number }>("Taken along: {students, plural, one {# student} other {# students}} by {handins, plural, one {# hand-in} other {# hand-ins}}."),
  notKept: "The file did not come. Try again.",
});

export const ORDERS = catalogue("pegs.orders", {
  family: "by surname",
  given: "by given name",
  filled: "least filled first",
  last: "longest without work first",
  overdue: "most overdue first",
  to_mark: "most to mark first",
  period: "by period, then surname",
});

export type Order = keyof typeof ORDERS;
