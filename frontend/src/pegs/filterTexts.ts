/** The words of the further filters, and of keeping one. */
import { catalogue, message } from "../language/catalogue";

export const MORE = catalogue("pegs.more", {
  oneByOne: message<{ shown: number; all: number }>("One by one: {shown, number} of {all, number} shown"),
  handins: "Hand-ins",
  thisWeek: "Due this week",
  number: message<{ count: number }>("{count, plural, one {# hand-in} other {# hand-ins}}"),
  status: "Some peg is",
  students: "Students",
  groups: "Groups",
  agreed: "Something is agreed with learning support",
  joined: message<{ days: number }>("Joined within {days, number} days"),
  left: message<{ days: number }>("Left within {days, number} days"),
  quiet: "Without any work for at least",
  days: "days",
  clear: "Clear all filters",
  done: "Done",
});

export const KEPT = catalogue("pegs.kept", {
  none: "Filters that you keep stand here, with how many students they show.",
  mine: "Mine",
  shared: "Shared by others",
  by: message<{ name: string }>("by {name}"),
  keep: "Keep what is shown",
  keepTitle: "Keep this filter",
  name: "Name",
  nameHint: "As you would say it: “P3 owing this week”.",
  share: "Share it with the staff of this class",
  keepIt: "Keep it",
  kept: message<{ name: string }>("“{name}” is kept."),
  count: message<{ count: number }>("{count, plural, one {# student} other {# students}}"),
  drop: message<{ name: string }>("Drop “{name}”"),
  dropped: message<{ name: string }>("“{name}” is dropped."),
  back: message<{ name: string }>("“{name}” is kept again."),
  replace: message<{ name: string }>("Make “{name}” what is shown now"),
  replaced: message<{ name: string }>("“{name}” is what is shown now."),
  replacedBack: message<{ name: string }>("“{name}” is as it was."),
  cancel: "Cancel",
  nothing: "Choose a filter first: then it can be kept.",
  sharedMark: "shared",
});
