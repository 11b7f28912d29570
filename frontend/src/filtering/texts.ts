/** The words of filters: over the pegs, and wherever else students and hand-ins are filtered like them. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("filtering", {
  allPeriods: "All periods",
  filtersRest: "The filters rest while you search.",
  filters: "Filters",
  moreFilters: "More filters",
  moreFiltersOn: message<{ count: number }>("More filters: {count, plural, one {# is on} other {# are on}}"),
  keptFilters: "Kept filters",
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
  group: "by group, then surname",
});

export type Order = keyof typeof ORDERS;
