/** Ink over a picture or a page: what is drawn there, and drawing by pen, finger or mouse. */
import { memo, useRef } from "react";
import type { PointerEvent } from "react";
import { Notice } from "../../ui/Notice";
import { inkPath, passes, WIDE } from "./inkPath";
import type { Stroke } from "./inkPath";
import { INKS, SCALE, surfaceOf } from "./said";
import type { Said, Target } from "./said";
import { useInk } from "./useInk";

const WIDTH = 60;
/** Of a stroke, in ten-thousandths of what it lies on. */
const NEAR = 130;
/** How near the eraser has to come. */

interface Props {
  said: Said;
  target: Target;
  /** Height over width of what it lies on. */
  ratio: number;
}

export function Ink({ said, target, ratio }: Props) {
  const ink = useInk(said, target);
  const tall = WIDE * ratio;
  const others = said.list.filter((one) => one.kind === "ink" && surfaceOf(one.target) === surfaceOf(target) && !(one.mine && !one.shown));
  const drawing = said.writes && (said.tool === "ink" || said.tool === "erase");
  const svg = useRef<SVGSVGElement>(null);
  const live = useRef<SVGPathElement>(null);
  const points = useRef<number[]>([]);
  const touched = useRef<Stroke[]>([]);

  /** A place under the pointer, as places are counted, also where the picture is turned. */
  const place = (event: { clientX: number; clientY: number }): [number, number] => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return [0, 0];
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const within = (one: number) => Math.round(Math.min(Math.max(one, 0), 1) * SCALE);
    return [within(x / WIDE), within(y / tall)];
  };
  const stroke = (): Stroke => ({ colour: said.colour, width: WIDTH, points: points.current });
  const show = () => live.current?.setAttribute("d", points.current.length > 0 ? inkPath(stroke(), tall) : "");
  const add = (event: PointerEvent) => {
    const all = event.nativeEvent.getCoalescedEvents();
    for (const one of all.length > 0 ? all : [event.nativeEvent]) {
      const [x, y] = place(one);
      if (said.tool === "erase") touched.current.push(...ink.strokes.filter((each) => !touched.current.includes(each) && passes(each, x, y, NEAR)));
      else points.current.push(x, y, event.pointerType === "pen" ? Math.round(one.pressure * 100) : 50);
    }
    show();
  };
  return (
    <>
      <svg
        ref={svg}
        aria-hidden
        viewBox={`0 0 ${WIDE} ${tall}`}
        preserveAspectRatio="none"
        data-ink
        className={`absolute inset-0 size-full ${drawing ? "cursor-crosshair touch-none" : "pointer-events-none"}`}
        onPointerDown={(event) => {
          if (!drawing || event.button !== 0) return;
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          points.current = [];
          touched.current = [];
          add(event);
        }}
        onPointerMove={(event) => {
          if (drawing && event.currentTarget.hasPointerCapture(event.pointerId)) add(event);
        }}
        onPointerUp={() => {
          if (said.tool === "erase") ink.erase(touched.current);
          else if (points.current.length > 0) ink.draw(stroke());
          points.current = [];
          show();
        }}
        onPointerCancel={() => {
          points.current = [];
          show();
        }}
      >
        {others.map((one) => (
          <Strokes key={one.id} strokes={one.strokes} tall={tall} />
        ))}
        <Strokes strokes={ink.strokes} tall={tall} />
        <path ref={live} className={`${INKS[said.colour].fill} stroke-ink-edge`} strokeWidth={1.5} paintOrder="stroke" />
      </svg>
      {ink.problem && (
        <div className="absolute inset-x-2 top-2 z-10">
          <Notice title={ink.problem.title} fix={ink.problem.fix} />
        </div>
      )}
    </>
  );
}

const Strokes = memo(function Strokes({ strokes, tall }: { strokes: Stroke[]; tall: number }) {
  return strokes.map((one, at) => <OneStroke key={at} stroke={one} tall={tall} />);
});

/** A stroke that is there is worked out once. */
const OneStroke = memo(function OneStroke({ stroke, tall }: { stroke: Stroke; tall: number }) {
  return <path d={inkPath(stroke, tall)} className={`${INKS[stroke.colour].fill} stroke-ink-edge`} strokeWidth={1.5} paintOrder="stroke" />;
});
