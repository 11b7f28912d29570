/** The words of the patterns. */
import { catalogue, message } from "../language/catalogue";

export const PATTERN = catalogue("pegs.patterns", {
  title: "When work comes",
  none: "No hand-in with a due date is open among those shown.",
  due: message<{ day: string }>("due {day}"),
  inOf: message<{ count: number; of: number }>("{count, number} of {of, number} in"),
  late: message<{ count: number }>("{count, number} late"),
  nothingIn: "Nothing has come in yet.",
  before: message<{ days: string }>("Half of it came {days} before due or earlier"),
  after: message<{ days: string }>("Half of it came only {days} after due"),
  onTheDay: "Half of it had come when it was due",
  middleHalf: message<{ from: string; to: string }>("The middle half from {from} to {to}"),
  daysBefore: message<{ days: number }>("{days, number} {days, plural, one {day} other {days}} before"),
  daysAfter: message<{ days: number }>("{days, number} {days, plural, one {day} other {days}} after"),
  days: message<{ days: number }>("{days, number} {days, plural, one {day} other {days}}"),
  curve: message<{ title: string; words: string }>("How {title} came in, from two weeks before due to a week after: {words}"),
  dueMark: "due",
  usually: "Usually late",
  usuallyNone: "Nobody is late as a rule.",
  lateOf: message<{ late: number; of: number; days: number }>("{late, number} of {of, number} late, by {days, number} school {days, plural, one {day} other {days}} as a rule"),
  expected: "Filled by now",
  median: message<{ share: number }>("The middle of the class: {share, number} %"),
  nothingWanted: "Nothing is wanted of this class yet.",
  share: message<{ share: number }>("{share, number} %"),
  behind: "behind the class",
});
