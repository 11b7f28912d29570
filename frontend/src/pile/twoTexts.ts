/** The words of two who mark independently, and of what is open at other desks. */
import { catalogue, message } from "../language/catalogue";

export const TWO = catalogue("pile.two", {
  independent: "Two mark this independently. The other marker sees nothing of yours until both marks are done.",
  otherDone: "The other marker is done.",
  done: "My mark is done, next",
  isDone: "Your mark is done",
  waits: "It comes back to your pile once the other marker is done too. Until then you can take it up again.",
  takeUp: "Take it up again",
  next: "Next to mark",
  agree: "Both marks are done: agree on one",
  toAgree: "to agree",
  differ: "Where you differ",
  criterion: "Criterion",
  score: "Score",
  notJudged: "not judged",
  said: message<{ who: string }>("{who} says"),
  you: message<{ who: string }>("{who} (you)"),
  takeAll: "Take all",
  takeAllOf: message<{ who: string }>("Take all that {who} gave"),
  joined: "Both feedbacks stand below: make one of them.",
  alone: "Decide without the other marker",
  aloneWhy: "Why? It is kept with the mark.",
  acceptAlone: "Accept alone and next",
  hidden: "Marked without the name: it is shown once it is decided.",
  openBy: message<{ who: string }>("{who} has it open"),
});
