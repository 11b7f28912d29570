/** The words of a score that is not as the rule makes it. */
import { catalogue, message } from "../language/catalogue";

export const OWN = catalogue("pile.own", {
  takes: message<{ days: number; earned: number; out: number }>("Late by {days, plural, one {# school day} other {# school days}}: of {earned, number} earned, {out, number} go out."),
  open: "Give another score",
  hint: "It goes out as you give it. The student reads the reason, and what the rule makes stands beside it.",
  score: "Your score",
  of: message<{ points: number }>("of {points, number} points"),
  why: "Reason",
});
