import { at, first } from '../../lists.ts';
import {
  cross2,
  distance2,
  dot2,
  segmentPoint,
  tangentAt,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';

/** Tangents that differ by less flow on, radians. */
const FLOWS = 0.02;
/** Places on an arc, where only its points are looked at. */
const ON_ARC = 16;

/** By how much a run turns from one piece to the next, radians, to the left positive. */
function turnAt(a: Segment, b: Segment): number {
  const [s, t] = [tangentAt(a, 'to'), tangentAt(b, 'from')];
  return Math.atan2(cross2(s, t), dot2(s, t));
}

/** A run of walls, closed or not, with the air on its left. */
export interface WallRun {
  walls: readonly Segment[];
  closed: boolean;
}

/**
 * The smallest radius of the inside corners of walls, mm: 0 where one is sharp, null where there is none. Inside is where a cutter would have
 * to go in: the walls turn to the side of the air there.
 */
export function cornerRadius(runs: readonly WallRun[]): number | null {
  let least: number | null = null;
  const take = (r: number): void => {
    least = least === null ? r : Math.min(least, r);
  };
  for (const { walls, closed } of runs)
    walls.forEach((s, i) => {
      if (s.kind === 'arc' && s.turn > 0) take(s.radius);
      const next = walls[i + 1] ?? (closed && walls.length > 1 ? first(walls) : null);
      if (next && turnAt(s, next) > FLOWS) take(0);
    });
  return least;
}

/** How many walls a run has, corner radii that flow into both their neighbours not counted. */
export function wallCount({ walls, closed }: WallRun): number {
  const flows = (a: Segment | undefined, b: Segment | undefined): boolean =>
    a !== undefined && b !== undefined && Math.abs(turnAt(a, b)) < FLOWS;
  const n = walls.length;
  const neighbour = (i: number): Segment | undefined => (closed && n > 1 ? walls[(i + n) % n] : walls[i]);
  return walls.filter(
    (s, i) => !(s.kind === 'arc' && flows(neighbour(i - 1), s) && flows(s, neighbour(i + 1))),
  ).length;
}

/** Corners of a closed run, arcs by points on them. */
export const ringPoints = (ring: readonly Segment[]): Vec2[] =>
  ring.flatMap((s) =>
    s.kind === 'line' ? [s.from] : Array.from({ length: ON_ARC }, (_, i) => segmentPoint(s, i / ON_ARC)),
  );

/** Signed area of a closed run, mm²: above 0 counter-clockwise. */
export function ringArea(ring: readonly Segment[]): number {
  let area = 0;
  for (const s of ring) {
    area += cross2(s.from, s.to) / 2;
    if (s.kind === 'arc') area += (s.radius ** 2 * (s.turn - Math.sin(s.turn))) / 2;
  }
  return area;
}

/** The direction of the longest straight one of some pieces; X where there is none. */
function alongLongest(pieces: readonly Segment[]): Vec2 {
  let along: Vec2 = [1, 0];
  let longest = 0;
  for (const s of pieces) {
    const l = s.kind === 'line' ? distance2(s.from, s.to) : 0;
    if (l > longest + 1e-6) [along, longest] = [[(s.to[0] - s.from[0]) / l, (s.to[1] - s.from[1]) / l], l];
  }
  return along;
}

/** Length and width of the box round some pieces, along the longest straight one; along X where there is none. */
export function boxAlongLongest(pieces: readonly Segment[]): { length: number; width: number } {
  const along = alongLongest(pieces);
  const across: Vec2 = [-along[1], along[0]];
  const span = (d: Vec2): number => {
    const [low, high] = reachAlong(pieces, d);
    return high - low;
  };
  return { length: span(along), width: span(across) };
}

/** How far some pieces reach along a direction, lowest and highest. */
export function reachAlong(pieces: readonly Segment[], d: Vec2): [number, number] {
  const reach = pieces.flatMap((s) => {
    const ends = [dot2(s.from, d), dot2(s.to, d)];
    if (s.kind !== 'arc') return ends;
    // Where the arc itself passes the farthest place of its circle.
    const extremes = [1, -1].flatMap((sign): number[] => {
      const p: Vec2 = [s.centre[0] + sign * s.radius * d[0], s.centre[1] + sign * s.radius * d[1]];
      return isOnArc(s, p) ? [dot2(p, d)] : [];
    });
    return [...ends, ...extremes];
  });
  return [Math.min(...reach), Math.max(...reach)];
}

function isOnArc(s: Extract<Segment, { kind: 'arc' }>, p: Vec2): boolean {
  const a = (q: Vec2): number => Math.atan2(q[1] - s.centre[1], q[0] - s.centre[0]);
  const sense = s.turn > 0 ? 1 : -1;
  let round = sense * (a(p) - a(s.from));
  while (round < 0) round += 2 * Math.PI;
  return round <= Math.abs(s.turn) + 1e-9;
}

/** Levels at which a place inside is looked for. */
const LEVELS = 9;

/** A place within the outer of some closed runs and outside the others: in the middle of the widest stretch that a few lines find. */
export function insidePoint(rings: readonly (readonly Segment[])[]): Vec2 {
  // Seen along its own longest piece it is one place, however the part lies.
  const [c, s] = alongLongest(rings.flat());
  const outlines = rings.map((r) => ringPoints(r).map(([x, y]): Vec2 => [c * x + s * y, c * y - s * x]));
  const ys = at(outlines, 0).map((p) => p[1]);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const middle = (LEVELS - 1) / 2;
  let best: { at: Vec2; width: number } = { at: at(at(outlines, 0), 0), width: -1 };
  // From the middle out: another line counts where it is clearly wider.
  for (let k = 0; k < LEVELS; k++) {
    const line = middle + (k % 2 === 0 ? k / 2 : -(k + 1) / 2);
    const y = low + ((high - low) * (line + 0.5)) / LEVELS + 1e-7;
    const xs = outlines.flatMap((o) => crossingsAt(o, y)).sort((a, b) => a - b);
    for (let i = 0; i + 1 < xs.length; i += 2) {
      const [a, b] = [at(xs, i), at(xs, i + 1)];
      if (b - a > 1.2 * best.width) best = { at: [(a + b) / 2, y], width: b - a };
    }
  }
  const [x, y] = best.at;
  return [c * x - s * y, s * x + c * y];
}

function crossingsAt(points: readonly Vec2[], y: number): number[] {
  return points.flatMap((p, i) => {
    const q = at(points, (i + 1) % points.length);
    if (p[1] > y === q[1] > y) return [];
    return [p[0] + ((y - p[1]) / (q[1] - p[1])) * (q[0] - p[0])];
  });
}

/** Whether a place lies within a closed outline of points. */
export function isWithin(points: readonly Vec2[], [x, y]: Vec2): boolean {
  return crossingsAt(points, y).filter((c) => c > x).length % 2 === 1;
}

/** The runs of walls in a ring whose pieces are walls or open. */
export function wallRuns(ring: readonly { segment: Segment; isWall: boolean }[]): WallRun[] {
  if (ring.every((s) => s.isWall)) return [{ walls: ring.map((s) => s.segment), closed: true }];
  const start = ring.findIndex((s) => !s.isWall);
  const turned = [...ring.slice(start), ...ring.slice(0, start)];
  const out: Segment[][] = [];
  let isBefore = false;
  for (const s of turned) {
    if (s.isWall && isBefore) at(out, out.length - 1).push(s.segment);
    else if (s.isWall) out.push([s.segment]);
    isBefore = s.isWall;
  }
  return out.map((walls) => ({ walls, closed: false }));
}
