import { depthChanges, raised } from '../changes.ts';
import { levelsSeen, planRun, stripShape } from '../groove-shape.ts';
import { at } from '../../lists.ts';
import { straightRun } from '../curves.ts';
import { dot, distance, type Vec3, isParallel, isAlong, isSquare } from '../../geometry/vec.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import {
  atTop,
  footOf,
  grooveEnds,
  isTaken,
  lineBetween,
  overallLine,
  positive,
  stripFaces,
  stripReach,
} from '../strip/describe.ts';
import { strips } from '../strip/find.ts';
import type { SlotFeature } from './schema.ts';

const KIND_NAMES: Record<SlotFeature['kind'], string> = {
  closed: 'closed',
  'open-one-end': 'open at one end',
  'open-both-ends': 'open at both ends',
};

export const slotFamily: FeatureFamily<'slot'> = {
  family: 'slot',
  prefix: 'S',
  changes: depthChanges((f, by) => ({ centre: raised(f.centre, f.axis, by) })),
  recognise: recogniseSlots,
  place: (f) => f.centre,
  group: (f) => `Slots, ${KIND_NAMES[f.kind]}${f.bottom === 'open' ? ', through' : ''}`,
  sizeKey: (f, anyDepth) =>
    [
      'slot',
      f.kind,
      f.bottom,
      directionPart(f.axis),
      sizePart(f.width),
      sizePart(f.length),
      f.bottom === 'open' ? '*' : depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `${say(f.width)} x ${say(f.length)}${f.bottom === 'open' ? ' THRU' : ` ↧${say(f.depth)}`}`,
  sortBy: (f) => f.width,
  groove: (f, frame) => {
    if (!f.ends) return null;
    const { width, length, depth, bottom, ends, floorRadius } = f;
    const [a, b] = ends.map((e) => length / 2 - (e.open ? 0 : width / 2));
    const run = planRun(f.centre, f.direction, -(a ?? 0), b ?? 0, frame);
    const levels = levelsSeen(f.centre, f.axis, depth, frame);
    return stripShape(run, levels, { width, ends, through: bottom === 'open', floorRadius });
  },
  // Its round ends are within the width; square open ends reach to its full length.
  opening: (f) => ({ runs: [straightRun(f.centre, f.direction, f.length)], width: f.width, depth: f.depth }),
};

/** Straight strips with round or open ends; those that a deeper cavity has cut in two are one. */
function recogniseSlots(context: RecogniseContext): Recognised<SlotFeature> {
  const slots: Found<SlotFeature>[] = [];
  const notches: number[] = [];
  for (const s of strips(context)) {
    const line = overallLine(s);
    if (!line || s.closed || s.ceilings.length > 0 || isTaken(context, s)) continue;
    const along = lineBetween(s, line.from, line.to);
    const direction = positive(along);
    const [start, end] = grooveEnds(s);
    const open = s.ends.filter((e) => e === 'open').length;
    const faces = stripFaces(context, s);
    const reachableFrom = stripReach(context, s);
    // The wall of a window between its two neighbours: nothing opens above it.
    if (open === 2 && reachableFrom.length === 0) continue;
    if (open === 2 && isNotch(context.main, s.frame.z, direction, line.length, s.width)) {
      notches.push(...faces);
      continue;
    }
    const middle: [number, number] = [(line.from[0] + line.to[0]) / 2, (line.from[1] + line.to[1]) / 2];
    slots.push({
      family: 'slot',
      solid: context.solid,
      faces,
      reachableFrom,
      axis: roundVec(s.frame.z),
      kind: open === 0 ? 'closed' : open === 1 ? 'open-one-end' : 'open-both-ends',
      width: round(s.width),
      length: round(line.length),
      depth: round(s.top - s.bottom),
      bottom: s.floor < 0 ? 'open' : 'flat',
      centre: roundVec(atTop(s, middle)),
      direction,
      ends: isAlong(along, direction) ? [start, end] : [end, start],
      ...footOf(s),
    });
  }
  const features = joinAcross(context, slots);
  const notes =
    notches.length > 0
      ? [
          {
            code: 'notch',
            message: `Notches square through the side were seen and left: faces ${notches.join(', ')}.`,
          },
        ]
      : [];
  return { features, notes };
}

/** A short upright cut in a side is a notch, not a slot of that side. */
function isNotch(main: Vec3, axis: Vec3, direction: Vec3, length: number, width: number): boolean {
  return isSquare(axis, main) && isParallel(direction, main) && length < 2 * width;
}

/** Two slots in line, of one width and floor, with open ends that face each other over a deeper cavity, are one. */
function joinAcross(context: RecogniseContext, slots: Found<SlotFeature>[]): Found<SlotFeature>[] {
  const out = [...slots];
  for (let i = 0; i < out.length; i++) {
    for (let k = i + 1; k < out.length; k++) {
      const joined = joinPair(context, at(out, i), at(out, k));
      if (!joined) continue;
      out.splice(k, 1);
      out[i] = joined;
      k = i;
    }
  }
  return out;
}

function joinPair(
  { rays }: RecogniseContext,
  a: Found<SlotFeature>,
  b: Found<SlotFeature>,
): Found<SlotFeature> | null {
  if (a.kind === 'closed' || b.kind === 'closed' || a.bottom !== b.bottom) return null;
  if (
    Math.abs(a.width - b.width) > 5e-3 ||
    Math.abs(a.depth - b.depth) > 5e-3 ||
    !isAlong(a.axis, b.axis) ||
    !isAlong(a.direction, b.direction)
  )
    return null;
  const span: Vec3 = [b.centre[0] - a.centre[0], b.centre[1] - a.centre[1], b.centre[2] - a.centre[2]];
  const u = dot(span, a.direction);
  if (Math.abs(Math.hypot(...span) - Math.abs(u)) > 5e-3) return null;
  const gap = Math.abs(u) - (a.length + b.length) / 2;
  if (gap < -1e-3 || gap > Math.min(a.length, b.length, 3 * a.width)) return null;
  const middle: Vec3 = [0, 1, 2].map((i) => at(a.centre, i) - (a.depth / 2) * at(a.axis, i)) as Vec3;
  const sense = Math.sign(u);
  const ahead: Vec3 = [sense * a.direction[0], sense * a.direction[1], sense * a.direction[2]];
  if (rays.firstHit(middle, ahead, Math.abs(u)) !== null) return null;
  const length = (a.length + b.length) / 2 + Math.abs(u);
  const low = Math.min(-a.length / 2, u - b.length / 2);
  const centre = [0, 1, 2].map((i) =>
    round(at(a.centre, i) + (low + length / 2) * at(a.direction, i)),
  ) as Vec3;
  const [before, behind] = u > 0 ? [a, b] : [b, a];
  const openEnds = (a.kind === 'open-both-ends' ? 2 : 1) + (b.kind === 'open-both-ends' ? 2 : 1) - 2;
  return {
    ...a,
    faces: [...new Set([...a.faces, ...b.faces])].sort((p, q) => p - q),
    kind: openEnds === 0 ? 'closed' : openEnds === 1 ? 'open-one-end' : 'open-both-ends',
    length: round(length),
    centre,
    ...(before.ends && behind.ends ? { ends: [before.ends[0], behind.ends[1]] } : {}),
    reachableFrom: a.reachableFrom.filter((d) => b.reachableFrom.some((e) => distance(d, e) < 1e-4)),
  };
}
