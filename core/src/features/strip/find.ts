import { at as entryAt, first as firstOf, known } from '../../lists.ts';
import {
  cross2,
  distance2,
  segmentLength,
  segmentPoint,
  turnBetween,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { areaAbout, dot, normalize, scale, sub, type Vec3, isParallel } from '../../geometry/vec.ts';
import { extentAlong, planeNormal, type Border, isWall } from '../../model/patches.ts';
import { loopPoints } from '../../model/solid-model.ts';
import type { RecogniseContext } from '../family.ts';
import { once } from '../family.ts';
import { positive } from './describe.ts';
import { floorSides, planFrame, toPlan, type Side } from './sides.ts';
import {
  isHalfRound,
  stripRound,
  stripWithEnds,
  wallTop,
  type Strip,
  type StripEnd,
  type StripShape,
} from './strip.ts';

/** All cavities of constant width in a solid, ceilings and all; worked out once for all families. */
export const strips = (context: RecogniseContext): Strip[] =>
  once(context, 'strips', () => [...blindStrips(context), ...throughStrips(context)]);

/** Strips with a flat floor: one look at every plane that has a foot of a wall on it. */
function blindStrips(context: RecogniseContext): Strip[] {
  const { model, graph, patches, claimed } = context;
  const out: Strip[] = [];
  for (const floor of patches) {
    const patch = entryAt(graph.patches, floor);
    const d = planeNormal(patch);
    if (!d || patch.faces.every((f) => claimed.has(f))) continue;
    if (!patch.loops.some((l) => l.some((b) => b.convexity === 'concave' || b.convexity === 'smooth')))
      continue;
    const frame = planFrame(d);
    const outline = outerLoop(context, patch.loops, frame);
    const sides = floorSides(model, graph, entryAt(patch.loops, outline), frame);
    if (!sides) continue;
    const islands: Side[][] = [];
    let broken = false;
    patch.loops.forEach((loop, i) => {
      // A hole in the floor is none of the groove's business.
      if (i === outline || loop.every((b) => b.convexity === 'convex' || b.other < 0)) return;
      const island = floorSides(model, graph, loop, frame);
      if (island) islands.push(island);
      else broken = true;
    });
    if (broken || islands.length > 1) continue;
    const shape = islands.length === 1 ? stripRound(sides, firstOf(islands)) : stripWithEnds(sides);
    if (!shape) continue;
    const bottom = dot(firstOf(entryAt(model.edges, firstOf(firstOf(patch.loops)).edge).points), d);
    const [left, right] = [levelOf(context, shape.left, d, bottom), levelOf(context, shape.right, d, bottom)];
    out.push({
      frame,
      floor,
      centreline: shape.centreline,
      width: shape.width,
      closed: shape.closed,
      ends: shape.ends,
      beyond: shape.beyond,
      floorRadius: footRadius(context, patch.loops.flat()),
      left: wallPatches(shape.left),
      right: wallPatches(shape.right),
      others: wallPatches(shape.caps),
      top: Math.min(left.top, right.top),
      bottom,
      ceilings:
        left.ceilings.length > 0 && right.ceilings.length > 0
          ? [...new Set([...left.ceilings, ...right.ceilings])]
          : [],
    });
  }
  return out;
}

/** Largest radius of the fillets along a floor's borders, mm; 0 where there are none. */
export function footRadius({ graph }: RecogniseContext, borders: readonly Border[]): number {
  const radii = borders.map((b) => {
    const other = b.convexity === 'smooth' && b.other >= 0 ? entryAt(graph.patches, b.other) : null;
    const s = other?.reversed ? other.surface : null;
    return s?.kind === 'cylinder' ? s.radius : s?.kind === 'torus' ? s.minorRadius : 0;
  });
  return Math.max(0, ...radii);
}

interface Level {
  top: number;
  ceilings: number[];
}

function levelOf(
  { model, graph }: RecogniseContext,
  walls: { patch: number }[],
  d: Vec3,
  floor: number,
): Level {
  const all = walls.map((w) => wallTop(model, graph, w.patch, d, floor));
  return { top: Math.max(...all.map((l) => l.top)), ceilings: all.flatMap((l) => l.ceilings) };
}

const wallPatches = (walls: { patch: number; through: number[] }[]): number[] => [
  ...new Set(walls.flatMap((w) => [w.patch, ...w.through])),
];

/** Index of the loop round the outside: the one with the largest area. */
export function outerLoop(
  { model }: RecogniseContext,
  loops: Border[][],
  frame: ReturnType<typeof planFrame>,
): number {
  if (loops.length === 1) return 0;
  let best = 0;
  let size = -Infinity;
  loops.forEach((loop, i) => {
    const area = Math.abs(areaAbout(loopPoints(model, loop), frame.z));
    if (area > size) [best, size] = [i, area];
  });
  return best;
}

/** Strips without a floor start from their round ends. */
function throughStrips(context: RecogniseContext): Strip[] {
  const { graph, patches, claimed } = context;
  const out: Strip[] = [];
  const used = new Set<number>();
  for (const cap of patches) {
    const patch = entryAt(graph.patches, cap);
    const s = patch.surface;
    if (used.has(cap) || s.kind !== 'cylinder' || !patch.reversed || patch.faces.some((f) => claimed.has(f)))
      continue;
    const frame = planFrame(facing(s.axis, context.main));
    const first = patchSegment(context, cap, frame);
    if (!first || !isHalfRound(first) || hasFloor(context, cap, frame.z)) continue;
    const strip = walkThrough(context, cap, first, frame);
    if (!strip) continue;
    for (const p of [...strip.left, ...strip.right, ...strip.others]) used.add(p);
    out.push(strip);
  }
  return out;
}

/** The sense of an axis that looks the way that is up; across it, the positive one. */
function facing(axis: Vec3, main: Vec3): Vec3 {
  const share = dot(axis, main);
  if (Math.abs(share) < 1e-3) return positive(axis);
  return share > 0 ? axis : scale(axis, -1);
}

/** True where the wall stands on something: one of its ends is a foot. */
export function hasFloor({ graph }: RecogniseContext, wall: number, d: Vec3): boolean {
  return entryAt(graph.patches, wall)
    .loops.flat()
    .some((b) => {
      if (b.other < 0) return false;
      const other = entryAt(graph.patches, b.other);
      if (isWall(other, d)) return false;
      return b.convexity === 'concave' || (b.convexity === 'smooth' && other.reversed);
    });
}

/** The wall that flows into this one at a place in plan, and has its own `end` there. */
function wallAt(
  context: RecogniseContext,
  wall: number,
  at: Vec2,
  end: 'from' | 'to',
  frame: ReturnType<typeof planFrame>,
): { patch: number; segment: Segment } | null {
  const { model, graph } = context;
  for (const b of entryAt(graph.patches, wall).loops.flat()) {
    if (b.other < 0 || b.convexity === 'convex' || !isWall(entryAt(graph.patches, b.other), frame.z))
      continue;
    const { points } = entryAt(model.edges, b.edge);
    if (
      distance2(toPlan(frame, firstOf(points)), at) > 5e-3 ||
      distance2(toPlan(frame, entryAt(points, points.length - 1)), at) > 5e-3
    )
      continue;
    const segment = patchSegment(context, b.other, frame);
    if (segment && distance2(segment[end], at) < 5e-3) return { patch: b.other, segment };
  }
  return null;
}

function walkThrough(
  context: RecogniseContext,
  cap: number,
  first: Segment,
  frame: ReturnType<typeof planFrame>,
): Strip | null {
  const chain: { patch: number; segment: Segment }[] = [{ patch: cap, segment: first }];
  let closed = false;
  for (let guard = 0; guard < 200; guard++) {
    const last = entryAt(chain, chain.length - 1);
    const next = wallAt(context, last.patch, last.segment.to, 'from', frame);
    if (!next) break;
    if (next.patch === cap) {
      closed = true;
      break;
    }
    chain.push(next);
  }
  if (!closed) {
    // Open ahead: what flows into the cap from behind is the other wall.
    for (let guard = 0; guard < 200; guard++) {
      const before = wallAt(context, firstOf(chain).patch, firstOf(chain).segment.from, 'to', frame);
      if (!before || chain.some((c) => c.patch === before.patch)) break;
      chain.unshift(before);
    }
  }
  const sides: Side[] = chain.map(({ patch, segment }) => ({ kind: 'wall', patch, segment, through: [] }));
  if (!closed) {
    const [from, to] = [entryAt(chain, chain.length - 1).segment.to, firstOf(chain).segment.from];
    sides.push({ kind: 'open', from, to, pieces: [{ kind: 'line', from, to }] });
  }
  const shape = stripWithEnds(sides);
  return shape && throughStrip(context, shape, frame);
}

function throughStrip(
  context: RecogniseContext,
  shape: StripShape,
  frame: ReturnType<typeof planFrame>,
): Strip {
  const { model, graph } = context;
  const d = frame.z;
  const back: Vec3 = [-d[0], -d[1], -d[2]];
  const walls = [...shape.left, ...shape.right].map((w) => w.patch);
  const lowest = Math.min(...walls.map((w) => extentAlong(model, entryAt(graph.patches, w), d)[0]));
  const side = (list: { patch: number }[], along: Vec3, floor: number): number =>
    levelOf(context, list, along, floor).top;
  const highest = Math.max(...walls.map((w) => extentAlong(model, entryAt(graph.patches, w), d)[1]));
  return {
    frame,
    floor: -1,
    centreline: shape.centreline,
    width: shape.width,
    closed: false,
    ends: shape.ends as [StripEnd, StripEnd],
    beyond: shape.beyond,
    floorRadius: 0,
    left: wallPatches(shape.left),
    right: wallPatches(shape.right),
    others: wallPatches(shape.caps),
    top: Math.min(side(shape.left, d, lowest), side(shape.right, d, lowest)),
    bottom: -Math.min(side(shape.left, back, -highest), side(shape.right, back, -highest)),
    ceilings: [],
  };
}

/** A whole wall patch in plan, run with the air on its left; null where it closes on itself or is cut up. */
function patchSegment(
  { model, graph }: RecogniseContext,
  index: number,
  frame: ReturnType<typeof planFrame>,
): Segment | null {
  const patch = entryAt(graph.patches, index);
  const s = patch.surface;
  if (s.kind === 'plane') {
    const n = known(planeNormal(patch), 'the normal of a plane');
    const t = normalize([
      n[1] * frame.z[2] - n[2] * frame.z[1],
      n[2] * frame.z[0] - n[0] * frame.z[2],
      n[0] * frame.z[1] - n[1] * frame.z[0],
    ]);
    const [low, high] = extentAlong(model, patch, t);
    const offset = dot(s.origin, n);
    const at = (u: number): Vec2 =>
      toPlan(frame, [0, 1, 2].map((i) => entryAt(t, i) * u + entryAt(n, i) * offset) as Vec3);
    return { kind: 'line', from: at(low), to: at(high) };
  }
  if (s.kind !== 'cylinder') return null;
  const centre = toPlan(frame, s.origin);
  let sweep = 0;
  const lean: Vec2 = [0, 0];
  const uprights: Vec2[] = [];
  for (const b of patch.loops.flat()) {
    const { points } = entryAt(model.edges, b.edge);
    const plan = points.map((p) => toPlan(frame, p));
    const run = sub(entryAt(points, points.length - 1), firstOf(points));
    if (isParallel(normalize(run), frame.z)) {
      if (!uprights.some((u) => distance2(u, firstOf(plan)) < 5e-3)) uprights.push(firstOf(plan));
      continue;
    }
    for (const p of plan) {
      lean[0] += p[0] - centre[0];
      lean[1] += p[1] - centre[1];
    }
    for (let i = 1; i < plan.length; i++) {
      const [p, q]: [Vec2, Vec2] = [
        [entryAt(plan, i - 1)[0] - centre[0], entryAt(plan, i - 1)[1] - centre[1]],
        [entryAt(plan, i)[0] - centre[0], entryAt(plan, i)[1] - centre[1]],
      ];
      sweep += Math.abs(Math.atan2(cross2(p, q), p[0] * q[0] + p[1] * q[1])) / 2;
    }
  }
  if (uprights.length !== 2) return null;
  const counterClockwise = patch.reversed;
  const [a, b] = uprights as [Vec2, Vec2];
  // Of the two ways round, the one whose middle lies where the face's points are.
  const ways = [
    [a, b],
    [b, a],
  ].map(([from, to]): Segment => ({
    kind: 'arc',
    from: known(from, 'its start'),
    to: known(to, 'its end'),
    centre,
    radius: s.radius,
    turn: turnBetween(centre, known(from, 'its start'), known(to, 'its end'), counterClockwise),
  }));
  const share = (way: Segment): number => {
    const m = segmentPoint(way, 0.5);
    return (m[0] - centre[0]) * lean[0] + (m[1] - centre[1]) * lean[1];
  };
  const fits = ways.filter((w) => Math.abs(segmentLength(w) / s.radius - sweep) < 0.02);
  return fits.sort((v, w) => share(w) - share(v))[0] ?? null;
}
