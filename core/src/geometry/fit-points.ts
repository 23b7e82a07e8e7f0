import { at, first, last } from '../lists.ts';
import { arcThrough } from './arc-through.ts';
import { distance2, type Segment, type Vec2 } from './path.ts';

/** An arc has at least so many chords: fewer points lie on a circle by chance. */
const LEAST_CHORDS = 4;
/** A chord of an arc turns no more than this, radians: what turns more is a corner. */
const MOST_TURN = 0.6;
/** And no arc more than this, radians: where its ends come near each other its circle is not well known. */
const MOST_ARC = 1.6 * Math.PI;
/** The largest arc, mm: beyond it a line does as well. */
const MOST_RADIUS = 2e4;

/**
 * Lines and arcs through the points of a border, each point within `tolerance` of them (mm), and each chord's middle within `sagitta`: as far
 * as one reaches before the next begins. A run that closes on itself begins at its first point.
 */
export function fitPoints(points: readonly Vec2[], tolerance: number, sagitta = tolerance): Segment[] {
  const out: Segment[] = [];
  let i = 0;
  while (i + 1 < points.length) {
    const line = reachOf(points, i, (k) => fitsLine(points, i, k, tolerance));
    const arc =
      points.length - i > LEAST_CHORDS
        ? reachOf(points, i, (k) => fitsArc(points, i, k, tolerance, sagitta))
        : i;
    const isArc = arc - i >= LEAST_CHORDS && arc > line;
    const end = isArc ? arc : Math.max(i + 1, line);
    out.push(isArc ? circleOf(points, i, end) : { kind: 'line', from: at(points, i), to: at(points, end) });
    i = end;
  }
  return wholeCircle(out);
}

/** The last point that still fits: doubled steps, then halves between the last that did and the first that did not. */
function reachOf(points: readonly Vec2[], from: number, fits: (to: number) => boolean): number {
  let good = from + 1;
  let step = 1;
  while (good + step < points.length && (step < LEAST_CHORDS || fits(good + step))) {
    good += step;
    step *= 2;
  }
  if (!fits(good)) return from + 1;
  let bad = Math.min(points.length, good + step);
  while (bad - good > 1) {
    const mid = Math.floor((good + bad) / 2);
    if (fits(mid)) good = mid;
    else bad = mid;
  }
  return good;
}

function fitsLine(points: readonly Vec2[], i: number, k: number, tolerance: number): boolean {
  const [a, b] = [at(points, i), at(points, k)];
  const l = distance2(a, b);
  if (l < 1e-9) return k === i + 1;
  const [ux, uy] = [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
  let along = -1e-9;
  for (let n = i + 1; n <= k; n++) {
    const [dx, dy] = [at(points, n)[0] - a[0], at(points, n)[1] - a[1]];
    const t = dx * ux + dy * uy;
    if (Math.abs(dx * uy - dy * ux) > tolerance || t < along - tolerance) return false;
    along = t;
  }
  return true;
}

const circleOf = (points: readonly Vec2[], i: number, k: number): Segment =>
  arcThrough(at(points, i), at(points, Math.floor((i + k) / 2)), at(points, k));

function fitsArc(points: readonly Vec2[], i: number, k: number, tolerance: number, sagitta: number): boolean {
  if (k - i < LEAST_CHORDS) return true;
  const s = circleOf(points, i, k);
  if (s.kind === 'line' || s.radius > MOST_RADIUS) return false;
  const sense = Math.sign(s.turn);
  let turned = 0;
  for (let n = i; n < k; n++) {
    const [p, q] = [at(points, n), at(points, n + 1)];
    if (Math.abs(distance2(q, s.centre) - s.radius) > tolerance) return false;
    const middle: Vec2 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
    if (Math.abs(distance2(middle, s.centre) - s.radius) > sagitta) return false;
    const [ax, ay] = [p[0] - s.centre[0], p[1] - s.centre[1]];
    const [bx, by] = [q[0] - s.centre[0], q[1] - s.centre[1]];
    const turn = sense * Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    if (turn < -1e-6 || turn > MOST_TURN) return false;
    turned += turn;
  }
  return turned <= MOST_ARC;
}

/** Two arcs of one circle that close it are one. */
function wholeCircle(chain: Segment[]): Segment[] {
  if (chain.length !== 2) return chain;
  const [a, b] = [first(chain), last(chain)];
  if (a.kind !== 'arc' || b.kind !== 'arc' || distance2(a.from, b.to) > 1e-6 || a.turn * b.turn < 0)
    return chain;
  if (distance2(a.centre, b.centre) > 0.005 || Math.abs(a.radius - b.radius) > 0.005) return chain;
  return [{ ...a, to: a.from, turn: Math.sign(a.turn) * 2 * Math.PI }];
}
