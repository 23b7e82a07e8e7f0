import { distance, dot, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import type { Edge } from './solid-model.ts';

/** Segments for a full turn of radius `r` so that the chord error stays below `tolerance` (mm): 24 to 120. */
export function segmentsPerTurn(radius: number, tolerance = 0.02): number {
  const step = 2 * Math.acos(Math.max(0, 1 - tolerance / Math.max(radius, tolerance)));
  return Math.min(120, Math.max(24, Math.ceil((2 * Math.PI) / step)));
}

/** Directions and places that differ by less are one but for rounding: a cosine's distance from one, and mm. */
const SAME_DIRECTION = 1e-12;
const SAME_LINE = 1e-6;

/** True for an edge that is a circle, or a part of one, exactly about a line: its points are all at one height along it. */
export function isArcAbout({ curve }: Edge, origin: Vec3, direction: Vec3): boolean {
  return (
    curve.kind === 'circle' &&
    Math.abs(dot(curve.axis, direction)) > 1 - SAME_DIRECTION &&
    length(reject(sub(curve.centre, origin), direction)) < SAME_LINE
  );
}

/** True for an edge that ends where it begins. */
export function isClosedEdge({ points }: Edge): boolean {
  const [start, end] = [points[0], points[points.length - 1]];
  return start !== undefined && end !== undefined && distance(start, end) < SAME_LINE;
}

/** True when all points lie within `tolerance` on one circle about the axis line (same height, same radius). */
export function isCircleAbout(points: Vec3[], origin: Vec3, axis: Vec3, tolerance = 5e-3): boolean {
  const first = points[0];
  if (!first) return false;
  const h = dot(sub(first, origin), axis);
  const r = length(reject(sub(first, origin), axis));
  return points.every((p) => {
    const d = sub(p, origin);
    return Math.abs(dot(d, axis) - h) <= tolerance && Math.abs(length(reject(d, axis)) - r) <= tolerance;
  });
}
