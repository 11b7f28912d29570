/** Which columns of the board are drawn, and how wide. */

interface Widths {
  name: number;
  period: number;
  filled: number;
  peg: number;
  sum: number;
  last: number;
}

/**
 * The tracks of the grid. With few hand-ins the columns keep together at the left: the last track takes what is over. Of
 * many, the tracks before and after those in view (``drawn``) stand for the others.
 */
export function tracks({ name, period, filled, peg, sum, last }: Widths, columns: number, pins: number, drawn: { from: number; to: number } | null): string {
  const end = `${sum}px ${last}px minmax(0, 1fr)`;
  if (!drawn) return `minmax(${name}px, 20rem) ${period}px ${filled}px repeat(${columns}, minmax(${peg}px, 7rem)) ${end}`;
  const pinned = pins > 0 ? `repeat(${pins}, ${peg}px) ` : "";
  return `${name}px ${period}px ${filled}px ${pinned}${(drawn.from - pins) * peg}px repeat(${drawn.to - drawn.from}, ${peg}px) ${(columns - drawn.to) * peg}px ${end}`;
}

/**
 * Where a pinned column stays while the others are scrolled sideways (pixels); null where it goes with them. A board is
 * only as wide as it must be where it is scrolled sideways, so the names and pinned columns have their least width then.
 */
export function leftOf(place: number, pins: number, beside: number, wide: number): number | null {
  return place < pins ? beside + place * wide : null;
}

/** The columns in view behind those that are pinned. */
export function spanOf(items: { index: number }[], pins: number): { from: number; to: number } {
  return { from: pins + (items[0]?.index ?? 0), to: pins + (items.at(-1)?.index ?? -1) + 1 };
}

/** The columns that are drawn: the pinned ones, then those in view. */
export function placesOf(pins: number, from: number, to: number): number[] {
  return [...Array.from({ length: pins }, (_, at) => at), ...Array.from({ length: Math.max(0, to - from) }, (_, at) => from + at)];
}
