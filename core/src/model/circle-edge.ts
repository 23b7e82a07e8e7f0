import { dot, length, reject, sub, type Vec3 } from '../geometry/vec.ts';

/** Segments for a full turn of radius `r` so that the chord error stays below `tolerance` (mm): 24 to 120. */
export function segmentsPerTurn(radius: number, tolerance = 0.02): number {
  const step = 2 * Math.acos(Math.max(0, 1 - tolerance / Math.max(radius, tolerance)));
  return Math.min(120, Math.max(24, Math.ceil((2 * Math.PI) / step)));
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
