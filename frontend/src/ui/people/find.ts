/** Finding people by any part of their name, without case and accents. */

/** A text folded as the server folds what it gives in ``find``. */
export function folded(text: string): string {
  return text.normalize("NFKD").toLowerCase().normalize("NFKD").replace(/\p{M}/gu, "");
}

/** Those of whom every word that was typed is a part. */
export function found<T extends { find: string }>(people: T[], typed: string): T[] {
  const words = folded(typed).split(/\s+/).filter(Boolean);
  return people.filter((one) => words.every((word) => one.find.includes(word)));
}
