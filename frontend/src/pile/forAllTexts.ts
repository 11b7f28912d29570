/** The words of a mark for all who handed something in together. */
import { catalogue, message } from "../language/catalogue";

export const FOR_ALL = catalogue("pile.forAll", {
  title: "For whom it counts",
  forAll: message<{ count: number }>("For all {count, number} who handed this in together."),
  withThem: message<{ names: string }>("With {names}."),
  decided: message<{ names: string }>("Handed in together with {names}, whose mark stands. This one is for one student alone."),
  decidedHidden: message<{ count: number }>("Handed in together with {count, plural, one {# other, whose mark stands} other {# others, whose marks stand}}. This one is for one student alone."),
  whoDidWhat: "Who did what",
  saysRight: "says that all of it is right",
  notConfirmed: "has not confirmed it",
  saidNothing: "Said nothing.",
  why: "Why this student alone",
  read: "the student reads it",
  reopenAll: message<{ count: number }>("Reopen for all {count, number}"),
  reopenOne: message<{ name: string }>("Reopen for {name} alone"),
});
