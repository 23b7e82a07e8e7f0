import { depthChanges, raised } from '../changes.ts';
import { at as entryAt, first, known } from '../../lists.ts';
import {
  cross2,
  distance2,
  lineDirection,
  middle2,
  reversePath,
  segmentLength,
  segmentPoint,
  sub2,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { along, dot, scale, type Vec3, isParallel, isAgainst } from '../../geometry/vec.ts';
import { borderPoints, planeNormal, type Border, isWall } from '../../model/patches.ts';
import type { CurvePiece, GrooveEnd } from '../base.ts';
import { planPieces, SHUT } from '../groove-shape.ts';
import { toFrame } from '../../geometry/frame.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import { positive } from '../strip/describe.ts';
import { outerLoop } from '../strip/find.ts';
import { floorSides, fromPlan, planFrame, wallSegment, type Side } from '../strip/sides.ts';
import type { WallGrooveFeature } from './schema.ts';

export const wallGrooveFamily: FeatureFamily<'wall-groove'> = {
  family: 'wall-groove',
  prefix: 'W',
  isOpenBelow: () => true,
  changes: depthChanges((f, by) => ({ at: raised(f.at, f.axis, by) })),
  recognise: recogniseWallGrooves,
  place: (f) => f.at,
  group: (f) => `Wall grooves, ${f.side}, ${f.loop === 'closed' ? 'all round' : 'open'}`,
  groove: (f, frame) => {
    if (!f.mouth || !f.ends) return null;
    const isTurned = dot(f.axis, frame.z) < 0;
    const path = planPieces(f.mouth, f.axis, frame);
    const z = toFrame(frame, f.at)[2];
    return {
      // Seen from the other side the air would lie on its right.
      path: isTurned ? reversePath(path) : path,
      closed: f.loop === 'closed',
      ends: isTurned ? [f.ends[1], f.ends[0]] : f.ends,
      levels: [{ top: z + f.width / 2, bottom: z - f.width / 2, halfTop: f.depth, halfBottom: f.depth }],
      through: false,
      isOneSided: true,
      floorRadius: 0,
      ...(f.runOut === undefined ? {} : { runOut: f.runOut }),
    };
  },
  sizeKey: (f, anyDepth) =>
    [
      'wall-groove',
      f.side,
      f.loop,
      directionPart(f.axis),
      sizePart(f.width),
      sizePart(f.length),
      depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) => `${say(f.width)} wide, ${say(f.depth)} into the wall`,
  sortBy: (f) => f.width,
};

type Wall = Extract<Side, { kind: 'wall' }>;

/** Backs of undercuts: walls that stand between two planes which face each other, one depth behind the wall they are cut into. */
function recogniseWallGrooves(context: RecogniseContext): Recognised<WallGrooveFeature> {
  const { graph, patches, main } = context;
  const features: Found<WallGrooveFeature>[] = [];
  const taken = new Set<number>();
  // Ceilings that look down first, so that a groove is read from above.
  const share = (p: number): number =>
    dot(known(planeNormal(entryAt(graph.patches, p)), 'the normal of a plane'), main);
  const planes = patches
    .filter((p) => planeNormal(entryAt(graph.patches, p)) !== null)
    .sort((a, b) => share(a) - share(b) || a - b);
  for (const ceiling of planes) {
    const read = readWallGroove(context, ceiling, taken);
    if (!read) continue;
    for (const p of read.backs) taken.add(p);
    features.push(read.feature);
  }
  return { features, notes: [] };
}

function readWallGroove(
  context: RecogniseContext,
  ceiling: number,
  taken: Set<number>,
): { feature: Found<WallGrooveFeature>; backs: number[] } | null {
  const { model, graph, claimed, main } = context;
  const patch = entryAt(graph.patches, ceiling);
  if (
    patch.faces.every((f) => claimed.has(f)) ||
    !patch.loops.some((l) => l.some((b) => b.convexity === 'concave' || b.convexity === 'smooth'))
  )
    return null;
  const down = known(planeNormal(patch), 'the normal of a plane');
  const frame = planFrame(down);
  const outline = outerLoop(context, patch.loops, frame);
  let chain: { walls: Wall[]; closed: boolean; loop: number } | null = null;
  for (const [i, loop] of patch.loops.entries()) {
    if (loop.every((b) => b.convexity === 'convex')) continue;
    const sides = floorSides(model, graph, loop, frame);
    if (!sides || sides.some((s) => s.kind === 'lean') || chain) return null;
    const gap = sides.findIndex((s) => s.kind === 'open');
    const turned = gap < 0 ? sides : [...sides.slice(gap + 1), ...sides.slice(0, gap)];
    if (turned.some((s) => s.kind === 'open')) return null;
    chain = { walls: turned as Wall[], closed: gap < 0, loop: i };
  }
  if (!chain) return null;
  const backs = chain.walls.flatMap((w) => [w.patch, ...w.through]);
  if (backs.some((p) => taken.has(p) || entryAt(graph.patches, p).faces.some((f) => claimed.has(f))))
    return null;
  // A straight cut is a wall groove only where the wall it is in stands up: otherwise it is a slot.
  const isUpright = isParallel(down, main);
  if (!chain.closed && chain.walls.every((w) => w.segment.kind === 'line') && !isUpright) return null;
  const level = dot(first(entryAt(model.edges, first(first(patch.loops)).edge).points), down);
  const floors = chain.walls.flatMap((w) => oppositePlane(context, w.patch, down, level) ?? []);
  const width = floors[0]?.away ?? 0;
  if (floors.length < chain.walls.length || floors.some((f) => Math.abs(f.away - width) >= 5e-3)) return null;
  const mouth = mouthOf(context, patch.loops, chain, frame);
  if (!mouth) return null;
  const side = chain.closed && chain.loop === outline ? 'inside' : 'outside';
  const axis = isUpright ? roundVec(dot(down, main) > 0 ? down : scale(down, -1)) : positive(down);
  const middle = along(fromPlan(frame, mouth.at, level), down, width / 2);
  const reach = [axis, roundVec(scale(axis, -1))].filter(
    (d) => context.rays.firstHit(along(middle, mouth.outward(frame), 0.2), d) === null,
  );
  return {
    backs,
    feature: {
      family: 'wall-groove',
      solid: context.solid,
      faces: [
        ...new Set([
          ...patch.faces,
          ...backs.flatMap((p) => entryAt(graph.patches, p).faces),
          ...floors.flatMap((f) => (f.isStrip ? entryAt(graph.patches, f.patch).faces : [])),
        ]),
      ].sort((a, b) => a - b),
      reachableFrom: reach,
      axis,
      width: round(width),
      depth: round(mouth.depth),
      loop: chain.closed ? 'closed' : 'open',
      length: round(mouth.length),
      side,
      at: roundVec(middle),
      ...mouthPieces(mouth, chain, frame, axis, level + width / 2),
      edges: mouth.edges,
    },
  };
}

/** The plane at the back wall's other end that faces the ceiling. */
function oppositePlane(
  { model, graph }: RecogniseContext,
  back: number,
  down: Vec3,
  level: number,
): { patch: number; away: number; isStrip: boolean } | null {
  const look = (
    borders: Border[],
    depth: number,
  ): { patch: number; away: number; isStrip: boolean } | null => {
    for (const b of borders) {
      if (b.other < 0 || b.convexity === 'convex') continue;
      const other = entryAt(graph.patches, b.other);
      const n = planeNormal(other);
      if (n && isAgainst(n, down)) {
        const away = dot(first(entryAt(model.edges, first(first(other.loops)).edge).points), down) - level;
        if (away > 1e-3)
          return { patch: b.other, away, isStrip: other.loops.flat().some((c) => c.convexity === 'convex') };
      } else if (depth > 0 && b.convexity === 'smooth' && other.reversed && !isWall(other, down)) {
        const found = look(other.loops.flat(), depth - 1);
        if (found) return found;
      }
    }
    return null;
  };
  return look(entryAt(graph.patches, back).loops.flat(), 1);
}

interface Mouth {
  /** Pieces of the wall's edge, in no order, with the groove on the left as the frame sees it. */
  segments: Segment[];
  depth: number;
  length: number;
  at: Vec2;
  edges: number[];
  outward(frame: ReturnType<typeof planFrame>): Vec3;
}

/** The edge of the wall that the groove is cut into: parallel to every back wall at one depth. */
function mouthOf(
  { model, graph }: RecogniseContext,
  loops: Border[][],
  chain: { walls: Wall[]; closed: boolean },
  frame: ReturnType<typeof planFrame>,
): Mouth | null {
  const rims = loops.flat().flatMap((b) => {
    if (b.other < 0 || b.convexity !== 'convex' || !isWall(entryAt(graph.patches, b.other), frame.z))
      return [];
    return [
      { border: b, segment: wallSegment(entryAt(graph.patches, b.other), borderPoints(model, b), frame) },
    ];
  });
  const matched = chain.walls.map((w) =>
    rims.flatMap((r) => {
      const depth = depthBetween(w.segment, r.segment);
      return depth === null ? [] : [{ ...r, depth }];
    }),
  );
  const isRunOut = (i: number): boolean =>
    !chain.closed && (i === 0 || i === matched.length - 1) && entryAt(chain.walls, i).segment.kind === 'arc';
  if (matched.some((m, i) => m.length === 0 && !isRunOut(i))) return null;
  const all = [...new Map(matched.flat().map((m) => [m.border.edge, m])).values()];
  if (all.length === 0) return wholeArc(chain.walls, rims);
  const depth = Math.min(...all.map((m) => m.depth));
  const near = all.filter((m) => Math.abs(m.depth - depth) < 5e-3);
  if (matched.some((m, i) => !isRunOut(i) && !m.some((x) => Math.abs(x.depth - depth) < 5e-3))) return null;
  const edges = chain.closed ? rims : near;
  const longest = near.reduce((m, r) => (segmentLength(r.segment) > segmentLength(m.segment) ? r : m));
  const back = entryAt(
    chain.walls,
    matched.findIndex((m) =>
      m.some((x) => x.border.edge === longest.border.edge && Math.abs(x.depth - depth) < 5e-3),
    ),
  );
  return {
    depth,
    length: edges.reduce((sum, r) => sum + segmentLength(r.segment), 0),
    at: segmentPoint(longest.segment, 0.5),
    segments: edges.map((r) => r.segment),
    edges: edges.map((r) => r.border.edge),
    outward: (f) =>
      outwardFrom(
        f,
        nearestOn(back.segment, segmentPoint(longest.segment, 0.5)),
        segmentPoint(longest.segment, 0.5),
      ),
  };
}

/** A disc cutter's straight plunge: one arc behind a straight mouth. */
function wholeArc(walls: Wall[], rims: { border: Border; segment: Segment }[]): Mouth | null {
  const [wall, ...more] = walls;
  const arc = wall?.segment;
  const lines = rims.filter((r) => r.segment.kind === 'line');
  if (more.length > 0 || arc?.kind !== 'arc' || lines.length !== 1) return null;
  const line = first(lines).segment as Extract<Segment, { kind: 'line' }>;
  const at = middle2(line.from, line.to);
  const deepest = segmentPoint(arc, 0.5);
  return {
    depth: Math.abs(cross2(lineDirection(line), sub2(deepest, line.from))),
    length: segmentLength(line),
    at,
    segments: [line],
    edges: [first(lines).border.edge],
    outward: (f) => outwardFrom(f, deepest, at),
  };
}

/** The wall's edge as one chain in space, and how it ends. Nothing where its pieces do not join. */
function mouthPieces(
  { segments }: Mouth,
  { walls, closed }: { walls: Wall[]; closed: boolean },
  frame: ReturnType<typeof planFrame>,
  axis: Vec3,
  level: number,
): Pick<WallGrooveFeature, 'mouth' | 'ends' | 'runOut'> {
  const chain = chained(segments, closed);
  if (!chain) return {};
  // The frame looks along the ceiling's own way out: where that is not the axis' sense, left and right change places.
  const isTurned = dot(frame.z, axis) < 0;
  const run = isTurned ? chain : reversePath(chain);
  const mouth = run.map((s): CurvePiece => {
    const [from, to] = [fromPlan(frame, s.from, level), fromPlan(frame, s.to, level)].map(roundVec);
    const ends = { from: known(from, 'its start'), to: known(to, 'its end') };
    return s.kind === 'line'
      ? { kind: 'line', ...ends }
      : {
          kind: 'arc',
          ...ends,
          centre: roundVec(fromPlan(frame, s.centre, level)),
          radius: round(s.radius),
          turn: round(isTurned ? -s.turn : s.turn),
        };
  });
  const runs = [first(walls), entryAt(walls, walls.length - 1)].map(({ segment }) =>
    segment.kind === 'arc' && !closed && !segments.some((m) => depthBetween(segment, m) !== null)
      ? segment.radius
      : null,
  );
  // Back walls run as the groove lies, with it on their left, and so does the mouth against them.
  const [a, b] = isTurned ? [runs[1], runs[0]] : [runs[0], runs[1]];
  const runOut = runs.find((r) => r !== null);
  const end = (r: number | null | undefined): GrooveEnd => ({ open: r === null, beyond: 0 });
  return {
    mouth,
    ends: closed ? [SHUT, SHUT] : [end(a), end(b)],
    ...(runOut ? { runOut: round(runOut) } : {}),
  };
}

/** Pieces in the order in which they follow each other; null where they are not one chain. */
function chained(segments: readonly Segment[], closed: boolean): Segment[] | null {
  const rest = [...segments];
  const follows = (a: Segment, b: Segment): boolean => distance2(a.to, b.from) < 5e-3;
  const start = closed ? rest[0] : rest.find((s) => !rest.some((o) => o !== s && follows(o, s)));
  if (!start) return null;
  const out = [start];
  rest.splice(rest.indexOf(start), 1);
  while (rest.length > 0) {
    const next = rest.findIndex((s) => follows(entryAt(out, out.length - 1), s));
    if (next < 0) return null;
    out.push(...rest.splice(next, 1));
  }
  return out;
}

const outwardFrom = (f: ReturnType<typeof planFrame>, from: Vec2, to: Vec2): Vec3 => {
  const d = fromPlan(f, sub2(to, from), 0);
  return scale(d, 1 / (Math.hypot(...d) || 1));
};

function nearestOn(s: Segment, p: Vec2): Vec2 {
  if (s.kind === 'line') {
    const d = lineDirection(s);
    const k = (p[0] - s.from[0]) * d[0] + (p[1] - s.from[1]) * d[1];
    return [s.from[0] + k * d[0], s.from[1] + k * d[1]];
  }
  const l = distance2(p, s.centre) || 1;
  return [
    s.centre[0] + ((p[0] - s.centre[0]) * s.radius) / l,
    s.centre[1] + ((p[1] - s.centre[1]) * s.radius) / l,
  ];
}

/** How far a back wall lies behind a mouth that is parallel to it and runs beside it; null where it is not. */
function depthBetween(back: Segment, mouth: Segment): number | null {
  if (back.kind === 'line' && mouth.kind === 'line') {
    const d = lineDirection(back);
    if (Math.abs(cross2(d, lineDirection(mouth))) > 2e-3) return null;
    const away = cross2(d, sub2(segmentPoint(mouth, 0.5), back.from));
    // The ceiling lies on the left of its back wall.
    return away > 1e-3 ? away : null;
  }
  if (back.kind !== 'arc' || mouth.kind !== 'arc' || distance2(back.centre, mouth.centre) > 5e-3) return null;
  const away = back.turn > 0 ? back.radius - mouth.radius : mouth.radius - back.radius;
  return away > 1e-3 ? away : null;
}
