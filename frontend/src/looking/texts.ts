/** The words of looking in over a class. */
export const LOOKING = {
  title: "Look in",
  pocket: "Pocket",
  begun: "have begun",
  full: "have everything",
  order: "Order",
  byName: "by name",
  byWork: "newest work first",
  empty: "Nothing yet",
  noPocket: "There is no pocket in this class yet",
  noPocketHint: "Lay one out in the template, and everybody's shows here.",
  noStudent: "There is nobody in this class yet.",
} as const;
