import { besidePath } from '../geometry/parallel.ts';
import { dot2, sub2, tangentAt, type Segment, type Vec2 } from '../geometry/path.ts';
import { first, last } from '../lists.ts';
import { toFrame, type Frame } from '../geometry/frame.ts';
import { dot, type Vec3 } from '../geometry/vec.ts';
import type { CurvePiece, GrooveEnd } from './base.ts';

/** A stretch of a groove's height at which it has one flank: how far that is from its middle at the top and at the bottom, mm. */
export interface GrooveLevel {
  top: number;
  bottom: number;
  halfTop: number;
  halfBottom: number;
  /** Its own middle line, where it ends elsewhere than the groove's. */
  path?: readonly Segment[];
}

/**
 * A slot, groove or channel as cut from above: what stands at a constant distance from a line in plan. Program coordinates, mm. A ring in a
 * bore is one about a line without length.
 */
export interface GrooveShape {
  /** Its middle line without its round ends; of a groove in a wall that wall's edge, with the air on its left. */
  path: readonly Segment[];
  /** The path has no ends. */
  closed: boolean;
  ends: readonly [GrooveEnd, GrooveEnd];
  /** From the top down, without a gap. */
  levels: readonly GrooveLevel[];
  through: boolean;
  /** Only one wall, on the right of the path: how far into it counts. */
  isOneSided: boolean;
  /** Of the fillet at the foot of its walls, mm. */
  floorRadius: number;
  /** Radius in which it runs out at a closed end of a one-sided groove, mm. */
  runOut?: number;
  /** The open way down to it: radius of the bore that it is in, mm; else it is come to from its ends or its mouth. */
  bore?: number;
}

export const topOf = ({ levels }: GrooveShape): number => Math.max(...levels.map((l) => l.top));
export const bottomOf = ({ levels }: GrooveShape): number => Math.min(...levels.map((l) => l.bottom));

/** Half of the open way into a groove from above, mm: what is wider comes and goes by an end, by the bore or by the air before a wall. */
export function mouthOf(shape: GrooveShape): number {
  if (shape.isOneSided) return 0;
  return shape.bore ?? first(shape.levels).halfTop;
}

/** How far the wall of a level is from the middle at a height, mm. */
export function halfAt(l: GrooveLevel, z: number): number {
  const t = l.top > l.bottom ? Math.min(1, Math.max(0, (l.top - z) / (l.top - l.bottom))) : 0;
  return l.halfTop + t * (l.halfBottom - l.halfTop);
}

/**
 * How far a place in plan is from the middle, as far as walls are concerned, mm: beyond an open end only what lies aside counts; of a wall
 * groove how far it is inside the wall, less than none in the air.
 */
export function offMiddle(s: GrooveShape, p: Vec2, path: readonly Segment[] = s.path): number {
  const { off, beyond } = besidePath(path, p);
  const end = beyond === 'start' ? s.ends[0] : beyond === 'end' ? s.ends[1] : null;
  // Beyond an open end what lies beside the tangent there.
  const ahead = beyond !== null && end?.open ? pastEnd(path, p, beyond) : 0;
  const aside = Math.sqrt(Math.max(0, off * off - ahead * ahead));
  return s.isOneSided ? -Math.sign(off) * aside : aside;
}

/** The same of a place in the groove; Infinity for one past an open end, or in the air before a wall. */
export function offInside(s: GrooveShape, p: Vec2, path: readonly Segment[] = s.path): number {
  const { off, beyond } = besidePath(path, p);
  if (s.isOneSided) return off > 0 || beyond !== null ? Infinity : -off;
  const end = beyond === 'start' ? s.ends[0] : beyond === 'end' ? s.ends[1] : null;
  if (!end?.open) return Math.abs(off);
  return beyond !== null && pastEnd(path, p, beyond) <= end.beyond ? offMiddle(s, p, path) : Infinity;
}

/** How far past an end of a chain a place lies, along its tangent there, mm. */
export function pastEnd(path: readonly Segment[], p: Vec2, end: 'start' | 'end'): number {
  const s = end === 'start' ? first(path) : last(path);
  const [at, t] = end === 'start' ? [s.from, tangentAt(s, 'from')] : [s.to, tangentAt(s, 'to')];
  return (end === 'start' ? -1 : 1) * dot2(sub2(p, at), t);
}

/** Exact pieces in space, in plan as seen from a frame's Z. */
export function planPieces(pieces: readonly CurvePiece[], axis: Vec3, frame: Frame): Segment[] {
  const sense = dot(axis, frame.z) > 0 ? 1 : -1;
  const flat = (p: Vec3): Vec2 => {
    const [x, y] = toFrame(frame, p);
    return [x, y];
  };
  return pieces.map((p) =>
    p.kind === 'line'
      ? { kind: 'line', from: flat(p.from), to: flat(p.to) }
      : {
          kind: 'arc',
          from: flat(p.from),
          to: flat(p.to),
          centre: flat(p.centre),
          radius: p.radius,
          turn: sense * p.turn,
        },
  );
}

/** A straight run about a middle, in plan. `from` and `to`: where it begins and ends along its direction, mm. */
export function planRun(middle: Vec3, direction: Vec3, from: number, to: number, frame: Frame): Segment[] {
  const at = (k: number): Vec2 => {
    const [x, y] = toFrame(frame, [
      middle[0] + k * direction[0],
      middle[1] + k * direction[1],
      middle[2] + k * direction[2],
    ]);
    return [x, y];
  };
  return [{ kind: 'line', from: at(from), to: at(to) }];
}

/** Top and bottom levels of a cavity as seen from a frame's Z: from its own side, or from below where it goes through. */
export function levelsSeen(at: Vec3, axis: Vec3, depth: number, frame: Frame): readonly [number, number] {
  const level = toFrame(frame, at)[2];
  return dot(axis, frame.z) > 0 ? [level, level - depth] : [level + depth, level];
}

/** A strip of one width. */
export function stripShape(
  path: Segment[],
  [top, bottom]: readonly [number, number],
  {
    width,
    closed = false,
    ends,
    through,
    floorRadius = 0,
  }: {
    width: number;
    closed?: boolean;
    ends: readonly [GrooveEnd, GrooveEnd];
    through: boolean;
    floorRadius?: number;
  },
): GrooveShape {
  return {
    path,
    closed,
    ends,
    levels: [{ top, bottom, halfTop: width / 2, halfBottom: width / 2 }],
    through,
    isOneSided: false,
    floorRadius,
  };
}

/** An end in the part. */
export const SHUT: GrooveEnd = { open: false, beyond: 0 };
