import { extendedPath, parallelPath } from '../../geometry/parallel.ts';
import { PathIndex } from '../../geometry/path-index.ts';
import {
  cross2,
  dot2,
  reversePath,
  segmentLength,
  segmentPoint,
  tangentAt,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import type { EdgeShape } from '../../features/edge/shape.ts';
import { at, first, last } from '../../lists.ts';
import { begunOnLongest, overlapOf } from '../../motion/grooves/loops.ts';

/** A way nearer to its edge than it is to be has turned inside out somewhere, mm. */
const NEARER = 0.003;
const LOOKS = [0.02, 0.25, 0.5, 0.75, 0.98];
/** Turns sharper than this are corners, radians. */
const CORNER = 0.02;

/** Inside corners of an edge: the air is the smaller part round them. */
export const hasInsideCorners = ({ path, closed }: Pick<EdgeShape, 'path' | 'closed'>): boolean =>
  path.some((s, i) => {
    if (s.kind === 'arc' && s.turn < 0 && path.length > 1) return true;
    const next = path[i + 1] ?? (closed && path.length > 1 ? first(path) : null);
    return next !== null && turnAt(s, next) < -CORNER;
  });

const turnAt = (a: Segment, b: Segment): number => {
  const [s, t] = [tangentAt(a, 'to'), tangentAt(b, 'from')];
  return Math.atan2(cross2(s, t), dot2(s, t));
};

/**
 * The way of a cutter's axis beside an edge, at a distance from its upper edge in the air, mm; to climb with the edge on its right. Null where
 * the edge's bends are too tight for that.
 */
export function wayBeside(
  { path, closed, rolled }: EdgeShape,
  offset: number,
  { isClimb, isRolled }: { isClimb: boolean; isRolled: boolean },
): Segment[] | null {
  const own = parallelPath(path, -offset, closed, (j) => isRolled || rolled.includes(j));
  if (!own || own.length === 0 || !keepsAway(own, path, offset)) return null;
  const way = isClimb ? reversePath(own) : own;
  return closed ? begunOnLongest(way) : way;
}

function keepsAway(own: readonly Segment[], path: readonly Segment[], offset: number): boolean {
  const index = new PathIndex(path, offset);
  return own.every((s) =>
    LOOKS.every((share) => index.distance(segmentPoint(s, share), offset) >= offset - NEARER),
  );
}

/** How an open run ends: past its end by so much, or so far before it, mm. */
export type RunEnd = number;

/** A way with its ends moved: past them along the tangent, or back along itself. Null where nothing stays. */
export function withEnds(way: readonly Segment[], start: RunEnd, end: RunEnd): Segment[] | null {
  const cut = shortened(reversePath(shortened([...way], Math.max(0, -end))), Math.max(0, -start));
  if (cut.length === 0) return null;
  return extendedPath(reversePath(cut), Math.max(0, start), Math.max(0, end));
}

/** A chain without the last of it, mm. */
function shortened(way: Segment[], by: number): Segment[] {
  if (by <= 0) return way;
  const whole = way.reduce((sum, s) => sum + segmentLength(s), 0);
  return by >= whole - 1e-6 ? [] : overlapOf(way, whole - by);
}

/** A place so far along a chain, mm, and the direction there. */
export function placeAt(way: readonly Segment[], along: number): { place: Vec2; along: Vec2 } {
  let rest = along;
  for (const s of way) {
    const l = segmentLength(s);
    if (rest <= l) {
      const piece = overlapOf([s], Math.max(rest, 1e-9));
      const end = last(piece);
      return { place: end.to, along: tangentAt(end, 'to') };
    }
    rest -= l;
  }
  return { place: last(way).to, along: tangentAt(last(way), 'to') };
}

/** The place an end of a chain would have, moved past it. */
export function beyondEnd(way: readonly Segment[], end: 'start' | 'end', by: number): Vec2 {
  const s = end === 'start' ? first(way) : last(way);
  const key = end === 'start' ? 'from' : 'to';
  const t = tangentAt(s, key);
  const sense = end === 'start' ? -1 : 1;
  const p = s[key];
  return [at(p, 0) + sense * by * t[0], at(p, 1) + sense * by * t[1]];
}
