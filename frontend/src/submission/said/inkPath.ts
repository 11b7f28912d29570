/** Strokes of a pen as outlines to fill. */
import { getStroke } from "perfect-freehand";
import type { Schema } from "../../api/client";
import { SCALE } from "./said";

export type Stroke = Schema["StrokeShape"];

/** The width of what ink is drawn on, as it is drawn; its height follows the picture. */
export const WIDE = 1000;

/** The outline of a stroke on a surface that is ``WIDE`` by ``tall``. */
export function inkPath(stroke: Stroke, tall: number): string {
  const points: [number, number, number][] = [];
  for (let at = 0; at + 2 < stroke.points.length; at += 3) {
    const [x = 0, y = 0, pressure = 50] = stroke.points.slice(at, at + 3);
    points.push([(x / SCALE) * WIDE, (y / SCALE) * tall, pressure / 100]);
  }
  const outline = getStroke(points, { size: (stroke.width / SCALE) * WIDE, thinning: 0.5, smoothing: 0.5, streamline: 0.3, simulatePressure: false });
  return outline.length === 0 ? "" : `M${outline.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;
}

/** Whether a stroke passes nearer to a place than ``near``; all as places are counted. */
export function passes(stroke: Stroke, x: number, y: number, near: number): boolean {
  for (let at = 0; at + 2 < stroke.points.length; at += 3) {
    if (Math.hypot((stroke.points[at] ?? 0) - x, (stroke.points[at + 1] ?? 0) - y) < near) return true;
  }
  return false;
}
