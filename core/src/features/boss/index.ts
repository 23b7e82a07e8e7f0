import { along, isAlong, scale } from '../../geometry/vec.ts';
import { angleBasis } from '../../model/surface.ts';
import { circlePoints } from '../curves.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { axisGroups, RADIUS_TOLERANCE, type AxisLine, type Piece } from '../hole/pieces.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import type { BossFeature } from './schema.ts';

/** How far beside the wall it is looked whether anything stands above, mm, from so far over its foot, and at how many places. */
const BESIDE = [0.02, 0.5];
const ABOVE_FOOT = 0.01;
const PLACES = 12;
/** Pieces that meet are one cylinder, mm. */
const TOUCHING = 1e-3;

export const bossFamily: FeatureFamily<'boss'> = {
  family: 'boss',
  prefix: 'Z',
  optional: 'Round in the model: nothing asks for a thread. Type its callout to have one milled.',
  recognise: recogniseBosses,
  place: (f) => f.entry,
  group: () => 'Round bosses',
  sizeKey: (f, anyDepth) =>
    [
      'boss',
      f.bottom,
      directionPart(f.axis),
      sizePart(f.diameter),
      depthPart(f.height, anyDepth),
      f.chamfer ? sizePart(f.chamfer.length) : '-',
    ].join('|'),
  describe: (f, say) => `\u2300${say(f.diameter)}, ${say(f.height)} high`,
  sortBy: (f) => f.diameter,
  isOpenBelow: (f) => f.bottom === 'open',
  curves: (f) => [circlePoints(f.entry, f.axis, f.diameter / 2)],
};

/** A whole cylinder of one axis, from where to where along it. */
interface Drum {
  radius: number;
  low: number;
  high: number;
  faces: number[];
}

/** Convex cylinders all round an axis with at least one free end. */
function recogniseBosses(context: RecogniseContext): Recognised<BossFeature> {
  const { model, faces, middle } = context;
  const features: Found<BossFeature>[] = [];
  // Islands in grooves and walls of slots are those families' own; sharp edges only name the faces beside them.
  const taken = new Set(context.found.filter((f) => f.family !== 'sharp-edge').flatMap((f) => f.faces));
  for (const { line, pieces } of axisGroups(model, faces, middle, 'convex')) {
    const cones = pieces.filter((p) => p.kind === 'cone');
    for (const drum of drums(pieces.filter((p) => !taken.has(p.face)))) {
      const found = readBoss(context, line, drum, cones);
      if (found) features.push(found);
    }
  }
  return { features, notes: [] };
}

/** Pieces of one radius that meet along the axis are one cylinder. */
function drums(pieces: readonly Piece[]): Drum[] {
  const out: Drum[] = [];
  for (const p of pieces.filter((q) => q.kind === 'cylinder').sort((a, b) => a.low - b.low)) {
    const same = out.find(
      (d) => Math.abs(d.radius - p.radiusLow) < RADIUS_TOLERANCE && p.low <= d.high + TOUCHING,
    );
    if (same) [same.high, same.faces] = [Math.max(same.high, p.high), [...same.faces, p.face]];
    else out.push({ radius: p.radiusLow, low: p.low, high: p.high, faces: [p.face] });
  }
  return out;
}

function readBoss(
  context: RecogniseContext,
  line: AxisLine,
  drum: Drum,
  cones: readonly Piece[],
): Found<BossFeature> | null {
  const ends = ([1, -1] as const).map((sign) => ({ sign, end: endOf(drum, cones, sign) }));
  const free = ends.filter(({ sign }) => isFree(context, line, drum, sign));
  const wanted = context.up ?? context.main;
  const best = free.find(({ sign }) => isAlong(scale(line.direction, sign), wanted)) ?? free[0];
  if (!best) return null;
  const axis = scale(line.direction, best.sign);
  const foot = best.sign > 0 ? drum.low : drum.high;
  const { top, chamfer } = best.end;
  return {
    family: 'boss',
    solid: context.solid,
    faces: [...drum.faces].sort((a, b) => a - b),
    reachableFrom: free.map(({ sign }) => roundVec(scale(line.direction, sign))),
    axis: roundVec(axis),
    entry: roundVec(along(line.origin, line.direction, top)),
    diameter: round(2 * drum.radius),
    height: round(Math.abs(top - foot)),
    chamfer: chamfer && { length: round(chamfer.length), diameter: round(chamfer.diameter) },
    bottom: free.length === 2 ? 'open' : 'shoulder',
  };
}

/** Where an end is, a chamfer that narrows it included. */
function endOf(
  drum: Drum,
  cones: readonly Piece[],
  sign: 1 | -1,
): { top: number; chamfer: { length: number; diameter: number } | null } {
  const edge = sign > 0 ? drum.high : drum.low;
  const cone = cones.find((c) => {
    const [near, nearRadius, farRadius] =
      sign > 0 ? [c.low, c.radiusLow, c.radiusHigh] : [c.high, c.radiusHigh, c.radiusLow];
    return (
      Math.abs(near - edge) < TOUCHING &&
      Math.abs(nearRadius - drum.radius) < RADIUS_TOLERANCE &&
      farRadius < nearRadius
    );
  });
  if (!cone) return { top: edge, chamfer: null };
  const far = sign > 0 ? cone.high : cone.low;
  const diameter = 2 * (sign > 0 ? cone.radiusHigh : cone.radiusLow);
  return { top: far, chamfer: { length: Math.abs(far - edge), diameter } };
}

/** Whether nothing stands over the wall's side, from its foot up: near it and where a tool comes down. */
function isFree(context: RecogniseContext, line: AxisLine, drum: Drum, sign: 1 | -1): boolean {
  const direction = scale(line.direction, sign);
  const [x, y] = angleBasis(direction);
  const foot = (sign > 0 ? drum.low : drum.high) + sign * ABOVE_FOOT;
  const centre = along(line.origin, line.direction, foot);
  return BESIDE.every((beside) =>
    Array.from({ length: PLACES }, (_, i) => {
      const a = (2 * Math.PI * (i + 0.37)) / PLACES;
      const r = drum.radius + beside;
      return along(along(centre, x, r * Math.cos(a)), y, r * Math.sin(a));
    }).every((p) => context.rays.firstHit(p, direction) === null),
  );
}
