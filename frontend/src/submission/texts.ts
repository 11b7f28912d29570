/** The words of handing in. */
export const TEXTS = {
  handIn: "Hand in",
  handInAgain: "Hand in again",
  handInAnyway: "Hand in anyway",
  takeBack: "Take back",
} as const;
