import { raised } from '../changes.ts';
import { at, first as firstOf } from '../../lists.ts';
import { straightRun } from '../curves.ts';
import { dot, sub, isAgainst, isAlong, isSquare } from '../../geometry/vec.ts';
import { extentAlong, planeNormal, isWall } from '../../model/patches.ts';
import { levelsSeen, planRun } from '../groove-shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import {
  atTop,
  footOf,
  grooveEnds,
  lineBetween,
  openEnds,
  overallLine,
  positive,
  stripFaces,
  stripReach,
} from '../strip/describe.ts';
import { strips } from '../strip/find.ts';

import { wallTop, type Strip } from '../strip/strip.ts';
import type { TSlotFeature } from './schema.ts';

export const tSlotFamily: FeatureFamily<'t-slot'> = {
  family: 't-slot',
  prefix: 'T',
  changes: {
    depth: (f) => f.mouthDepth + f.headHeight,
    moved: (f, raise, depth) => {
      const mouthDepth = f.mouthDepth + raise;
      if (!(mouthDepth > 0 && depth > mouthDepth)) return null;
      const at = raised(f.at, f.axis, raise);
      return { ...f, at, mouthDepth: round(mouthDepth), headHeight: round(depth - mouthDepth) };
    },
  },
  recognise: recogniseTSlots,
  place: (f) => f.at,
  group: (f) =>
    f.openEnds === 2
      ? 'T-slots, open at both ends'
      : f.openEnds === 1
        ? 'T-slots, open at one end'
        : 'T-slots, closed',
  sizeKey: (f, anyDepth) =>
    [
      't-slot',
      f.openEnds,
      directionPart(f.axis),
      ...[f.mouthWidth, f.headWidth, f.headHeight, f.length].map(sizePart),
      depthPart(f.mouthDepth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `${say(f.mouthWidth)} / ${say(f.headWidth)} x ${say(f.headHeight)} ↧${say(f.mouthDepth + f.headHeight)}`,
  sortBy: (f) => f.headWidth,
  groove: (f, frame) => {
    if (!f.ends || !f.throat) return null;
    const { mouthWidth, mouthDepth, headWidth, headHeight, ends } = f;
    const [a, b] = ends.map((e) => f.length / 2 - (e.open ? 0 : headWidth / 2));
    const [top] = levelsSeen(f.at, f.axis, 0, frame);
    const ceiling = top - mouthDepth;
    return {
      path: planRun(f.at, f.direction, -(a ?? 0), b ?? 0, frame),
      closed: false,
      ends,
      levels: [
        {
          top,
          bottom: ceiling,
          halfTop: mouthWidth / 2,
          halfBottom: mouthWidth / 2,
          path: planRun(f.at, f.direction, f.throat[0], f.throat[1], frame),
        },
        { top: ceiling, bottom: ceiling - headHeight, halfTop: headWidth / 2, halfBottom: headWidth / 2 },
      ],
      through: false,
      isOneSided: false,
      floorRadius: f.floorRadius ?? 0,
    };
  },
  opening: (f) => ({
    runs: [straightRun(f.at, f.direction, f.length)],
    width: f.mouthWidth,
    depth: f.mouthDepth + f.headHeight,
  }),
};

/** Straight strips under ceilings with a narrower throat above. */
function recogniseTSlots(context: RecogniseContext): Recognised<TSlotFeature> {
  const features: Found<TSlotFeature>[] = [];
  const odd: number[] = [];
  for (const s of strips(context)) {
    if (s.ceilings.length === 0) continue;
    const read = readTSlot(context, s);
    if (read) features.push(read);
    else odd.push(...stripFaces(context, s));
  }
  const read = new Set(features.flatMap((f) => f.faces));
  const left = odd.filter((f) => !read.has(f));
  const notes =
    left.length > 0
      ? [
          {
            code: 'undercut',
            message: `Undercut cavities that are no T-slots were seen and left: faces ${left.join(', ')}.`,
          },
        ]
      : [];
  return { features, notes };
}

function readTSlot(context: RecogniseContext, head: Strip): Found<TSlotFeature> | null {
  const { model, graph } = context;
  const d = head.frame.z;
  const line = overallLine(head);
  if (!line || head.closed) return null;
  // The throat's walls rise from the ceilings' other edges.
  const throat = [
    ...new Set(
      head.ceilings.flatMap((c) =>
        at(graph.patches, c)
          .loops.flat()
          .flatMap((b) =>
            b.other >= 0 && b.convexity === 'convex' && isWall(at(graph.patches, b.other), d)
              ? [b.other]
              : [],
          ),
      ),
    ),
  ];
  const direction = lineBetween(head, line.from, line.to);
  const sides = throat.filter((w) => {
    const n = planeNormal(at(graph.patches, w));
    return n !== null && isSquare(n, direction);
  });
  const middle = atTop(head, [(line.from[0] + line.to[0]) / 2, (line.from[1] + line.to[1]) / 2]);
  const facing = sides.flatMap((wall) => {
    const patch = at(graph.patches, wall);
    const normal = planeNormal(patch);
    if (patch.surface.kind !== 'plane' || !normal) return [];
    const away = dot(normal, sub(middle, patch.surface.origin));
    return away > 0 && away < head.width / 2 ? [{ wall, normal, away }] : [];
  });
  if (facing.length < 2) return null;
  const [first, opposite] = [
    firstOf(facing),
    facing.find((f) => isAgainst(f.normal, firstOf(facing).normal)),
  ];
  if (!opposite) return null;
  const ceilingPatch = at(graph.patches, firstOf(head.ceilings));
  const ceiling = dot(firstOf(at(model.edges, firstOf(firstOf(ceilingPatch.loops)).edge).points), d);
  const top = Math.min(...facing.map((x) => wallTop(model, graph, x.wall, d, ceiling).top));
  const lifted: Strip = { ...head, top };
  const along = positive(direction);
  const middleOfHead = atTop(lifted, [(line.from[0] + line.to[0]) / 2, (line.from[1] + line.to[1]) / 2]);
  const runs = [first, opposite].map((s) => extentAlong(model, at(graph.patches, s.wall), along));
  const [start, end] = grooveEnds(head);
  return {
    family: 't-slot',
    solid: context.solid,
    faces: stripFaces(context, head, throat),
    reachableFrom: stripReach(context, head),
    axis: roundVec(d),
    direction: along,
    mouthWidth: round(first.away + opposite.away),
    mouthDepth: round(top - ceiling),
    headWidth: round(head.width),
    headHeight: round(ceiling - head.bottom),
    length: round(line.length),
    openEnds: openEnds(head),
    ends: isAlong(direction, along) ? [start, end] : [end, start],
    throat: [
      round(Math.min(...runs.map((r) => r[0])) - dot(middleOfHead, along)),
      round(Math.max(...runs.map((r) => r[1])) - dot(middleOfHead, along)),
    ],
    ...footOf(head),
    at: roundVec(middleOfHead),
  };
}
