import { at, first, last } from '../../lists.ts';
import type { Frame } from '../../geometry/frame.ts';
import {
  centreLine,
  dot2,
  reversePath,
  sub2,
  tangentAt,
  widthBetween,
  type Segment,
} from '../../geometry/path.ts';
import { dot, type Vec3, isParallel, isAgainst, isAlong } from '../../geometry/vec.ts';
import { extentAlong, planeNormal, type Patch, type PatchGraph } from '../../model/patches.ts';
import type { SolidModel } from '../../model/solid-model.ts';
import type { Side } from './sides.ts';

export type StripEnd = 'round' | 'open';

/** A cavity of constant width with walls along `frame.z`: what slots, grooves, channels and T-slot heads have in common. */
export interface Strip {
  frame: Frame;
  /** -1 where it goes through. */
  floor: number;
  /** Half-way between the walls, without the round ends; in plan coordinates. */
  centreline: Segment[];
  width: number;
  /** It has no ends. */
  closed: boolean;
  ends: [StripEnd, StripEnd] | [];
  /** How much farther than the middle line one of the walls runs at an open end, mm: a mouth at an angle. */
  beyond: [number, number];
  /** Of the fillet at the foot of its walls, mm; 0: the floor is flat to the wall. */
  floorRadius: number;
  /** Patches. */
  left: number[];
  right: number[];
  others: number[];
  /** Levels along `frame.z`. `top` is that of the face it is cut into. */
  top: number;
  bottom: number;
  /** Ceilings over it: it is the head of a T-slot. */
  ceilings: number[];
}

type Wall = Extract<Side, { kind: 'wall' }>;

export interface StripShape {
  centreline: Segment[];
  width: number;
  closed: boolean;
  ends: [StripEnd, StripEnd] | [];
  beyond: [number, number];
  left: Wall[];
  right: Wall[];
  caps: Wall[];
}

const HALF_TURN = 0.02;
/** Largest difference between an end's diameter and the width, mm. */
const END_FIT = 0.01;

export const isHalfRound = (s: Segment): boolean =>
  s.kind === 'arc' && Math.abs(s.turn - Math.PI) < HALF_TURN;

/** The strip that an outline without an island makes: closed at both ends, at one or at none. */
export function stripWithEnds(sides: Side[]): StripShape | null {
  const gaps = sides.flatMap((s, i) => (s.kind === 'open' ? [i] : []));
  if (gaps.length > 2 || sides.some((s) => s.kind === 'lean')) return null;
  if (gaps.length === 0) return betweenTwoCaps(sides as Wall[]);
  const start = at(gaps, gaps.length - 1) + 1;
  const turned = [...sides.slice(start), ...sides.slice(0, start)];
  if (gaps.length === 2) {
    const gap = turned.findIndex((s) => s.kind === 'open');
    return between(turned.slice(gap + 1, -1) as Wall[], turned.slice(0, gap) as Wall[], [], ['open', 'open']);
  }
  const walls = turned.slice(0, -1) as Wall[];
  for (let i = 1; i + 1 < walls.length; i++) {
    if (!isHalfRound(at(walls, i).segment)) continue;
    const found = between(walls.slice(i + 1), walls.slice(0, i), [at(walls, i)], ['open', 'round']);
    if (found) return found;
  }
  return null;
}

function betweenTwoCaps(walls: Wall[]): StripShape | null {
  const caps = walls.flatMap((w, i) => (isHalfRound(w.segment) ? [i] : []));
  for (const i of caps) {
    for (const k of caps) {
      if (k <= i) continue;
      const [a, b] = [at(walls, i).segment, at(walls, k).segment];
      if (a.kind !== 'arc' || b.kind !== 'arc' || Math.abs(a.radius - b.radius) > END_FIT / 2) continue;
      const found = between(
        [...walls.slice(k + 1), ...walls.slice(0, i)],
        walls.slice(i + 1, k),
        [at(walls, i), at(walls, k)],
        ['round', 'round'],
      );
      if (found) return found;
    }
  }
  return null;
}

/** `back` runs the other way: both are walked with the floor on their left. */
function between(back: Wall[], right: Wall[], caps: Wall[], ends: [StripEnd, StripEnd]): StripShape | null {
  const left = [...back].reverse();
  const [a, b] = [left[0], right[0]];
  if (!a || !b) return null;
  const leftPath = reversePath(back.map((w) => w.segment));
  const rightPath = right.map((w) => w.segment);
  const width = pairWidth(leftPath, rightPath);
  if (width === null) return null;
  for (const c of caps)
    if (c.segment.kind !== 'arc' || Math.abs(2 * c.segment.radius - width) > END_FIT) return null;
  const centreline = centreLine(leftPath, rightPath, width);
  if (!centreline) return null;
  const beyond = runsBeyond(centreline, leftPath, rightPath);
  return {
    centreline,
    width,
    closed: false,
    ends,
    beyond: [ends[0] === 'open' ? beyond[0] : 0, ends[1] === 'open' ? beyond[1] : 0],
    left,
    right,
    caps,
  };
}

/** How much farther than a middle line the walls run at its start and its end, along it. */
function runsBeyond(middle: Segment[], left: Segment[], right: Segment[]): [number, number] {
  const far = (end: 'from' | 'to', s: Segment, walls: Segment[]): number => {
    const away = tangentAt(s, end);
    const sense = end === 'to' ? 1 : -1;
    return Math.max(0, ...walls.map((w) => sense * dot2(sub2(w[end], s[end]), away)));
  };
  return [
    far('from', first(middle), [first(left), first(right)]),
    far('to', last(middle), [last(left), last(right)]),
  ];
}

/** The width at the first pair of like segments; an outer corner's arc may stand alone before it. */
function pairWidth(left: Segment[], right: Segment[]): number | null {
  for (const [i, k] of [
    [0, 0],
    [0, 1],
    [1, 0],
  ] as const) {
    const [a, b] = [left[i], right[k]];
    const w = a && b ? widthBetween(a, b) : null;
    if (w !== null) return w;
  }
  return null;
}

/** The strip between a closed outer wall and the wall of an island, or null where they are not parallel. */
export function stripRound(outer: Side[], island: Side[]): StripShape | null {
  if (![...outer, ...island].every((s) => s.kind === 'wall') || outer.length > 200) return null;
  const right = outer as Wall[];
  const left = [...(island as Wall[])].reverse();
  const rightPath = right.map((w) => w.segment);
  const leftPath = reversePath((island as Wall[]).map((w) => w.segment));
  const turnLeft = (i: number): Segment[] => [...leftPath.slice(i), ...leftPath.slice(0, i)];
  for (let k = 0; k < rightPath.length; k++) {
    const turnedRight = [...rightPath.slice(k), ...rightPath.slice(0, k)];
    for (let i = 0; i < leftPath.length; i++) {
      const width = widthBetween(at(leftPath, i), first(turnedRight));
      if (width === null) continue;
      const centreline = centreLine(turnLeft(i), turnedRight, width);
      if (centreline)
        return { centreline, width, closed: true, ends: [], beyond: [0, 0], left, right, caps: [] };
    }
  }
  return null;
}

/** Level of the face that a wall is cut into, chamfers and rounds on its rim not counted; and the ceilings that close it from above. */
export function wallTop(
  model: SolidModel,
  graph: PatchGraph,
  wall: number,
  d: Vec3,
  floorLevel: number,
): { top: number; ceilings: number[] } {
  const patch = at(graph.patches, wall);
  let top = -Infinity;
  const ceilings: number[] = [];
  const look = (n: Patch): void => {
    const normal = planeNormal(n);
    if (!normal || !isAlong(normal, d)) return;
    const level = dot(first(at(model.edges, first(first(n.loops)).edge).points), d);
    if (level > floorLevel + 1e-3) top = Math.max(top, level);
  };
  for (const b of patch.loops.flat()) {
    if (b.other < 0) continue;
    const other = at(graph.patches, b.other);
    const normal = planeNormal(other);
    if (normal && isAgainst(normal, d) && b.convexity === 'concave') ceilings.push(b.other);
    if (b.convexity === 'convex') look(other);
    if (b.convexity === 'concave' || isParallelTo(other, d)) continue;
    for (const c of other.loops.flat())
      if (c.other >= 0 && c.convexity !== 'concave') look(at(graph.patches, c.other));
  }
  if (top === -Infinity) top = extentAlong(model, patch, d)[1];
  return { top, ceilings: [...new Set(ceilings)] };
}

/** A wall or a floor: no strip between the two. */
function isParallelTo(p: Patch, d: Vec3): boolean {
  const s = p.surface;
  if (s.kind === 'plane') {
    const c = Math.abs(dot(s.normal, d));
    return c < 1e-3 || c > 1 - 1e-6;
  }
  return s.kind === 'cylinder' && isParallel(s.axis, d);
}
