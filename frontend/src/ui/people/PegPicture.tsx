/** The small picture and tint that mark a student's peg; the eight tints, each readable with its ink. */
import pegs from "./pegs.svg";

export const TINTS = [
  "bg-tint-0 text-tint-0-ink",
  "bg-tint-1 text-tint-1-ink",
  "bg-tint-2 text-tint-2-ink",
  "bg-tint-3 text-tint-3-ink",
  "bg-tint-4 text-tint-4-ink",
  "bg-tint-5 text-tint-5-ink",
  "bg-tint-6 text-tint-6-ink",
  "bg-tint-7 text-tint-7-ink",
];

interface Props {
  picture: string;
  tint: number;
  size?: number;
}

/** Decorative: the name stands beside it. */
export function PegPicture({ picture, tint, size = 26 }: Props) {
  return (
    <span
      aria-hidden
      className={`inline-flex shrink-0 items-center justify-center rounded-md ${TINTS[tint % TINTS.length] ?? ""}`}
      style={{ width: size, height: size }}
    >
      <svg width={size * 0.65} height={size * 0.65} fill="none" stroke="currentColor" strokeWidth={size > 40 ? 1.8 : 2} strokeLinecap="round" strokeLinejoin="round">
        <use href={`${pegs}#${picture}`} />
      </svg>
    </span>
  );
}
