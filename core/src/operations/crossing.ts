import type { HoleFeature } from '../features/hole/schema.ts';
import { narrowest } from '../features/hole/recognise.ts';
import { cross, dot, length, scale, sub } from '../geometry/vec.ts';

/** Axes nearer to one line than this sine run along each other: no crossing. */
const LEAST_SINE = 0.2;

/**
 * Where the wall of `hole` is broken by `other`: from and to, mm below the hole's entry along its axis. Null where the two do not meet, or
 * run along each other. A cylinder across a cylinder: half its length is (R + r·|cos|)/sin about the place where the axes are nearest.
 */
export function crossing(hole: HoleFeature, other: HoleFeature): { top: number; end: number } | null {
  const down = scale(hole.axis, -1);
  const across = scale(other.axis, -1);
  const normal = cross(down, across);
  const sine = length(normal);
  if (sine < LEAST_SINE) return null;
  const between = sub(other.entry, hole.entry);
  const cosine = dot(down, across);
  const [a, b] = [dot(between, down), dot(between, across)];
  const t = (a - b * cosine) / (sine * sine);
  const s = (a * cosine - b) / (sine * sine);
  const r = narrowest(hole) / 2;
  if (s < -r || s > other.depth + r) return null;
  const R = widthAt(other, s) / 2;
  if (Math.abs(dot(between, normal)) / sine >= r + R) return null;
  const half = (R + r * Math.abs(cosine)) / sine;
  const [top, end] = [Math.max(0, t - half), Math.min(hole.depth, t + half)];
  return end > top + 1e-6 ? { top, end } : null;
}

/** Diameter of a hole at a depth below its entry, mm; beyond its ends that of its last step. */
function widthAt(hole: HoleFeature, depth: number): number {
  let from = 0;
  for (const s of hole.stack) {
    if (s.shape === 'flat') continue;
    if (depth <= from + s.length)
      return s.shape === 'cylinder' ? s.diameter : Math.max(s.startDiameter, s.endDiameter);
    from += s.length;
  }
  return narrowest(hole);
}
