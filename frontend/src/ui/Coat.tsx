/** The coats: one shape for each status, never colour alone. Labels in words stand beside or on the parent. */
import { useLayoutEffect, useRef } from "react";
import type { ReactNode } from "react";
import { keepPictured } from "./coatPictures";

export type StatusWord =
  | "not_asked"
  | "excused"
  | "accepted"
  | "sent_back"
  | "handed_in"
  | "not_open"
  | "working"
  | "empty";

export interface CoatState {
  status: StatusWord;
  late?: boolean;
  overdue?: boolean;
  locked?: boolean;
}

const COAT =
  "M9.2 5.8 12 7.8 14.8 5.8C17 6.3 18.2 7.2 18.8 9L20.6 15 18 16 16.5 12.6 17.2 21.6H6.8L7.5 12.6 6 16 3.4 15 5.2 9C5.8 7.2 7 6.3 9.2 5.8Z";

const FULL: Partial<Record<StatusWord, ReactNode>> = {
  handed_in: (
    <>
      <path d={COAT} className="fill-in stroke-in" strokeWidth="1.5" strokeLinejoin="round" />
      <path d="M12 9.5V20" className="stroke-paper" strokeWidth="1.1" />
      <circle cx="10.4" cy="13" r=".8" className="fill-paper" />
      <circle cx="10.4" cy="16.2" r=".8" className="fill-paper" />
    </>
  ),
  accepted: (
    <>
      <path d={COAT} className="fill-accepted stroke-accepted" strokeWidth="1.5" strokeLinejoin="round" />
      <path
        d="m9.2 14.8 2.1 2.1 3.7-4.3"
        className="fill-none stroke-paper"
        strokeWidth="1.9"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </>
  ),
  sent_back: (
    <>
      <path d={COAT} className="fill-copper-soft stroke-copper" strokeWidth="1.5" strokeLinejoin="round" />
      <path
        d="M9.6 14.6h3.6a2.2 2.2 0 0 1 0 4.4h-1.6M11.3 12.7l-1.9 1.9 1.9 1.9"
        className="fill-none stroke-copper"
        strokeWidth="1.5"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </>
  ),
  working: (
    <path d={COAT} className="fill-paper stroke-quiet" strokeWidth="1.5" strokeDasharray="2.3 1.9" strokeLinejoin="round" />
  ),
};

const BARE: Partial<Record<StatusWord, ReactNode>> = {
  empty: <circle cx="12" cy="13" r="3" className="fill-none stroke-control" strokeWidth="1.6" />,
  excused: <path d="M7.5 13h9" className="stroke-control" strokeWidth="2" strokeLinecap="round" />,
  not_open: <circle cx="12" cy="13" r="1.3" className="fill-control" />,
};

/** A coat of 24 units; decorative: whoever shows it says the status in words too. */
export function Coat({ state, size = 24 }: { state: CoatState; size?: number }) {
  return (
    <svg viewBox="0 0 24 24" width={size} height={size} aria-hidden className="shrink-0">
      <Shape state={state} />
    </svg>
  );
}

function Shape({ state: { status, late, overdue, locked } }: { state: CoatState }) {
  if (overdue && (status === "empty" || status === "working")) return <Overdue />;
  return (
    <>
      {FULL[status] && <circle cx="12" cy="3.2" r="1.9" className="fill-peg" />}
      {FULL[status] ?? BARE[status]}
      {overdue && <OverdueBadge />}
      {late && !overdue && <Late />}
      {locked && <Locked />}
    </>
  );
}

const SHARED = [...Object.keys(FULL), ...Object.keys(BARE)].flatMap((status) =>
  [{}, { late: true }, { overdue: true }].map((more) => ({ status: status as StatusWord, ...more })),
);

function shapeName({ status, late, overdue }: CoatState): string {
  return `coat-${status}${overdue ? "-overdue" : late ? "-late" : ""}`;
}

/** Every shape once, for a page that shows coats by the hundred: ``SharedCoat`` is a picture of one of them. */
export function CoatShapes() {
  const shapes = useRef<SVGSVGElement>(null);
  useLayoutEffect(() => (shapes.current ? keepPictured(shapes.current) : undefined), []);
  return (
    <svg ref={shapes} aria-hidden className="absolute size-0">
      {SHARED.map((state) => (
        <symbol key={shapeName(state)} id={shapeName(state)} viewBox="0 0 24 24">
          <Shape state={state} />
        </symbol>
      ))}
    </svg>
  );
}

/** The same coat as a picture of the shape that stands on the page already: one element in place of six. */
export function SharedCoat({ state, className = "" }: { state: CoatState; className?: string }) {
  return <span aria-hidden className={`coat ${shapeName(state)} ${className}`} />;
}

function Overdue() {
  return (
    <>
      <path d="M12 5.5 20 20.5H4Z" className="fill-overdue-soft stroke-overdue" strokeWidth="1.6" strokeLinejoin="round" />
      <path d="M12 11v4" className="stroke-overdue" strokeWidth="1.9" strokeLinecap="round" />
      <circle cx="12" cy="17.8" r="1.1" className="fill-overdue" />
    </>
  );
}

function OverdueBadge() {
  return (
    <>
      <path d="m18.6 13.4 4.6 8.6h-9.2Z" className="fill-overdue-soft stroke-overdue" strokeWidth="1.2" strokeLinejoin="round" />
      <path d="M18.6 16.8v2.2" className="stroke-overdue" strokeWidth="1.3" strokeLinecap="round" />
    </>
  );
}

function Late() {
  return (
    <>
      <circle cx="18.8" cy="18.6" r="4.3" className="fill-late stroke-late-ink" strokeWidth=".9" />
      <path d="M18.8 16.3v2.5l1.5 1" className="fill-none stroke-late-ink" strokeWidth="1.2" strokeLinecap="round" />
    </>
  );
}

function Locked() {
  return (
    <>
      <rect x="1.2" y="15.6" width="7.2" height="5.8" rx="1.2" className="fill-ink stroke-paper" strokeWidth="1" />
      <path d="M3 15.6v-1.3a1.8 1.8 0 0 1 3.6 0v1.3" className="fill-none stroke-ink" strokeWidth="1.3" />
    </>
  );
}
