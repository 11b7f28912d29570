/** The words of the pegs. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("pegs", {
  title: "Pegs",
  student: "Student",
  orderIs: message<{ order: string }>("Order of the students: {order}"),
  period: "Per.",
  filled: "Portfolio filled",
  last: "Last work",
  allPeriods: "All periods",
  filtersRest: "The filters rest while you search.",
  newHandIn: "New hand-in",
  noStudents: "Nobody is in this class yet",
  noStudentsHint: "Students show here as soon as they are enrolled.",
  noMatch: "No student fits these filters",
  clear: "Clear the filters",
  nothingWanted: "nothing wanted",
  metOfWantedWantedSo: message<{ met: number; wanted: number }>("{met, number} of {wanted, number} wanted so far"),
  left: "(left)",
  nameTitleNotAsked: message<{ name: string; title: string }>("{name}, {title}: not asked"),
  pegsStudentsByHandIns: "Pegs: students by hand-ins",
  noDue: "no due",
  filters: "Filters",
  inOf: message<{ count: number; of: number }>("{count, number}/{of, number}"),
  inOfAsked: message<{ count: number; of: number }>("{count, number} of {of, number} handed in"),
  ofShown: message<{ count: number }>("{count, plural, one {# student} other {# students}} shown"),
  inHead: "In",
  nothingYet: "nothing yet",
  beingWorkedOn: "being worked on",
  handedIn: "handed in",
  inLate: "in, late",
  sentBack: "sent back",
  whatTheCoatsMean: "What the coats mean",
  countOfCountStudents: message<{ count: number; count2: number }>(" · {count, number} of {count2, number} students"),
  left2: " (left)",
  pinned: "Pinned",
  severalSections: "Over several sections",
  choosePegs: "Choose pegs",
  chooseAllOf: message<{ name: string }>("Choose all of {name}"),
  studentsAndHandIns: "Students and hand-ins",
  accepted: "accepted",
  overdueLegend: "overdue",
  excusedLegend: "excused",
  showAs: "Show as",
  ways: { pegs: "Pegs", list: "List", scores: "Scores", patterns: "Patterns" },
  moreFilters: "More filters",
  moreFiltersOn: message<{ count: number }>("More filters: {count, plural, one {# is on} other {# are on}}"),
  filterNamesGone: message<{ names: string }>("The filter names what is no longer here: {names}."),
  leaveOut: "Leave it out",
  keptFilters: "Kept filters",
  takeAlong: "Take these pegs along",
  noFigure: "·",
  cellSays: message<{ is: string; figure: string }>("{is}; {figure}"),
  cellIs: message<{ name: string; title: string; state: string }>("{name}, {title}: {state}"),
});

export const FILTERS = catalogue("pegs.filters", {
  not_in: "Not handed in",
  to_mark: "To mark",
  sent_back: "Sent back",
  overdue: "Overdue",
  late: "Late",
  quiet: "Quiet for a week",
  working: "Being worked on",
  empty: "Nothing yet",
  accepted: "Accepted",
  excused: "Excused",
  not_open: "Opens later",
});

export type FilterName = keyof typeof FILTERS;

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

export const CELLS = catalogue("pegs.cells", {
  label: "On the pegs",
  shown: { coats: "coats", points: "points", late: "days late", filled: "filled" },
  means: {
    points: "The points that are released. A draft shows on the marking pile only.",
    late: "How many school days after the due moment the first submission came.",
    filled: "How much of what is wanted is in the pockets that the hand-in collects.",
  },
  figure: {
    points: message<{ number: number }>("{number, number}"),
    filled: message<{ number: number }>("{number, number}%"),
    late: message<{ days: number }>("{days, plural, =0 {<1 d} other {# d}}"),
  },
});
