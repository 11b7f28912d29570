/** The words of taking the pegs along. */
import { catalogue, message } from "../language/catalogue";

export const ALONG = catalogue("pegs.along", {
  what: message<{ students: number; handins: number }>("{students, plural, one {# student} other {# students}}, {handins, plural, one {# hand-in} other {# hand-ins}}, as shown"),
  copy: "Copy as a table",
  print: "Print",
  results: "Scores for the school’s system (OneRoster)",
  formats: { xlsx: "Spreadsheet (XLSX)", ods: "Spreadsheet (ODS)", csv: "Plain table (CSV)" },
  period: "Period",
  copied: message<{ students: number; handins: number }>("Copied: {students, plural, one {# student} other {# students}} by {handins, plural, one {# hand-in} other {# hand-ins}}."),
  notCopied: "The browser did not let it be copied. Take a file instead.",
  kept: message<{ students: number; handins: number }>("Taken along: {students, plural, one {# student} other {# students}} by {handins, plural, one {# hand-in} other {# hand-ins}}."),
  notPrinted: "What goes on paper did not come. Try again.",
  notKept: "The file did not come. Try again.",
});
