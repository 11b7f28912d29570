/** The words of live. */
export const TEXTS = {
  itCouldNotBeUndone: "It could not be undone.",
} as const;
