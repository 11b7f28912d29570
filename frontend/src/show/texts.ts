/** The words of show pages. */
import { catalogue } from "../language/catalogue";

export const SHOW = catalogue("show.show", {
  title: "Show pages",
  none: "No show page is open yet",
  noneHint: "A show page is some work that its student chose and arranged. Members of staff open them to the class.",
  mine: "My show page",
  theirs: "Show page",
  private: "Only you and your teachers see it, until a teacher opens it to the class.",
  opened: "The class sees it. Whatever you change closes it again, until a teacher has looked at it.",
  empty: "Choose the work you are proud of. They stand here in your order, each with a line of your own.",
  staffEmpty: "Nothing is chosen yet.",
  pageTitle: "Title of the page",
  choose: "Choose something",
  chooseNone: "Everything you have is on the page already, or your pockets are empty still.",
  caption: "A line about it",
  wide: "Over the whole width",
  earlier: "Move forward",
  later: "Move back",
  away: "Leave it out",
  keep: "Keep the page",
  kept: "Your show page is kept.",
  asSeen: "As the class sees it",
  open: "Open it to the class",
  close: "Close it",
  staffOpened: "The class sees this page.",
  staffPrivate: "The class does not see this page.",
});

export const TEXTS = catalogue("show", {
  showPage: "Show page",
});
