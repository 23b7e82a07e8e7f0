import type { Chain } from '../brep/chain.ts';
import { curvePoint } from '../brep/evaluate.ts';
import { splineRange, type BrepCurve, type Nurbs, type Placement } from '../brep/geometry.ts';
import { distance, dot, sub, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';

/** Farther from its curve than this an end of an edge does not lie on it, mm. */
const OFF_CURVE = 0.05;
const TURN = 2 * Math.PI;
/** Places that are tried in each piece of a spline. */
const STEPS = 8;

/** Parameters of an edge on its curve, from its start to its end in the curve's own direction. */
export interface EdgeRange {
  first: number;
  last: number;
  /** How far the worse of its ends lies off the curve, mm. */
  off: number;
}

/**
 * Where on its curve an edge runs that begins at `from` and ends at `to`, in the curve's own direction. Both in one place: once round a closed
 * curve. Null where the curve cannot run from one to the other.
 */
export function edgeRange(c: BrepCurve, from: Vec3, to: Vec3, isClosed: boolean): EdgeRange | null {
  const a = parameterAt(c, from);
  const b = isClosed ? a : parameterAt(c, to);
  const period = periodOf(c);
  let last = b;
  if (period !== null && (isClosed || last <= a + 1e-9 * period)) last += period;
  if (last <= a) return null;
  return {
    first: a,
    last,
    off: Math.max(distance(curvePoint(c, a), from), distance(curvePoint(c, last), to)),
  };
}

/** Whether an edge's ends lie on its curve as far as files are exact. */
export const isOnCurve = (r: EdgeRange): boolean => r.off <= OFF_CURVE;

/** After how much of its parameter a curve comes back to where it was; null where it does not. */
function periodOf(c: BrepCurve): number | null {
  if (c.kind === 'circle' || c.kind === 'ellipse') return TURN;
  if (c.kind === 'chain') return c.closed ? c.pieces.length : null;
  if (c.kind !== 'nurbs') return null;
  const [from, to] = splineRange(c.nurbs);
  return distance(curvePoint(c, from), curvePoint(c, to)) < 1e-4 ? to - from : null;
}

/** The parameter of the place on a curve that is nearest to a point. */
function parameterAt(c: BrepCurve, p: Vec3): number {
  switch (c.kind) {
    case 'line':
      return dot(sub(p, c.origin), c.direction) / dot(c.direction, c.direction);
    case 'circle':
    case 'ellipse': {
      const [x, y] = flat(c.at, p);
      return c.kind === 'circle' ? Math.atan2(y, x) : Math.atan2(y / c.minor, x / c.major);
    }
    case 'parabola':
      return flat(c.at, p)[1];
    case 'hyperbola':
      return Math.asinh(flat(c.at, p)[1] / c.minor);
    case 'nurbs':
      return nearestOn(c, splineRange(c.nurbs), spansOf(c.nurbs), p);
    case 'offset':
      return parameterAt(c.basis, p);
    case 'chain':
      return onChain(c, p);
  }
}

/** The parameter of a chain: that of the nearest of its pieces' nearest places. */
function onChain({ pieces }: Chain, p: Vec3): number {
  let [best, least] = [0, Infinity];
  pieces.forEach(({ curve, first, last }, i) => {
    const own = parameterAt(curve, p);
    const period = periodOf(curve);
    const near = period === null ? own : own + period * Math.ceil((first - own) / period - 1e-9);
    for (const u of [Math.max(first, Math.min(last, near)), first, last]) {
      const off = distance(curvePoint(curve, u), p);
      if (off < least - 1e-9) [best, least] = [i + (u - first) / (last - first), off];
    }
  });
  return best;
}

function flat(at: Placement, p: Vec3): [number, number] {
  const d = sub(p, at.origin);
  return [dot(d, at.x), dot(d, at.y)];
}

/** The ends of a spline's pieces, ascending. */
function spansOf(n: Nurbs<Vec3>): number[] {
  const [from, to] = splineRange(n);
  return [...new Set(n.knots.filter((k) => k >= from && k <= to))];
}

/** Nearest place by trying each piece in steps and closing in on the best. */
function nearestOn(c: BrepCurve, [from, to]: [number, number], ends: readonly number[], p: Vec3): number {
  const off = (u: number): number => distance(curvePoint(c, u), p);
  // Nearly every edge ends where its spline does.
  if (off(from) < 1e-6) return from;
  if (off(to) < 1e-6) return to;
  const tried = ends.flatMap((end, i) => {
    const next = ends[i + 1];
    if (next === undefined) return [end];
    return Array.from({ length: STEPS }, (_, k) => end + ((next - end) * k) / STEPS);
  });
  let [best, least] = [0, Infinity];
  tried.forEach((u, i) => {
    const d = off(u);
    if (d < least) [best, least] = [i, d];
  });
  // Golden section between its neighbours: pieces may be of very unlike lengths.
  let [lo, hi] = [tried[best - 1] ?? from, tried[best + 1] ?? to];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 60 && hi - lo > 1e-13 * (to - from); i++) {
    const [u, v] = [hi - golden * (hi - lo), lo + golden * (hi - lo)];
    if (off(u) < off(v)) hi = v;
    else lo = u;
  }
  const middle = (lo + hi) / 2;
  return off(middle) <= least ? middle : at(tried, best);
}
