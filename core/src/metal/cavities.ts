import { isHole, type Feature } from '../features/family.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import type { Box2 } from '../geometry/box-grid.ts';
import { directionToFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { along, anyPerpendicular, cross, scale, type Vec3 } from '../geometry/vec.ts';
import { alongZ, type Frustum } from './frustum.ts';
import { isWithin } from '../features/area/rings.ts';
import { chainPoints } from '../geometry/region.ts';
import { PlaceList } from './place-list.ts';
import { familyOf } from '../features/registry.ts';
import { offInside, type GrooveShape } from '../features/groove-shape.ts';
import { segmentPoint, type Segment } from '../geometry/path.ts';

/** Metal that fills a cavity until it is made: low and high at a place; null beside it. Program coordinates, mm. */
type Fills = (x: number, y: number) => readonly [number, number] | null;

interface Cavity {
  /** Id of the feature. */
  feature: string;
  fills: Fills;
}

/** mm. */
const CELL = 4;
/** How far chords may lie off an area's round border, mm. */
const SAGITTA = 0.005;
const NONE: readonly number[] = [];

/** Holes whose axis lies nearer to Z stand upright. */
const UPRIGHT = 0.999;
/** How far out a step is looked at, of its radius. */
const RIM = 0.8;
/** And how far down, of its length. */
const LOOKS = [0.2, 0.5, 0.8];

/**
 * The cavities of a part as the metal that stands in them before they are made: holes of all directions, and strips that open along Z. Strips
 * that open another way are taken as made.
 */
export class Cavities {
  private readonly grid = new PlaceList<Cavity>(CELL);
  /** What each feature covers from above. */
  readonly boxes: { feature: string; box: Box2 }[] = [];

  /** `isGone`: whether metal at a place of the part file's frame was cut away in a setup before. */
  constructor(features: readonly Feature[], frame: Frame, isGone: (p: Vec3) => boolean = () => false) {
    for (const f of features) {
      if (isHole(f)) this.addHole(f, frame, isGone);
      else if (Math.abs(directionToFrame(frame, f.axis)[2]) > UPRIGHT) {
        this.addGroove(f, frame);
        this.addArea(f, frame);
      }
    }
  }

  /** Metal of all cavities over a place: pairs of low and high, in no order. */
  at(x: number, y: number): readonly number[] {
    const near = this.grid.at(x, y);
    if (near.length === 0) return NONE;
    const out: number[] = [];
    for (const c of near) {
      const f = c.fills(x, y);
      if (f && f[1] > f[0]) out.push(f[0], f[1]);
    }
    return out;
  }

  /** The feature whose cavity a place lies in; null for none. */
  featureAt(x: number, y: number, z: number): string | null {
    for (const c of this.grid.at(x, y)) {
      const f = c.fills(x, y);
      if (f && z >= f[0] && z <= f[1]) return c.feature;
    }
    return null;
  }

  /**
   * A hole, step by step. One of another direction that is made already is air, as the part has it: seen across, what was cut is known to
   * half a cell only.
   */
  private addHole(f: HoleFeature, frame: Frame, isGone: (p: Vec3) => boolean): void {
    const origin = toFrame(frame, f.entry);
    const down = scale(f.axis, -1);
    const axis = directionToFrame(frame, down);
    const isUpright = Math.abs(axis[2]) > UPRIGHT;
    for (const step of roundSteps(f)) {
      if (!isUpright && isMade(f.entry, down, step, isGone)) continue;
      const { s0, s1, r0, r1 } = step;
      const r = Math.max(r0, r1);
      const [xa, xb] = [origin[0] + s0 * axis[0], origin[0] + s1 * axis[0]];
      const [ya, yb] = [origin[1] + s0 * axis[1], origin[1] + s1 * axis[1]];
      const box: Box2 = [
        Math.min(xa, xb) - r,
        Math.min(ya, yb) - r,
        Math.max(xa, xb) + r,
        Math.max(ya, yb) + r,
      ];
      const round: Frustum = { ...step, origin, axis };
      this.put(f, (x, y) => alongZ(round, x, y), box);
    }
    const ball = ballOf(f);
    if (!ball) return;
    const { depth, r } = ball;
    const [cx, cy, cz] = along(origin, axis, depth);
    this.put(
      f,
      (x, y) => {
        const half = Math.sqrt(Math.max(0, r * r - (x - cx) ** 2 - (y - cy) ** 2));
        return half > 0 ? [cz - half, cz + half] : null;
      },
      [cx - r, cy - r, cx + r, cy + r],
    );
  }

  private put(f: Feature, fills: Fills, box: Box2): void {
    this.boxes.push({ feature: f.id, box });
    this.grid.add({ feature: f.id, fills }, box);
  }

  /** A step or a pocket, from its floor to its top; faces and outlines are no cavities. */
  private addArea(f: Feature, frame: Frame): void {
    const shape = familyOf(f).area?.(f, frame);
    if (!shape || (shape.side !== 'closed' && shape.side !== 'open')) return;
    if (!shape.through && directionToFrame(frame, f.axis)[2] < 0) return;
    const rings = shape.rings.map((r) =>
      chainPoints(
        r.map((e) => e.segment),
        SAGITTA,
      ),
    );
    const points = rings.flat();
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const box: Box2 = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
    const place: [number, number] = [0, 0];
    this.put(
      f,
      (x, y) => {
        [place[0], place[1]] = [x, y];
        const isIn = rings.filter((r) => isWithin(r, place)).length % 2 === 1;
        return isIn ? [shape.floor, shape.top] : null;
      },
      box,
    );
  }

  /** Level by level: of a wall that leans what is within it at each height. */
  private addGroove(f: Feature, frame: Frame): void {
    const shape = familyOf(f).groove?.(f, frame);
    if (!shape || !isSeenAbove(f, frame, shape)) return;
    const place: [number, number] = [0, 0];
    for (const level of shape.levels) {
      const { top, bottom, halfTop, halfBottom, path = shape.path } = level;
      const [least, most] = [Math.min(halfTop, halfBottom), Math.max(halfTop, halfBottom)];
      this.put(
        f,
        (x, y) => {
          place[0] = x;
          place[1] = y;
          const off = offInside(shape, place, path);
          if (off > most) return null;
          if (off <= least) return [bottom, top];
          const z = top + ((off - halfTop) / (halfBottom - halfTop)) * (bottom - top);
          return halfBottom > halfTop ? [bottom, z] : [z, top];
        },
        boxOf(shape, path, most),
      );
    }
  }
}

/** What is blind and looks the other way is no cavity of this side; a groove in a wall or a bore is one from both. */
const isSeenAbove = (f: Feature, frame: Frame, { through, isOneSided, bore }: GrooveShape): boolean =>
  through || isOneSided || bore !== undefined || directionToFrame(frame, f.axis)[2] > 0;

function boxOf(shape: GrooveShape, path: readonly Segment[], half: number): Box2 {
  const points = path.flatMap((s) => Array.from({ length: 17 }, (_, i) => segmentPoint(s, i / 16)));
  // Between two places of an arc its wall reaches a little farther out.
  const more = 1.1 * half + Math.max(...shape.ends.map((e) => e.beyond));
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return [Math.min(...xs) - more, Math.min(...ys) - more, Math.max(...xs) + more, Math.max(...ys) + more];
}

interface RoundStep {
  s0: number;
  s1: number;
  r0: number;
  r1: number;
}

/** A hole's steps and its drilled point along its axis, from its entry down. */
function roundSteps({ stack, bottom, kind, entryDrop }: HoleFeature): RoundStep[] {
  const out: RoundStep[] = [];
  let depth = 0;
  for (const s of stack) {
    if (s.shape === 'flat') continue;
    const [a, b] = s.shape === 'cylinder' ? [s.diameter, s.diameter] : [s.startDiameter, s.endDiameter];
    // A slanted entry: what lies above its lowest place is not all metal.
    const drop = depth === 0 ? Math.min(s.length, entryDrop) : 0;
    const r0 = a / 2 + ((b - a) / 2) * (drop / s.length);
    out.push({ s0: depth + drop, s1: depth + s.length, r0, r1: b / 2 });
    depth += s.length;
  }
  const last = stack.findLast((s) => s.shape === 'cylinder');
  if (kind !== 'through' && last?.shape === 'cylinder' && bottom.shape === 'cone') {
    const r = last.diameter / 2;
    out.push({ s0: depth, s1: depth + r / Math.tan((bottom.angle * Math.PI) / 360), r0: r, r1: 0 });
  }
  return out.filter(({ s0, s1 }) => s1 > s0);
}

/** The ball that a hole ends in, by the depth of its middle; null where it ends otherwise. */
function ballOf({ stack, bottom, kind }: HoleFeature): { depth: number; r: number } | null {
  const last = stack.findLast((s) => s.shape === 'cylinder');
  if (kind === 'through' || last?.shape !== 'cylinder' || bottom.shape !== 'ball') return null;
  return { depth: stack.reduce((n, s) => n + (s.shape === 'flat' ? 0 : s.length), 0), r: last.diameter / 2 };
}

/** Whether the metal near a step's wall is gone all round and from end to end. */
function isMade(
  entry: Vec3,
  down: Vec3,
  { s0, s1, r0, r1 }: RoundStep,
  isGone: (p: Vec3) => boolean,
): boolean {
  const aside = anyPerpendicular(down);
  const other = cross(down, aside);
  const round = [aside, other, scale(aside, -1), scale(other, -1)];
  return LOOKS.every((share) => {
    const middle = along(entry, down, s0 + share * (s1 - s0));
    const r = RIM * (r0 + share * (r1 - r0));
    return round.every((d) => isGone(along(middle, d, r)));
  });
}

/** Ends this near each other touch, mm. */
const TOUCHING = 1e-6;

/** Intervals put together: pairs of low and high, from low to high, none touching another. */
export function union(pairs: readonly number[]): number[] {
  if (pairs.length === 4) {
    // Two of them, as nearly always.
    const k = pairs[2]! < pairs[0]! ? 2 : 0;
    const [a, b, c, d] = [pairs[k]!, pairs[k + 1]!, pairs[2 - k]!, pairs[3 - k]!];
    return c <= b + TOUCHING ? [a, Math.max(b, d)] : [a, b, c, d];
  }
  const list: [number, number][] = [];
  for (let n = 0; n < pairs.length; n += 2) list.push([pairs[n]!, pairs[n + 1]!]);
  list.sort((a, b) => a[0] - b[0]);
  const out: number[] = [];
  for (const [a, b] of list) {
    const end = out[out.length - 1];
    if (end !== undefined && a <= end + TOUCHING) out[out.length - 1] = Math.max(end, b);
    else out.push(a, b);
  }
  return out;
}

/** What of some intervals lies in none of the others; both from low to high. */
export function without(pairs: readonly number[], taken: readonly number[]): number[] {
  const out: number[] = [];
  for (let n = 0; n < pairs.length; n += 2) {
    let from = pairs[n]!;
    const to = pairs[n + 1]!;
    for (let k = 0; k < taken.length; k += 2) {
      const [a, b] = [taken[k]!, taken[k + 1]!];
      if (b <= from || a >= to) continue;
      if (a > from) out.push(from, a);
      from = Math.max(from, b);
    }
    if (from < to) out.push(from, to);
  }
  return out;
}
