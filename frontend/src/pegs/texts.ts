/** The words of the pegs. */
export const TEXTS = {
  title: "Pegs",
  student: "Student",
  bySurname: "by surname",
  period: "Per.",
  filled: "Portfolio filled",
  last: "Last work",
  allPeriods: "All periods",
  filtersRest: "The filters rest while you search.",
  allGroups: "All groups",
  newHandIn: "New hand-in",
  noStudents: "Nobody is in this class yet",
  noStudentsHint: "Students show here as soon as they are enrolled.",
  noMatch: "No student fits these filters",
  clear: "Clear the filters",
  close: "Close",
  openToMark: "Open to mark",
  read: "Read",
  portfolio: "Look into the portfolio",
  ownDue: "Own date",
  askAnyway: "Ask all the same",
  excuse: "Excuse",
  unexcuse: "End the excuse",
  pocketCheck: "Pocket check",
  submissions: "Submissions",
  nothing: "Nothing is in this pocket yet.",
  noPeriod: "In no period, so without a due date. Put the student into a period.",
} as const;

export const FILTERS = {
  not_in: "Not handed in",
  to_mark: "To mark",
  sent_back: "Sent back",
  overdue: "Overdue",
  late: "Late",
  quiet: "Quiet for a week",
} as const;

export type FilterName = keyof typeof FILTERS;
