/** The words of the frame. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("app", {
  name: "Coat Peg",
  find: "Find a student",
  skip: "Skip to the content",
  views: "Views",
  chooseClass: "Choose a class",
  away: "Coat Peg cannot be reached just now. It keeps trying; what you typed is safe on this device.",
  back: "Connected again.",
  newClass: "Start a class",
  account: "Password and sign-ins",
  feed: "Due dates in your calendar",
  signOut: "Sign out",
  keys: "Keys",
  school: "The school",
  signIn: "Sign in",
  userName: "User name",
  password: "Password",
  noUserName: "Type your user name.",
  noPassword: "Type your password.",
  newPassword: "No password, or it does not work? A student’s teacher can give a new one; for staff, an administrator of the school can.",
  demo: "The demo's people",
  demoHint: "Made up, each with the same password. Press one to look around as them.",
  signedOut: "You were signed out. What you typed is kept on this device and comes back when you sign in.",
  noClass: "You are in no class yet",
  noClassHint: "The lead of a class can add you. Classes show here as soon as they did.",
  lost: "There is nothing at this address",
  lostHint: "It may have moved, or it is not for you.",
  home: "Go to the start",
  name2: "Name",
  itIsA: "It is a",
  class: "class",
  yearGroup: "year group",
  caseload: "caseload",
  itsLeadWhoSeesThe: "Its lead, who sees the students’ work in all their classes",
  chooseSomebody: "Choose somebody",
  firstDay: "First day",
  lastDay: "Last day",
  cancel: "Cancel",
  startTheClass: "Start the class",
  titleUnseenNew: message<{ title: string; unseen: number }>("{title}, {unseen, number} new"),
  dueDatesInYourOwn: "Due dates in your own calendar",
  aCalendarProgramThatSubscribes: "A calendar program that subscribes to your address shows when what is due. Whoever has the address can read titles and classes, nothing else.",
  yourAddressShownThisOnce: "Your address, shown this once",
  youMadeAnAddressOn: message<{ since: string }>("You made an address on {since}. It works until you make another one or end it."),
  makeANewOne: "Make a new one",
  makeAnAddress: "Make an address",
  endIt: "End it",
  weekWeekOfWeeks: message<{ week: number; weeks: number }>(" · week {week, number} of {weeks, number}"),
  initialsAccountOfFullName: message<{ initials: string; full_name: string }>("{initials}, account of {full_name}"),
  toMark: "to mark",
  toHandIn: "to hand in",
  thisViewStoppedWorking: "This view stopped working",
  whatYouTypedIsKept: "What you typed is kept on this device. Reload the page to go on.",
  thisCardCouldNotBe: "This card could not be read.",
  tryAgain: "Try again.",
  signInByName: "Sign in by name",
  oneMoment: "One moment …",
  theTermSWeeksAnd: "The term's weeks and hand-ins",
  weekNumber: message<{ number: number; school_daysIs: boolean; nowIs: boolean }>("Week {number, number}{school_daysIs, select, true {} other {, no school}}{nowIs, select, true {, this week} other {}}:"),
  noDueDate: "no due date",
  inAskedIn: message<{ in: number; asked: number }>("{in, number}/{asked, number} in"),
  opensLater: "opens later",
  nameIsStartedItsLead: message<{ name: string }>("“{name}” is started; its lead finds it among their classes."),
  moreHanging: message<{ count: number; due: boolean }>("{due, select, true {{count, number} more due this week} other {{count, number} more without a due date}}"),
  chooseClassNow: message<{ name: string }>("Choose a class: {name}"),
  whatFor: "What this view is for",
  putAway: "Put away",
  notPutAway: "It could not be put away just now.",
});

export const STAFF_VIEWS = catalogue("app.staffViews", { pegs: "Pegs", pile: "Marking pile", handins: "Hand-ins", template: "Template", look: "Look in", shows: "Show pages", setup: "Set-up", caseload: "Caseload" });
export const STUDENT_VIEWS = catalogue("app.studentViews", { pockets: "My pockets", toHandIn: "To hand in", feedback: "Feedback", shows: "Show pages" });

/** The views by the part of the address that names them, as the window's title says it. */
export const VIEWS: Record<string, string> = catalogue("app.views", {
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

/** The keys, a row each: what is pressed, what it does. */
export const KEYS: {
  title: string;
  everywhere: { title: string; keys: [string, string][] };
  of: Record<string, { title: string; keys: [string, string][] }>;
  canBeOff: string;
  areOff: string;
} = catalogue("app.keys", {
  title: "Keys",
  everywhere: {
    title: "In every view",
    keys: [
      ["?", "shows this list"],
      ["/", "goes to the search for a student"],
      ["Escape", "closes what is open beside or over the page"],
    ],
  },
  of: {
    pegs: {
      title: STAFF_VIEWS.pegs,
      keys: [
        ["← → ↑ ↓", "walk along the pegs and their heads; on the rail, along the hand-ins"],
        ["Home End", "the first and last hand-in of a student; with Ctrl, of the first and last student"],
        ["Enter", "opens a peg beside the board"],
        ["m", "opens it on the marking pile"],
        ["Escape", "closes the opened peg, back to the board"],
      ],
    },
    pile: {
      title: STAFF_VIEWS.pile,
      keys: [
        ["f", "goes to the feedback"],
        ["Ctrl Enter", "accepts, and opens the next"],
      ],
    },
    portfolio: {
      title: "Looking in",
      keys: [
        ["n", "the next student, at the same pocket"],
        ["b", "the student before"],
      ],
    },
    template: {
      title: STAFF_VIEWS.template,
      keys: [["Alt ↑ ↓", "moves the pocket that has the focus by one place"]],
    },
  },
  canBeOff: "Keys of one letter can be turned off: in the account’s menu, under “How I like to read”.",
  areOff: "You have turned off keys of one letter; “How I like to read” turns them on.",
});

/** How one likes to read. */
export const READING = catalogue("app.reading", {
  open: "How I like to read",
  title: "How I like to read",
  face: "Letters",
  faces: [
    { value: "hyperlegible", name: "Atkinson" },
    { value: "lexend", name: "Lexend" },
  ],
  size: "Size",
  sizes: [
    { value: 100, name: "Usual" },
    { value: 115, name: "Larger" },
    { value: 130, name: "Large" },
    { value: 150, name: "Very large" },
  ],
  spacing: "Space between lines and words",
  spacings: [
    { value: "usual", name: "Usual" },
    { value: "wide", name: "Wide" },
    { value: "wider", name: "Wider" },
  ],
  theme: "Colours",
  themes: [
    { value: "system", name: "As this device" },
    { value: "light", name: "Light" },
    { value: "dark", name: "Dark" },
    { value: "contrast", name: "High contrast" },
  ],
  tint: "Ground",
  tintHint: "In the light colours.",
  tints: [
    { value: "none", name: "White" },
    { value: "cream", name: "Cream" },
    { value: "mint", name: "Mint" },
    { value: "sky", name: "Sky" },
    { value: "rose", name: "Rose" },
  ],
  ruler: "A ruler that follows the pointer",
  keys: "Keys of one letter (such as n for the next student)",
  pace: "Reading aloud",
  paces: [
    { value: 60, name: "Very slowly" },
    { value: 80, name: "Slowly" },
    { value: 100, name: "As usual" },
    { value: 120, name: "Faster" },
  ],
  example: "Beans climb up a stick, and turn around it as they grow. By the middle of July they are taller than we are.",
});

/** A student's news. */
export const NEWS = catalogue("app.news", {
  title: "News",
  none: "Nothing new in the last 30 days.",
  what: {
    sent_back: "was sent back",
    accepted: "was accepted",
    commented: "has a comment",
    handin_set: "is asked for",
    show_page_opened: "Your show page is open to the class",
    own_due_set: "has a date of your own",
    handed_in: "was handed in by a student",
    join_requested: "asks for a student whom you know",
    join_settled: "was asked for, and there is an answer",
    list_arrived: "has a new class list waiting",
    pages_missing: "has your photographed pages without one that never arrived: look through them",
    picture_unreadable: "could not be read: add it once more",
    mail_bounced: "A mail to your address could not be delivered. Ask an administrator to look at the address.",
  },
  severalHandedIn: message<{ count: number }>("{count, plural, one {# student has} other {# students have}} handed it in"),
  mail: "By mail",
  hows: { at_once: "at once", daily: "once a day", never: "not at all" },
  mailKept: "Kept.",
  mailNotKept: "Not kept just now; choose once more.",
});

/** What goes on behind every view. */
export const GOES_ON = catalogue("app.goesOn", {
  arrived: "What you typed before has been saved now.",
});

/** One's own password, and where one is signed in. */
export const ACCOUNT = catalogue("app.account", {
  title: "Password and sign-ins",
  current: "Your password now",
  next: "The new one",
  change: "Change the password",
  changed: "Your password is changed. Everywhere else you are signed out.",
  everywhere: "Sign out everywhere",
  everywhereHint: "On every device, this one too: where you forgot to sign out, nobody goes on.",
});

/** A card opened over somebody's running sign-in. */
export const CARD = catalogue("app.card", {
  running: "is signed in here",
  ask: "Is this your card? Then they are signed out first. What they typed stays theirs.",
  go: "Sign in with the card",
  stay: "Go back",
});

/** Signing out while something is not up yet. */
export const LEAVE = catalogue("app.leave", {
  title: "Not everything is up yet",
  texts: message<{ count: number }>("{count, plural, one {A text is not saved yet.} other {# texts are not saved yet.}}"),
  forms: message<{ count: number }>("{count, plural, one {One thing that you typed is kept on this device only.} other {# things that you typed are kept on this device only.}}"),
  files: message<{ names: string; more: number }>("On their way: {names}{more, plural, =0 {} other { and # more}}."),
  gone: "If you sign out now, this is lost: nothing of yours stays on this device.",
  staysHere: "If you sign out now, it waits for you on this device.",
  stay: "Stay signed in",
  anyway: "Sign out all the same",
  again: "Try again",
  away: "You are still signed in: Coat Peg cannot be reached just now.",
  awayFix: "Try again in a moment, or close the browser on a device that others use.",
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

/** What each view is for, by the part of the address that names it: what it shows, and what is done in it. */
const HELP: Record<string, string> = catalogue("app.help", {
  pegs: "Every student by every hand-in: a coat says how each of them stands. Choose a coat to see the work beside the board; the filters leave those who need you.",
  pile: "What came in and waits for you, the oldest first. Write feedback, then accept it or send it back; the next one opens by itself.",
  "hand-ins": "A hand-in says which pockets are collected, from whom and by when. As soon as it is set it hangs on the rail, and every student who is asked sees it.",
  template: "The pockets that every portfolio of this class has, and what each asks for. What you save reaches everybody; nothing that a student wrote is touched.",
  look: "One pocket of everybody side by side, to see who has begun. Choose a student to look in; looking changes nothing.",
  shows: "Pages that students made of the work they are proud of. The class sees the ones that you open to it.",
  setup: "Who is in the class, who works with it, and the days of the school. Paste a list to bring students in: each has a portfolio from then on.",
  caseload: "The students you support, in all their classes. What is agreed here counts everywhere from its first day.",
  school: "The calendar, the accounts and the mail of the whole school. What you change here counts in every class.",
  requests: "Somebody asks for a student whom you know. Until you say yes, they see nothing of the student but the name they typed.",
  portfolio: "The portfolio as its student has it. Looking changes nothing; a comment is for the student to read.",
});

const STUDENT_HELP: Record<string, string> = catalogue("app.studentHelp", {
  portfolio: "Your work of the term, pocket by pocket: put things in as you go, and say what they show. All of it saves by itself; your teacher gets it when you hand it in.",
  "to-hand-in": "What is asked of you, the most urgent first, and what each still wants. Open one to go on with it.",
  feedback: "What came back to you, the newest first. “Sent back” means: change it, then hand it in again.",
  shows: "Pages that people in your class made of the work they are proud of. You make your own under “My pockets”.",
});

/** The help of a view for whoever looks at it; undefined where it has none. */
export function helpOf(view: string, student: boolean): string | undefined {
  return (student ? STUDENT_HELP : HELP)[view];
}
