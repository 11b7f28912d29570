/** The words of the frame. */
export const TEXTS = {
  name: "Coat Peg",
  find: "Find a student",
  skip: "Skip to the content",
  views: "Views",
  chooseClass: "Choose a class",
  away: "Coat Peg cannot be reached just now. It keeps trying; what you typed is safe on this device.",
  back: "Connected again.",
  newClass: "Start a class",
  feed: "Due dates in your calendar",
  signOut: "Sign out",
  school: "The school",
  signIn: "Sign in",
  userName: "User name",
  password: "Password",
  demo: "The demo's people",
  demoHint: "Made up, each with the same password. Press one to look around as them.",
  signedOut: "You were signed out. What you typed is kept on this device and comes back when you sign in.",
  noClass: "You are in no class yet",
  noClassHint: "The lead of a class can add you. Classes show here as soon as they did.",
  lost: "There is nothing at this address",
  lostHint: "It may have moved, or it is not for you.",
  home: "Go to the start",
} as const;

export const STAFF_VIEWS = { pegs: "Pegs", pile: "Marking pile", handins: "Hand-ins", template: "Template", setup: "Set-up", caseload: "Caseload" } as const;
export const STUDENT_VIEWS = { pockets: "My pockets", toHandIn: "To hand in", feedback: "Feedback" } as const;
