import { depthChanges, raised } from '../changes.ts';
import { at as entryAt, first, known } from '../../lists.ts';
import { straightRun } from '../curves.ts';
import { dot, length, reject, scale, sub, type Vec3 } from '../../geometry/vec.ts';
import { extentAlong, planeNormal } from '../../model/patches.ts';
import { levelsSeen, planRun } from '../groove-shape.ts';
import { middle2, type Vec2 } from '../../geometry/path.ts';
import type { GrooveEnd } from '../base.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import { positive } from '../strip/describe.ts';
import { outerLoop } from '../strip/find.ts';
import { floorSides, fromPlan, planFrame, type Side } from '../strip/sides.ts';
import { wallTop } from '../strip/strip.ts';
import type { DovetailFeature } from './schema.ts';

export const dovetailFamily: FeatureFamily<'dovetail'> = {
  family: 'dovetail',
  prefix: 'D',
  changes: depthChanges((f, by) => ({ at: raised(f.at, f.axis, by) })),
  recognise: recogniseDovetails,
  place: (f) => f.at,
  group: () => 'Dovetails',
  sizeKey: (f, anyDepth) =>
    [
      'dovetail',
      f.openEnds,
      directionPart(f.axis),
      ...[f.mouthWidth, f.bottomWidth, f.length].map(sizePart),
      depthPart(f.depth, anyDepth),
      f.angle.toFixed(1),
    ].join('|'),
  describe: (f, say) =>
    `${say(f.mouthWidth)} / ${say(f.bottomWidth)} ↧${say(f.depth)}, ${+f.angle.toFixed(2)}°`,
  sortBy: (f) => f.bottomWidth,
  groove: (f, frame) => {
    if (!f.ends) return null;
    const [a, b] = f.ends.map((e) => f.length / 2 - (e.open ? 0 : f.bottomWidth / 2));
    const [top, bottom] = levelsSeen(f.at, f.axis, f.depth, frame);
    return {
      path: planRun(f.at, f.direction, -(a ?? 0), b ?? 0, frame),
      closed: false,
      ends: f.ends,
      levels: [{ top, bottom, halfTop: f.mouthWidth / 2, halfBottom: f.bottomWidth / 2 }],
      through: false,
      isOneSided: false,
      floorRadius: 0,
    };
  },
  opening: (f) => ({ runs: [straightRun(f.at, f.direction, f.length)], width: f.mouthWidth, depth: f.depth }),
};

/** Floors between two planes that lean over them at one angle. */
function recogniseDovetails(context: RecogniseContext): Recognised<DovetailFeature> {
  const { model, graph, patches, claimed } = context;
  const features: Found<DovetailFeature>[] = [];
  for (const floor of patches) {
    const patch = entryAt(graph.patches, floor);
    const d = planeNormal(patch);
    if (
      !d ||
      patch.faces.every((f) => claimed.has(f)) ||
      !patch.loops.some((l) => l.some((b) => b.convexity === 'concave'))
    )
      continue;
    const frame = planFrame(d);
    const sides = floorSides(
      model,
      graph,
      entryAt(patch.loops, outerLoop(context, patch.loops, frame)),
      frame,
    );
    const read = sides && readDovetail(context, floor, sides, d);
    if (read) features.push(read);
  }
  return { features, notes: [] };
}

function readDovetail(
  context: RecogniseContext,
  floor: number,
  sides: Side[],
  d: Vec3,
): Found<DovetailFeature> | null {
  const { model, graph, rays } = context;
  const leaning = [...new Set(sides.flatMap((s) => (s.kind === 'lean' ? [s.patch] : [])))].filter(
    (p) => lean(context, p, d) < -0.02,
  );
  const planes = leaning.filter((p) => entryAt(graph.patches, p).surface.kind === 'plane');
  const [a, b] = planes;
  if (a === undefined || b === undefined || planes.length !== 2 || sides.some((s) => s.kind === 'wall'))
    return null;
  const [na, nb] = [
    known(planeNormal(entryAt(graph.patches, a)), 'the normal of a plane'),
    known(planeNormal(entryAt(graph.patches, b)), 'the normal of a plane'),
  ];
  const [flatA, flatB] = [reject(na, d), reject(nb, d)];
  // They face each other across the floor and lean alike.
  if (dot(flatA, flatB) > -0.999 * length(flatA) * length(flatB) || Math.abs(dot(na, d) - dot(nb, d)) > 2e-3)
    return null;
  const across = scale(flatA, 1 / length(flatA));
  const along: Vec3 = [
    across[1] * d[2] - across[2] * d[1],
    across[2] * d[0] - across[0] * d[2],
    across[0] * d[1] - across[1] * d[0],
  ];
  const patch = entryAt(graph.patches, floor);
  const bottom = dot(first(entryAt(model.edges, first(first(patch.loops)).edge).points), d);
  const tops = [a, b].map((p) => wallTop(model, graph, p, d, bottom).top);
  const top = Math.min(...tops);
  // Width at a level: how far the two planes stand apart there.
  const placeAt = (p: number, level: number): number => {
    const s = entryAt(graph.patches, p).surface;
    const n = known(planeNormal(entryAt(graph.patches, p)), 'the normal of a plane');
    const o = s.kind === 'plane' ? dot(s.origin, n) : 0;
    return (o - level * dot(n, d)) / dot(n, across);
  };
  const widthAt = (level: number): number => Math.abs(placeAt(b, level) - placeAt(a, level));
  const [low, high] = extentAlong(model, patch, along);
  const middle = (placeAt(a, top) + placeAt(b, top)) / 2;
  const at = [0, 1, 2].map(
    (i) => entryAt(across, i) * middle + entryAt(along, i) * ((low + high) / 2) + entryAt(d, i) * top,
  ) as Vec3;
  const direction = positive(along);
  const openAt = sides.flatMap((s) => (s.kind === 'open' ? [middle2(s.from, s.to)] : []));
  const frame = planFrame(d);
  const ahead = (p: Vec2): number => dot(sub(fromPlan(frame, p, 0), at), direction);
  const endAt = (sense: 1 | -1): GrooveEnd => ({
    open: openAt.some((p) => sense * ahead(p) > 0),
    // The floor's own length reaches as far as its longer side.
    beyond: 0,
  });
  const below = sub(at, scale(d, top - bottom - 0.02));
  return {
    family: 'dovetail',
    solid: context.solid,
    faces: [floor, ...leaning].flatMap((p) => entryAt(graph.patches, p).faces).sort((p, q) => p - q),
    reachableFrom: rays.firstHit(below, d) === null ? [roundVec(d)] : [],
    axis: roundVec(d),
    direction,
    mouthWidth: round(widthAt(top)),
    bottomWidth: round(widthAt(bottom)),
    depth: round(top - bottom),
    angle: round((Math.acos(Math.min(1, Math.abs(dot(na, d)))) * 180) / Math.PI),
    length: round(high - low),
    openEnds: openAt.length,
    ends: [endAt(-1), endAt(1)],
    at: roundVec(at),
  };
}

/** How far a side looks up (positive) or down on the floor. */
function lean({ graph }: RecogniseContext, patch: number, d: Vec3): number {
  const p = entryAt(graph.patches, patch);
  const n = planeNormal(p);
  if (n) return dot(n, d);
  const s = p.surface;
  if (s.kind !== 'cone') return 0;
  // A hollow cone leans over where it widens downward.
  const up = dot(s.axis, d);
  return p.reversed ? (up < 0 ? -1 : 1) * Math.sin(s.semiAngle) : 0;
}
