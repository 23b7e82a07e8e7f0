import { dot, length, normalize, scale, sub, type Vec3 } from '../../geometry/vec.ts';
import { toFrame, directionToFrame } from '../../geometry/frame.ts';
import { at, first, known, last } from '../../lists.ts';
import { borderPoints, isWall, planeNormal, type Border } from '../../model/patches.ts';
import { distanceToSurface, outwardNormal, surfaceNormal } from '../../model/surface.ts';
import type { Surface } from '../../model/solid-model.ts';
import { runFaces } from '../edge/describe.ts';
import { edgeRuns } from '../edge/runs.ts';
import type { EdgeShape } from '../edge/shape.ts';
import { isHole, type FeatureFamily, type Found, type Recognised, type RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { RisingEdgeFeature } from './schema.ts';

/** A face that looks up less than this is a wall itself: cosine. */
const LOOKS_UP = 0.3;
/** A chord of an edge lies no farther off it, mm; and so often its pieces are halved at the most. */
const CHORD = 0.002;
const HALVINGS = 5;
/** Steps in which a point is brought onto both faces. */
const STEPS = 10;

export const risingEdgeFamily: FeatureFamily<'rising-edge'> = {
  family: 'rising-edge',
  prefix: 'X',
  isOnEdge: true,
  isBrokenOnWish: true,
  optional: 'Sharp in the model: nothing asks for a break.',
  recognise: recogniseRising,
  place: (f) => f.at,
  edge: risingShape,
  group: (f) => (f.holeId ? 'Rims on faces that are not level' : 'Edges that rise and fall'),
  sizeKey: (f) =>
    ['rising-edge', f.loop, directionPart(f.axis), sizePart(f.length), sizePart(f.rise)].join('|'),
  describe: (f, say) => `${say(f.length)} long, rises ${say(f.rise)}`,
  sortBy: (f) => f.length,
};

/** An edge that rises and falls in a setup's coordinates: in plan a chain of points, each with its own height and faces. */
function risingShape(
  f: RisingEdgeFeature,
  frame: Parameters<NonNullable<FeatureFamily['edge']>>[1],
): EdgeShape | null {
  if (dot(f.axis, frame.z) < 0) return null;
  const run = f.run.map((p) => ({
    at: toFrame(frame, p.at),
    up: directionToFrame(frame, p.up),
    out: directionToFrame(frame, p.out),
  }));
  return {
    path: run.slice(1).map((q, i) => {
      const p = at(run, i).at;
      return { kind: 'line', from: [p[0], p[1]], to: [q.at[0], q.at[1]] };
    }),
    closed: f.loop === 'closed',
    side: f.holeId ? 'inside' : 'outside',
    top: Math.max(...run.map((p) => p.at[2])),
    profile: { kind: 'sharp' },
    lean: 0,
    rolled: [],
    isBehind: false,
    rise: run,
  };
}

/** Convex edges between a face that is not level and an upright wall below it, chained along the face. */
function recogniseRising(context: RecogniseContext): Recognised<RisingEdgeFeature> {
  const { graph, patches } = context;
  const runs = edgeRuns(context);
  const used = new Set(runs.flatMap((r) => r.borders.map((b) => b.edge)));
  const strips = new Set(runs.flatMap((r) => (r.form.kind === 'sharp' ? [] : r.strips)));
  const holes = new Map<number, { id: string; axis: Vec3 }>();
  for (const f of context.found)
    if (isHole(f)) for (const face of f.faces) holes.set(face, { id: f.id, axis: f.axis });
  const features: Found<RisingEdgeFeature>[] = [];
  for (const p of patches) {
    const top = at(graph.patches, p);
    if (planeNormal(top) || strips.has(p) || top.faces.some((f) => context.claimed.has(f) && holes.has(f)))
      continue;
    for (const loop of top.loops) {
      const own = loop.map((b) => (used.has(b.edge) ? null : readBorder(context, p, b, holes)));
      for (const found of groups(own)) {
        for (const k of found.at) used.add(at(loop, k).edge);
        features.push(
          describe(
            context,
            p,
            found.at.map((k) => at(loop, k)),
            known(at(own, first(found.at)), 'its side'),
            found.closed,
          ),
        );
      }
    }
  }
  return { features, notes: [] };
}

interface Read {
  d: Vec3;
  holeId?: string;
}

/** The direction from which an edge of a face is followed; null where it is no such edge. */
function readBorder(
  context: RecogniseContext,
  top: number,
  b: Border,
  holes: ReadonlyMap<number, { id: string; axis: Vec3 }>,
): Read | null {
  if (b.other < 0 || b.convexity !== 'convex') return null;
  const { graph, model, main, rays } = context;
  const wall = at(graph.patches, b.other);
  const hole = holes.get(first(wall.faces));
  const points = borderPoints(model, b);
  const middle = at(points, Math.floor(points.length / 2));
  const face = at(model.faces, first(at(graph.patches, top).faces));
  const axis = hole?.axis ?? main;
  const d = dot(outwardNormal(face, middle), axis) < 0 ? scale(axis, -1) : axis;
  if (!isWall(wall, d)) return null;
  if (points.some((q) => dot(outwardNormal(face, q), d) < LOOKS_UP)) return null;
  const wallFace = at(model.faces, first(wall.faces));
  const isCovered = [0.25, 0.5, 0.75].some((share) => {
    const q = at(points, Math.floor(share * (points.length - 1)));
    const beside = outwardNormal(wallFace, q).map((v, i) => at(q, i) + 0.05 * v + 0.05 * at(d, i)) as Vec3;
    return rays.firstHit(beside, d) !== null;
  });
  return isCovered ? null : { d, ...(hole ? { holeId: hole.id } : {}) };
}

/** Neighbours along a loop that are followed from one direction, going round its end. */
function groups(own: readonly (Read | null)[]): { at: number[]; closed: boolean }[] {
  const n = own.length;
  const like = (a: number, b: number): boolean => {
    const [p, q] = [own[a], own[b]];
    return !!p && !!q && dot(p.d, q.d) > 0.999 && p.holeId === q.holeId;
  };
  const start = own.findIndex((_, i) => !like((i + n - 1) % n, i));
  if (start < 0) return [{ at: own.map((_, i) => i), closed: true }];
  const out: { at: number[]; closed: boolean }[] = [];
  for (let i = 0; i < n; i++) {
    const k = (start + i) % n;
    if (!own[k]) continue;
    if (i > 0 && like((k + n - 1) % n, k)) last(out).at.push(k);
    else out.push({ at: [k], closed: false });
  }
  return out;
}

function describe(
  context: RecogniseContext,
  top: number,
  borders: readonly Border[],
  { d, holeId }: Read,
  closed: boolean,
): Found<RisingEdgeFeature> {
  const { graph, model } = context;
  const face = at(model.faces, first(at(graph.patches, top).faces));
  const run = borders.flatMap((b, i) => {
    const wall = at(model.faces, first(at(graph.patches, b.other).faces));
    const points = refined(borderPoints(model, b), face.surface, wall.surface);
    // A joint is a point once; where two walls meet it looks as the first does.
    return (i === 0 ? points : points.slice(1)).map((p) => ({
      at: roundVec(p),
      up: roundVec(outwardNormal(face, p)),
      out: roundVec(outwardNormal(wall, p)),
    }));
  });
  const heights = run.map((p) => dot(p.at, d));
  const high = Math.max(...heights);
  return {
    family: 'rising-edge',
    solid: context.solid,
    faces: [],
    reachableFrom: [roundVec(d)],
    axis: roundVec(d),
    loop: closed ? 'closed' : 'open',
    length: round(run.slice(1).reduce((sum, p, i) => sum + length(sub(p.at, at(run, i).at)), 0)),
    rise: round(high - Math.min(...heights)),
    at: at(run, heights.indexOf(high)).at,
    edges: borders.map((b) => b.edge),
    run,
    ...(holeId ? { holeId } : {}),
    beside: runFaces(context, [top, ...borders.map((b) => b.other)]),
  };
}

/** Points of an edge with more between them, brought onto both its surfaces, until chords lie close to it; as they are on a free form. */
function refined(points: readonly Vec3[], s: Surface, t: Surface): Vec3[] {
  let out = [...points];
  for (let k = 0; k < HALVINGS; k++) {
    let isClose = true;
    out = out.flatMap((p, i) => {
      const q = out[i + 1];
      if (!q) return [p];
      const middle: Vec3 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2];
      const on = onBoth(middle, s, t);
      if (!on || length(sub(on, middle)) <= CHORD) return [p];
      isClose = false;
      return [p, on];
    });
    if (isClose) break;
  }
  return out;
}

function onBoth(p: Vec3, s: Surface, t: Surface): Vec3 | null {
  let q = p;
  for (let k = 0; k < STEPS; k++)
    for (const surface of [s, t]) {
      const off = distanceToSurface(surface, q);
      if (!Number.isFinite(off)) return null;
      const n = normalize(surfaceNormal(surface, q));
      q = [q[0] - off * n[0], q[1] - off * n[1], q[2] - off * n[2]];
    }
  return q;
}
