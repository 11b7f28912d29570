/** A picture or a page with what is said on it: looked at larger and turned, drawn on, commented on a spot. */
import { useEffect, useRef, useState } from "react";
import type { KeyboardEvent, MouseEvent, ReactNode } from "react";
import { Ink } from "./Ink";
import { SAID } from "./saidTexts";
import { begin, numbered, SCALE, surfaceOf } from "./said";
import type { Said, Target } from "./said";

/** How it is looked at. */
export interface Looked {
  /** 1: as large as the window has room for. */
  zoom: number;
  /** Quarters of a turn. */
  turned: number;
}

interface Props {
  said: Said;
  target: Target;
  looked: Looked;
  /** Width and height, where they are known before it is loaded. */
  size: { width: number; height: number } | null;
  /** The picture, to fill what it lies in; it says how large it is once it is there. */
  picture: (onSize: (width: number, height: number) => void) => ReactNode;
}

const TALLEST = 0.7;
/** Of the window's height. */

export function SaidSurface({ said, target, looked, size, picture }: Props) {
  const [loaded, setLoaded] = useState(size);
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(0);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(() => setRoom(element.clientWidth));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const { width, height } = loaded ?? { width: 4, height: 3 };
  const lying = looked.turned % 2 === 1;
  const ratio = height / width;
  // As it is seen: turned by a quarter its sides change places.
  const seenRatio = lying ? 1 / ratio : ratio;
  const fit = Math.min(room, (window.innerHeight * TALLEST) / seenRatio);
  const wide = Math.round(fit * looked.zoom);
  const tall = Math.round(wide * seenRatio);
  return (
    <div ref={box} tabIndex={looked.zoom > 1 ? 0 : undefined} role={looked.zoom > 1 ? "region" : undefined} aria-label={looked.zoom > 1 ? SAID.looking : undefined} className="max-h-[72vh] w-full overflow-auto">
      <div className="relative mx-auto" style={{ width: wide, height: tall }}>
        <div
          className="absolute top-1/2 left-1/2 origin-center rounded-md border border-edge bg-paper"
          style={{ width: lying ? tall : wide, height: lying ? wide : tall, transform: `translate(-50%, -50%) rotate(${looked.turned * 90}deg)` }}
        >
          {picture((w, h) => setLoaded({ width: w, height: h }))}
          <Ink said={said} target={target} ratio={ratio} />
          <Pins said={said} target={target} turned={looked.turned} />
        </div>
      </div>
    </div>
  );
}

/** The comments on spots of this surface; and, while one is placed, the cross. */
function Pins({ said, target, turned }: { said: Said; target: Target; turned: number }) {
  const numbers = numbered(said.list);
  const pins = said.list.filter((one) => one.target.spot && surfaceOf(one.target) === surfaceOf(target));
  const upright = { transform: `translate(-50%, -50%) rotate(${turned * -90}deg)` };
  const placing = said.composing?.target.spot && surfaceOf(said.composing.target) === surfaceOf(target) ? said.composing : null;
  return (
    <>
      {pins
        .filter((one) => one.key !== placing?.key)
        .map((one) => (
          <button
            key={one.id}
            type="button"
            aria-label={SAID.placeNumber({ number: numbers.get(one.id) ?? 0, text: one.text || SAID.voice })}
            aria-pressed={said.active === one.id}
            onClick={() => said.choose(one.id)}
            style={{ left: percent(one.target.spot?.x), top: percent(one.target.spot?.y), ...upright }}
            className={`figures absolute flex size-7 items-center justify-center rounded-full border-2 border-paper text-sm font-bold shadow ${said.active === one.id ? "bg-copper text-paper" : "bg-ink text-paper"}`}
          >
            {numbers.get(one.id)}
          </button>
        ))}
      {placing && (
        <span aria-hidden style={{ left: percent(placing.target.spot?.x), top: percent(placing.target.spot?.y), ...upright }} className="absolute size-7 rounded-full border-2 border-paper bg-copper shadow" />
      )}
      {said.writes && said.tool === "spot" && <Placing said={said} target={target} />}
    </>
  );
}

function percent(at: number | undefined): string {
  return `${((at ?? 0) / SCALE) * 100}%`;
}

const STEP = 250;
/** By which an arrow moves the cross. */
const MOVES: Record<string, [number, number]> = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] };

/** Where a comment belongs: pressed, or walked to by arrows. */
function Placing({ said, target }: { said: Said; target: Target }) {
  const [cross, setCross] = useState({ x: SCALE / 2, y: SCALE / 2 });
  const place = (x: number, y: number) => {
    said.setTool("look");
    said.compose(begin({ ...target, spot: { x, y, w: 0, h: 0 } }));
  };
  const press = (event: MouseEvent<HTMLButtonElement>) => {
    // By the keyboard a press has no place of its own.
    if (event.detail === 0) place(cross.x, cross.y);
    else place(...within(event.nativeEvent.offsetX / event.currentTarget.clientWidth, event.nativeEvent.offsetY / event.currentTarget.clientHeight));
  };
  const walk = (event: KeyboardEvent) => {
    if (event.key === "Escape") said.setTool("look");
    const by = MOVES[event.key];
    if (!by) return;
    event.preventDefault();
    const inside = (one: number) => Math.min(Math.max(one, 0), SCALE);
    setCross({ x: inside(cross.x + by[0]), y: inside(cross.y + by[1]) });
  };
  return (
    // eslint-disable-next-line jsx-a11y/no-autofocus -- whoever takes up the tool goes on with it
    <button type="button" autoFocus aria-label={SAID.cross} onClick={press} onKeyDown={walk} className="group absolute inset-0 cursor-crosshair">
      <span aria-hidden style={{ left: percent(cross.x), top: percent(cross.y) }} className="pointer-events-none absolute hidden size-7 -translate-1/2 rounded-full border-2 border-copper bg-paper/60 group-focus-visible:block" />
    </button>
  );
}

function within(x: number, y: number): [number, number] {
  const one = (at: number) => Math.round(Math.min(Math.max(at, 0), 1) * SCALE);
  return [one(x), one(y)];
}
