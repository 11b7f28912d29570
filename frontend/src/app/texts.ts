/** The words of the frame. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("app", {
  name: "Coat Peg",
  find: "Find a student or hand-in",
  skip: "Skip to the content",
  views: "Views",
  chooseClass: "Choose a class",
  away: "Coat Peg cannot be reached just now. It keeps trying; what you typed is safe on this device.",
  newClass: "Start a class",
  account: "Password and sign-ins",
  feed: "Due dates in your calendar",
  signOut: "Sign out",
  keys: "Keys",
  school: "The school",
  lost: "There is nothing at this address",
  lostHint: "It may have moved, or it is not for you.",
  nobodys: "There is nothing here for you",
  nobodysHint: "The class was taken away, or you are not in it. Its teacher can add you.",
  home: "Go to the start",
  news: "News",
  cupboard: "Cupboard",
  titleUnseenNew: message<{ title: string; unseen: number }>("{title}, {unseen, number} new"),
  weekWeekOfWeeks: message<{ week: number; weeks: number }>(" · week {week, number} of {weeks, number}"),
  initialsAccountOfFullName: message<{ initials: string; full_name: string }>("{initials}, account of {full_name}"),
  toMark: "to mark",
  toHandIn: "to hand in",
  thisViewStoppedWorking: "This view stopped working",
  whatYouTypedIsKept: "What you typed is kept on this device. Reload the page to go on.",
  theTermSWeeksAnd: "The term's weeks and hand-ins",
  fullWeek: message<{ students: number; limit: number }>("{students, plural, one {# student has} other {# students have}} {limit, number} or more hand-ins due this week, over all their classes."),
  weekNumber: message<{ number: number; school_daysIs: boolean; nowIs: boolean }>("Week {number, number}{school_daysIs, select, true {} other {, no school}}{nowIs, select, true {, this week} other {}}:"),
  noDueDate: "no due date",
  inAskedIn: message<{ in: number; asked: number }>("{in, number}/{asked, number} in"),
  opensLater: "opens later",
  moreHanging: message<{ count: number; due: boolean }>("{due, select, true {{count, number} more due this week} other {{count, number} more without a due date}}"),
  chooseClassNow: message<{ name: string }>("Choose a class: {name}"),
  whatFor: "What this view is for",
  putAway: "Put away",
  notPutAway: "It could not be put away just now.",
  howILike: "How I like to read",
});

export const STAFF_VIEWS = catalogue("app.staffViews", { classes: "My classes", pegs: "Pegs", pile: "Marking pile", handins: "Hand-ins", template: "Template", look: "Look in", shows: "Show pages", setup: "Set-up", caseload: "Caseload" });
export const STUDENT_VIEWS = catalogue("app.studentViews", { pockets: "My pockets", toHandIn: "To hand in", feedback: "Feedback", shows: "Show pages" });

/** The views by the part of the address that names them, as the window's title says it. */
export const VIEWS: Record<string, string> = catalogue("app.views", {
  classes: STAFF_VIEWS.classes,
  pegs: STAFF_VIEWS.pegs,
  pile: STAFF_VIEWS.pile,
  "hand-ins": STAFF_VIEWS.handins,
  template: STAFF_VIEWS.template,
  look: STAFF_VIEWS.look,
  shows: STAFF_VIEWS.shows,
  setup: STAFF_VIEWS.setup,
  caseload: STAFF_VIEWS.caseload,
  portfolio: "Pockets",
  "to-hand-in": STUDENT_VIEWS.toHandIn,
  feedback: STUDENT_VIEWS.feedback,
  school: TEXTS.school,
  requests: "Requests for students",
});

/** What goes on behind every view. */
export const GOES_ON = catalogue("app.goesOn", {
  arrived: "What you typed before has been saved now.",
});

/** What somebody is in a class. */
export const ROLES: Record<string, string> = catalogue("app.roles", {
  lead: "lead",
  co_teacher: "co-teacher",
  marker: "marker",
  observer: "observer",
  student: "student",
  leaver: "left",
});
