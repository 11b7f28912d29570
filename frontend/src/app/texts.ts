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

export const STAFF_VIEWS = { pegs: "Pegs", pile: "Marking pile", handins: "Hand-ins", template: "Template", look: "Look in", shows: "Show pages", setup: "Set-up", caseload: "Caseload" } as const;
export const STUDENT_VIEWS = { pockets: "My pockets", toHandIn: "To hand in", feedback: "Feedback", shows: "Show pages" } as const;

/** How one likes to read. */
export const READING = {
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
  tint: "Ground",
  tints: [
    { value: "none", name: "White" },
    { value: "cream", name: "Cream" },
    { value: "mint", name: "Mint" },
    { value: "sky", name: "Sky" },
    { value: "rose", name: "Rose" },
  ],
  ruler: "A ruler that follows the pointer",
  pace: "Reading aloud",
  paces: [
    { value: 60, name: "Very slowly" },
    { value: 80, name: "Slowly" },
    { value: 100, name: "As usual" },
    { value: 120, name: "Faster" },
  ],
  example: "Beans climb up a stick, and turn around it as they grow. By the middle of July they are taller than we are.",
} as const;

/** A student's news. */
export const NEWS = {
  title: "News",
  none: "Nothing new in the last 30 days.",
  what: {
    sent_back: "was sent back",
    accepted: "was accepted",
    commented: "has a comment",
    handin_set: "is asked for",
    show_page_opened: "Your show page is open to the class",
    own_due_set: "has a date of your own",
  },
} as const;
