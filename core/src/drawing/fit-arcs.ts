import { arcThrough } from '../geometry/arc-through.ts';
import { at } from '../lists.ts';
import { distance2, segmentLength, type Segment, type Vec2 } from '../geometry/path.ts';

/** How far lines and arcs may lie off the curve that they stand for, mm. */
export const FIT = 0.002;
const DEEPEST = 14;

/** Lines and arcs along a smooth curve, halved until each lies within {@link FIT} of it; equal neighbours are joined. */
export function fitArcs(point: (t: number) => Vec2, from: number, to: number): Segment[] {
  const out: Segment[] = [];
  // In halves at once: a curve that closes on itself has its ends in one place.
  const middle = (from + to) / 2;
  fit(point, from, middle, 0, out);
  fit(point, middle, to, 0, out);
  return joinEqual(out);
}

function fit(point: (t: number) => Vec2, from: number, to: number, depth: number, out: Segment[]): void {
  const [a, m, b] = [point(from), point((from + to) / 2), point(to)];
  const s = arcThrough(a, m, b);
  const probes = [1, 2, 3, 5, 6, 7].map((k) => point(from + (k / 8) * (to - from)));
  // At a cusp the circle through three points may go the long way round: the way along the points says so.
  const way = [a, ...probes.slice(0, 3), m, ...probes.slice(3), b];
  const along = way.slice(1).reduce((sum, p, i) => sum + distance2(p, at(way, i)), 0);
  const isShort = segmentLength(s) <= 1.2 * along;
  if (depth >= DEEPEST || (isShort && probes.every((p) => off(s, p) <= FIT))) {
    if (distance2(a, b) > 1e-9) out.push(isShort ? s : { kind: 'line', from: a, to: b });
    return;
  }
  const half = (from + to) / 2;
  fit(point, from, half, depth + 1, out);
  fit(point, half, to, depth + 1, out);
}

function off(s: Segment, p: Vec2): number {
  if (s.kind === 'arc') return Math.abs(distance2(p, s.centre) - s.radius);
  const l = distance2(s.from, s.to);
  if (l < 1e-12) return distance2(p, s.from);
  return (
    Math.abs((s.to[0] - s.from[0]) * (p[1] - s.from[1]) - (s.to[1] - s.from[1]) * (p[0] - s.from[0])) / l
  );
}

/** Neighbours on one circle are one arc: a circle stored as a spline is a circle again. */
function joinEqual(segments: Segment[]): Segment[] {
  const out: Segment[] = [];
  for (const s of segments) {
    const last = out[out.length - 1];
    const isOne =
      last?.kind === 'arc' &&
      s.kind === 'arc' &&
      distance2(last.centre, s.centre) < FIT &&
      Math.abs(last.radius - s.radius) < FIT &&
      Math.sign(last.turn) === Math.sign(s.turn);
    if (isOne) [last.to, last.turn] = [s.to, last.turn + s.turn];
    else out.push({ ...s });
  }
  const [only] = out;
  // Rounding must not leave a full circle a hair open.
  if (out.length === 1 && only?.kind === 'arc' && Math.abs(Math.abs(only.turn) - 2 * Math.PI) < 1e-6)
    return [{ ...only, to: only.from, turn: Math.sign(only.turn) * 2 * Math.PI }];
  return out;
}
