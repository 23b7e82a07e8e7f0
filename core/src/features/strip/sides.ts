import { at, first as firstOf, known } from '../../lists.ts';
import { frameFrom, type Frame } from '../../geometry/frame.ts';
import {
  cross2,
  distance2,
  isSameCarrier,
  joinSegments,
  segmentLength,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { anyPerpendicular, dot, sub, isParallel, type Vec3 } from '../../geometry/vec.ts';
import {
  borderPoints,
  isWall,
  planeNormal,
  type Border,
  type Patch,
  type PatchGraph,
} from '../../model/patches.ts';
import { isCircleAbout } from '../../model/circle-edge.ts';
import { distanceToSurface } from '../../model/surface.ts';
import type { SolidModel } from '../../model/solid-model.ts';

/** What stands along a stretch of a floor's outline. */
export type Side =
  /** A wall square to the floor, run with the floor on its left. */
  | { kind: 'wall'; patch: number; segment: Segment; through: number[] }
  /** A surface that rises from the floor at a slant. */
  | { kind: 'lean'; patch: number; edge: number }
  /** The floor ends here and falls away, along `pieces`. */
  | { kind: 'open'; from: Vec2; to: Vec2; pieces: Segment[] };

/** Flat coordinates on a plane square to `d`; z along it. */
export const planFrame = (d: Vec3): Frame => frameFrom([0, 0, 0], d, anyPerpendicular(d));
export const toPlan = (f: Frame, p: Vec3): Vec2 => [dot(p, f.x), dot(p, f.y)];
export const fromPlan = (f: Frame, [x, y]: Vec2, z: number): Vec3 =>
  [0, 1, 2].map((i) => at(f.x, i) * x + at(f.y, i) * y + at(f.z, i) * z) as Vec3;

/** A floor's loop as a run of sides, neighbours on one line or circle joined; null where something stands there that is none of them. */
export function floorSides(model: SolidModel, graph: PatchGraph, loop: Border[], f: Frame): Side[] | null {
  const out: Side[] = [];
  for (const b of loop) {
    const side = sideOf(model, graph, b, f);
    if (!side) return null;
    // Edges too short to be meant.
    if (side.kind === 'wall' && segmentLength(side.segment) < 0.01) continue;
    out.push(side);
  }
  return joinSides(out);
}

function sideOf(model: SolidModel, graph: PatchGraph, b: Border, f: Frame): Side | null {
  const points = borderPoints(model, b);
  const ends = { from: toPlan(f, firstOf(points)), to: toPlan(f, at(points, points.length - 1)) };
  if (b.other < 0 || b.convexity === 'convex' || b.convexity === 'open')
    return {
      kind: 'open',
      ...ends,
      pieces: rimPieces(b.other < 0 ? null : at(graph.patches, b.other), points, f),
    };
  const other = at(graph.patches, b.other);
  if (b.convexity === 'concave') {
    if (isWall(other, f.z))
      return { kind: 'wall', patch: b.other, segment: wallSegment(other, points, f), through: [] };
    if (other.surface.kind === 'plane' || other.surface.kind === 'cone')
      return { kind: 'lean', patch: b.other, edge: b.edge };
    return null;
  }
  // A fillet at the foot: the wall stands on its other side.
  // A rounded edge: the floor falls away over it.
  if (isRounding(other)) return { kind: 'open', ...ends, pieces: rimPieces(other, points, f) };
  if (!other.reversed || (other.surface.kind !== 'cylinder' && other.surface.kind !== 'torus')) return null;
  const middle = at(points, Math.floor(points.length / 2));
  let wall = -1;
  let nearest = Infinity;
  for (const c of other.loops.flat()) {
    const p = c.other >= 0 && c.convexity === 'smooth' ? at(graph.patches, c.other) : null;
    if (!p || !isWall(p, f.z)) continue;
    const away = Math.abs(distanceToSurface(p.surface, middle));
    if (away < nearest) [wall, nearest] = [c.other, away];
  }
  if (wall < 0) return null;
  return {
    kind: 'wall',
    patch: wall,
    segment: wallSegment(at(graph.patches, wall), points, f),
    through: [b.other],
  };
}

/** A convex round that flows out of a floor. */
const isRounding = ({ reversed, surface }: Patch): boolean =>
  !reversed && (surface.kind === 'cylinder' || surface.kind === 'torus');

/** A floor's rim in plan: exact where an upright wall falls away below it, else point by point. */
export function rimPieces(below: Patch | null, points: Vec3[], f: Frame): Segment[] {
  if (below && isWall(below, f.z)) return [wallSegment(below, points, f)];
  const s = below?.surface;
  const isRound = s && 'axis' in s && isParallel(s.axis, f.z) && isCircleAbout(points, s.origin, s.axis);
  const plan = points.map((p) => toPlan(f, p));
  if (isRound) {
    const centre = toPlan(f, s.origin);
    return [arcThrough(centre, distance2(centre, firstOf(plan)), points, f)];
  }
  return plan.slice(1).map((to, i): Segment => ({ kind: 'line', from: at(plan, i), to }));
}

/** A wall in plan over the stretch that `points` span. */
export function wallSegment(wall: Patch, points: Vec3[], f: Frame): Segment {
  const [first, last] = [toPlan(f, firstOf(points)), toPlan(f, at(points, points.length - 1))];
  const s = wall.surface;
  if (s.kind === 'cylinder') return arcThrough(toPlan(f, s.origin), s.radius, points, f);
  const n = known(planeNormal(wall), 'the normal of a plane');
  const normal: Vec2 = [dot(n, f.x), dot(n, f.y)];
  const offset = s.kind === 'plane' ? dot(sub(s.origin, f.origin), n) : 0;
  const foot = (p: Vec2): Vec2 => {
    const k = offset - (p[0] * normal[0] + p[1] * normal[1]);
    return [p[0] + k * normal[0], p[1] + k * normal[1]];
  };
  return { kind: 'line', from: foot(first), to: foot(last) };
}

/** The arc about a centre that points go along. */
function arcThrough(centre: Vec2, radius: number, points: readonly Vec3[], f: Frame): Segment {
  const [first, last] = [toPlan(f, firstOf(points)), toPlan(f, at(points, points.length - 1))];
  let turn = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [toPlan(f, at(points, i - 1)), toPlan(f, at(points, i))];
    const [p, q]: [Vec2, Vec2] = [
      [a[0] - centre[0], a[1] - centre[1]],
      [b[0] - centre[0], b[1] - centre[1]],
    ];
    turn += Math.atan2(cross2(p, q), p[0] * q[0] + p[1] * q[1]);
  }
  const [from, to] = [onCircle(centre, radius, first), onCircle(centre, radius, last)];
  return { kind: 'arc', from, to, centre, radius, turn };
}

function onCircle(c: Vec2, r: number, p: Vec2): Vec2 {
  const l = distance2(c, p) || 1;
  return [c[0] + ((p[0] - c[0]) * r) / l, c[1] + ((p[1] - c[1]) * r) / l];
}

/** Joins neighbours of one carrier, also over a bite that another cavity takes out of a wall. */
function joinSides(sides: Side[]): Side[] {
  const list: Side[] = [];
  for (const s of sides) {
    const last = list[list.length - 1];
    if (last && tryJoin(list, s, 1)) continue;
    if (last?.kind === 'open' && s.kind === 'open')
      list[list.length - 1] = { ...last, to: s.to, pieces: [...last.pieces, ...s.pieces] };
    else if (!(last?.kind === 'open' && s.kind === 'wall' && tryJoin(list, s, 2))) list.push(s);
  }
  // The loop's own start may lie within a wall or a bite.
  for (let guard = 0; guard < 3 && list.length > 1; guard++) {
    const [first, last] = [firstOf(list), at(list, list.length - 1)];
    if (first.kind === 'open' && last.kind === 'open') {
      list[0] = { ...last, to: first.to, pieces: [...last.pieces, ...first.pieces] };
      list.pop();
    } else if (first.kind === 'wall' && tryJoin(list, first, 1)) {
      list[0] = known(list.pop(), 'the last run');
    } else if (first.kind === 'wall' && last.kind === 'open' && list.length > 2 && tryJoin(list, first, 2))
      list[0] = known(list.pop(), 'the last run');
    else if (
      first.kind === 'open' &&
      list.length > 2 &&
      last.kind === 'wall' &&
      at(list, 1).kind === 'wall' &&
      tryJoin(list, at(list, 1), 1)
    )
      list.splice(0, 2, known(list.pop(), 'the last run'));
    else break;
  }
  return list;
}

/** Joins `s` onto the list's last wall (`back` = 1) or the one before its last opening (`back` = 2). */
function tryJoin(list: Side[], s: Side, back: 1 | 2): boolean {
  const mate = list[list.length - back];
  if (mate?.kind !== 'wall' || s.kind !== 'wall' || mate === s || !isSameCarrier(mate.segment, s.segment))
    return false;
  if (back === 2 && mate.segment.kind === 'line' && !isAhead(mate.segment, s.segment.from)) return false;
  const through = [...mate.through, ...s.through, ...(s.patch === mate.patch ? [] : [s.patch])];
  list.splice(list.length - back, back, {
    kind: 'wall',
    patch: mate.patch,
    segment: joinSegments(mate.segment, s.segment),
    through,
  });
  return true;
}

const isAhead = (line: Segment, p: Vec2): boolean =>
  (p[0] - line.to[0]) * (line.to[0] - line.from[0]) + (p[1] - line.to[1]) * (line.to[1] - line.from[1]) >
  -1e-6;
