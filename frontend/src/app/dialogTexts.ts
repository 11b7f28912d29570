/** The words of what is opened in the frame when it is wanted: signing in, dialogs, a class to start. */
import { catalogue, message } from "../language/catalogue";
import { STAFF_VIEWS } from "./texts";

export const DIALOGS = catalogue("app.dialogs", {
  noClass: "You are in no class yet",
  noClassHint: "The lead of a class can add you; staff can start one of their own.",
  startAClass: "Start a class",
  signIn: "Sign in",
  userName: "User name",
  password: "Password",
  noUserName: "Type your user name.",
  noPassword: "Type your password.",
  students: "Students: scan the code on your card with the camera of the device, or type the user name that stands on it.",
  newPassword: "No password, or it does not work? A student’s teacher can give a new one; for staff, an administrator of the school can.",
  demo: "The demo's people",
  demoHint: "Made up, each with the same password. Press one to look around as them.",
  signedOut: "You were signed out. What you typed is kept on this device and comes back when you sign in.",
  dueDatesInYourOwn: "Due dates in your own calendar",
  aCalendarProgramThatSubscribes: "A calendar program that subscribes to your address shows when what is due. Whoever has the address can read titles and classes, nothing else.",
  yourAddressShownThisOnce: "Your address, shown this once",
  youMadeAnAddressOn: message<{ since: string }>("You made an address on {since}. It works until you make another one or end it."),
  makeANewOne: "Make a new one",
  makeAnAddress: "Make an address",
  endIt: "End it",
  thisCardCouldNotBe: "This card could not be read.",
  tryAgain: "Try again.",
  signInByName: "Sign in by name",
  oneMoment: "One moment …",
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
      ["c", "opens the cupboard beside the page, and closes it; on the marking pile it comments"],
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
        ["v", "shows something else on the pegs: coats, points, days late, how much is there"],
        ["Shift ← → ↑ ↓", "chooses pegs along the way; Ctrl A all that are shown, Ctrl Space one"],
        ["Escape", "closes the opened peg, back to the board; lets go of what is chosen"],
      ],
    },
    pile: {
      title: STAFF_VIEWS.pile,
      keys: [
        ["f", "goes to the feedback"],
        [";", "in the feedback, with a few letters: finds a phrase"],
        ["n b", "the next one, the one before; this one stays on the pile"],
        [", .", "the artefact before, the next one, in a pocket with several"],
        ["c", "comments on the words that are chosen, else on a spot of the picture; Ctrl Enter keeps it"],
        ["d", "draws on the picture, and stops drawing; Ctrl Z undoes a stroke"],
        ["w", "lays something beside the work: an earlier submission, what they began with, another student’s"],
        ["+ - r", "a picture larger, smaller, turned"],
        ["1 … 8 0", "the level of the first open criterion of a rubric; 0: not judged"],
        ["Ctrl Enter", "accepts, and opens the next"],
        ["Ctrl Shift Enter", "asks what opens again; Enter sends back, and opens the next"],
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
