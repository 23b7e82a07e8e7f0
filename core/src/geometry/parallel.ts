import { at, first, last } from '../lists.ts';
import {
  cross2,
  distance2,
  dot2,
  lineDirection,
  sub2,
  tangentAt,
  turnBetween,
  type Segment,
  type Vec2,
} from './path.ts';

type Arc = Extract<Segment, { kind: 'arc' }>;
type Line = Extract<Segment, { kind: 'line' }>;

/** Ends nearer than this are one place, mm. */
const SAME = 1e-6;
/** An arc of less radius is a corner, mm. */
const CORNER = 1e-4;

/** The direction to the left of travel. */
export const leftOf = ([x, y]: Vec2): Vec2 => [-y, x];

/** A point moved along a direction, mm. */
export const move2 = (p: Vec2, d: Vec2, by: number): Vec2 => [p[0] + by * d[0], p[1] + by * d[1]];

/**
 * The curve parallel to a chain of lines and arcs at `offset` to its left (mm; to its right where negative), exactly. Pieces that would turn
 * inside out are left out, and their neighbours run on to where they meet, so that the inside of a bend may have a sharp corner. `rolled`:
 * joints (the piece before each) whose corner is gone round by an arc, where the curve runs outside of it. Null where that leaves nothing,
 * or neighbours do not meet.
 */
export function parallelPath(
  path: readonly Segment[],
  offset: number,
  closed: boolean,
  rolled: (joint: number) => boolean = () => false,
): Segment[] | null {
  if (Math.abs(offset) < 1e-12) return [...path];
  const moved = path.map((s) => parallelOf(s, offset));
  const kept = moved.flatMap((s) => (s ? [s] : []));
  const own = path.flatMap((_, i) => (moved[i] ? [i] : []));
  if (kept.length === 0) return null;
  const n = kept.length;
  if (n === 1 && closed) return kept;
  const out = [...kept];
  const round = new Map<number, Segment>();
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const k = (i + 1) % n;
    const [a, b] = [at(out, i), at(out, k)];
    if (distance2(a.to, b.from) < SAME) continue;
    const joint = at(own, i);
    const isNext = at(own, k) === (joint + 1) % path.length;
    const arc = isNext && rolled(joint) ? aboutCorner(at(path, joint).to, a, b, offset) : null;
    if (arc) {
      round.set(i, arc);
      continue;
    }
    const corner = meeting(a, b);
    if (!corner) return null;
    out[i] = endingAt(a, corner);
    out[k] = beginningAt(at(out, k), corner);
  }
  if (out.some((s) => s.kind === 'line' && distance2(s.from, s.to) < SAME)) return null;
  return out.flatMap((s, i) => {
    const arc = round.get(i);
    return arc ? [s, arc] : [s];
  });
}

/** The arc about a corner between two pieces that run at a distance from it; null on the inside of the bend, where they cross. */
function aboutCorner(centre: Vec2, a: Segment, b: Segment, offset: number): Segment | null {
  const bend = cross2(tangentAt(a, 'to'), tangentAt(b, 'from'));
  if (bend * offset >= 0) return null;
  const turn = turnBetween(centre, a.to, b.from, bend > 0);
  return { kind: 'arc', from: a.to, to: b.from, centre, radius: Math.abs(offset), turn };
}

function parallelOf(s: Segment, offset: number): Segment | null {
  if (s.kind === 'line') {
    const left = leftOf(lineDirection(s));
    return { kind: 'line', from: move2(s.from, left, offset), to: move2(s.to, left, offset) };
  }
  const radius = s.radius - Math.sign(s.turn) * offset;
  if (radius < CORNER) return null;
  const place = (p: Vec2): Vec2 => {
    const l = distance2(s.centre, p) || 1;
    return move2(s.centre, [(p[0] - s.centre[0]) / l, (p[1] - s.centre[1]) / l], radius);
  };
  const from = place(s.from);
  return { ...s, radius, from, to: distance2(s.from, s.to) < SAME ? from : place(s.to) };
}

/** Where two pieces whose ends have come apart meet, nearest to those ends. */
function meeting(a: Segment, b: Segment): Vec2 | null {
  const all = crossings(a, b);
  const off = (p: Vec2): number => distance2(p, a.to) + distance2(p, b.from);
  return all.reduce<Vec2 | null>((best, p) => (best && off(best) <= off(p) ? best : p), null);
}

/** Tangents that differ by less flow on, radians. */
const FLOWS = 0.01;

/** Where the lines or circles of two pieces meet that follow each other: their corner, or where one flows into the other; null where they are one. */
export function jointOf(a: Segment, b: Segment): Vec2 | null {
  const [s, t] = [tangentAt(a, 'to'), tangentAt(b, 'from')];
  if (Math.abs(cross2(s, t)) > FLOWS) return meeting(a, b);
  if (a.kind === 'line' && b.kind === 'line') return null;
  if (a.kind === 'arc' && b.kind === 'arc') {
    const d = distance2(a.centre, b.centre);
    if (d < CORNER) return null;
    const u: Vec2 = [(b.centre[0] - a.centre[0]) / d, (b.centre[1] - a.centre[1]) / d];
    const [near, far] = [move2(a.centre, u, a.radius), move2(a.centre, u, -a.radius)];
    return distance2(near, a.to) < distance2(far, a.to) ? near : far;
  }
  const [line, arc] = a.kind === 'line' ? [a, b as Arc] : [b as Line, a];
  const d = lineDirection(line);
  return move2(line.from, d, dot2(sub2(arc.centre, line.from), d));
}

/** Places where the whole lines or circles of two pieces meet. */
function crossings(a: Segment, b: Segment): Vec2[] {
  if (a.kind === 'line' && b.kind === 'line') {
    const [d, e] = [lineDirection(a), lineDirection(b)];
    const c = cross2(d, e);
    return Math.abs(c) < 1e-9 ? [] : [move2(a.from, d, cross2(sub2(b.from, a.from), e) / c)];
  }
  if (a.kind === 'line') return lineAndCircle(a, b as Arc);
  if (b.kind === 'line') return lineAndCircle(b, a);
  const d = distance2(a.centre, b.centre);
  if (d < 1e-9) return [];
  const along = (d * d + a.radius ** 2 - b.radius ** 2) / (2 * d);
  const h2 = a.radius ** 2 - along * along;
  if (h2 < 0) return [];
  const u: Vec2 = [(b.centre[0] - a.centre[0]) / d, (b.centre[1] - a.centre[1]) / d];
  const foot = move2(a.centre, u, along);
  return [1, -1].map((s) => move2(foot, leftOf(u), s * Math.sqrt(h2)));
}

function lineAndCircle(line: Line, { centre, radius }: Arc): Vec2[] {
  const d = lineDirection(line);
  const t = dot2(sub2(centre, line.from), d);
  const foot = move2(line.from, d, t);
  const h2 = radius ** 2 - distance2(foot, centre) ** 2;
  return h2 < 0 ? [] : [1, -1].map((s) => move2(foot, d, s * Math.sqrt(h2)));
}

/** A piece that ends elsewhere on its own line or circle. */
export function endingAt(s: Segment, to: Vec2): Segment {
  return s.kind === 'line' ? { ...s, to } : { ...s, to, turn: turnBetween(s.centre, s.from, to, s.turn > 0) };
}
/** A piece that begins elsewhere on its own line or circle. */
export function beginningAt(s: Segment, from: Vec2): Segment {
  return s.kind === 'line'
    ? { ...s, from }
    : { ...s, from, turn: turnBetween(s.centre, from, s.to, s.turn > 0) };
}

/** A chain with straight pieces before its start and after its end, on its tangents; none where the length is 0. */
export function extendedPath(path: readonly Segment[], before: number, after: number): Segment[] {
  const [a, b] = [first(path), last(path)];
  const start: Segment[] =
    before > 0 ? [{ kind: 'line', from: move2(a.from, tangentAt(a, 'from'), -before), to: a.from }] : [];
  const end: Segment[] =
    after > 0 ? [{ kind: 'line', from: b.to, to: move2(b.to, tangentAt(b, 'to'), after) }] : [];
  return [...start, ...path, ...end];
}

/** Where a place lies beside a chain. */
export interface BesidePath {
  /** mm; positive to the left of travel. */
  off: number;
  /** The nearest place is an end of the whole chain, and the place lies beyond it. */
  beyond: 'start' | 'end' | null;
}

/** How far a place is from a chain of lines and arcs, and on which side; the nearest piece decides. */
export function besidePath(path: readonly Segment[], p: Vec2): BesidePath {
  let best: BesidePath = { off: Infinity, beyond: null };
  path.forEach((s, i) => {
    const { off, end } = besideSegment(s, p);
    if (Math.abs(off) >= Math.abs(best.off)) return;
    const beyond = i === 0 && end === 'from' ? 'start' : i === path.length - 1 && end === 'to' ? 'end' : null;
    best = { off, beyond };
  });
  return best;
}

function besideSegment(s: Segment, p: Vec2): { off: number; end: 'from' | 'to' | null } {
  if (s.kind === 'line') {
    const l = distance2(s.from, s.to);
    if (l < SAME) return { off: distance2(s.from, p), end: null };
    const d = lineDirection(s);
    const t = dot2(sub2(p, s.from), d);
    const side = cross2(d, sub2(p, s.from));
    if (t >= 0 && t <= l) return { off: side, end: null };
    const end = t < 0 ? 'from' : 'to';
    return { off: (side < 0 ? -1 : 1) * distance2(s[end], p), end };
  }
  const sense = Math.sign(s.turn);
  const round = turnBetween(s.centre, s.from, p, s.turn > 0);
  const r = distance2(p, s.centre);
  const isOn = Math.abs(round) <= Math.abs(s.turn) + 1e-9 || distance2(p, s.from) < SAME;
  if (isOn) return { off: sense * (s.radius - r), end: null };
  const end = distance2(p, s.from) < distance2(p, s.to) ? 'from' : 'to';
  return { off: sense * (r < s.radius ? 1 : -1) * distance2(p, s[end]), end };
}
