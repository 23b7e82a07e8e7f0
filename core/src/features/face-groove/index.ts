import { depthChanges, raised, raisedPiece } from '../changes.ts';
import { first as firstOf, known } from '../../lists.ts';
import { piecePoints } from '../curves.ts';
import { segmentPoint } from '../../geometry/path.ts';
import { levelsSeen, planPieces, SHUT, stripShape } from '../groove-shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import {
  atTop,
  centrelinePieces,
  footOf,
  isTaken,
  stripFaces,
  stripLength,
  stripReach,
} from '../strip/describe.ts';
import { strips } from '../strip/find.ts';
import type { Strip } from '../strip/strip.ts';
import type { FaceGrooveFeature } from './schema.ts';

export const faceGrooveFamily: FeatureFamily<'face-groove'> = {
  family: 'face-groove',
  prefix: 'G',
  changes: depthChanges((f, by) => ({
    at: raised(f.at, f.axis, by),
    centreline: f.centreline.map((p) => raisedPiece(p, f.axis, by)),
    ...(f.centre ? { centre: raised(f.centre, f.axis, by) } : {}),
  })),
  recognise: recogniseFaceGrooves,
  place: (f) => f.at,
  group: (f) =>
    ({ ring: 'Ring grooves', racetrack: 'Racetrack grooves', path: 'Grooves along a path' })[f.shape],
  sizeKey: (f, anyDepth) =>
    [
      'face-groove',
      f.shape,
      directionPart(f.axis),
      sizePart(f.width),
      sizePart(f.centrelineLength),
      depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `${f.outerDiameter === undefined ? '' : `⌀${say(f.outerDiameter)} / ⌀${say(known(f.innerDiameter, 'its inner diameter'))}, `}${say(f.width)} wide ↧${say(f.depth)}`,
  sortBy: (f) => f.width,
  groove: (f, frame) =>
    stripShape(planPieces(f.centreline, f.axis, frame), levelsSeen(f.at, f.axis, f.depth, frame), {
      width: f.width,
      closed: true,
      ends: [SHUT, SHUT],
      through: false,
      floorRadius: f.floorRadius,
    }),
  opening: (f) => ({
    runs: f.centreline.map((p) => piecePoints(p, f.axis)),
    width: f.width,
    depth: f.depth,
  }),
};

/** Strips that close on themselves. */
function recogniseFaceGrooves(context: RecogniseContext): Recognised<FaceGrooveFeature> {
  const features: Found<FaceGrooveFeature>[] = [];
  for (const s of strips(context)) {
    if (!s.closed || s.ceilings.length > 0 || isTaken(context, s)) continue;
    const first = firstOf(s.centreline);
    const shape = shapeOf(s);
    features.push({
      family: 'face-groove',
      solid: context.solid,
      faces: stripFaces(context, s),
      reachableFrom: stripReach(context, s),
      axis: roundVec(s.frame.z),
      shape,
      width: round(s.width),
      depth: round(s.top - s.bottom),
      centrelineLength: round(stripLength(s)),
      ...footOf(s),
      centreline: centrelinePieces(s),
      at: roundVec(atTop(s, segmentPoint(first, 0.5))),
      ...(shape === 'ring' && first.kind === 'arc'
        ? {
            centre: roundVec(atTop(s, first.centre)),
            innerDiameter: round(2 * first.radius - s.width),
            outerDiameter: round(2 * first.radius + s.width),
          }
        : {}),
    });
  }
  return { features, notes: [] };
}

/** Ring: one circle. Racetrack: two parallel lines and two half turns. Path: anything else. */
function shapeOf(s: Strip): FaceGrooveFeature['shape'] {
  if (s.centreline.length === 1 && firstOf(s.centreline).kind === 'arc') return 'ring';
  const arcs = s.centreline.filter((c) => c.kind === 'arc');
  const isRacetrack =
    s.centreline.length === 4 &&
    arcs.length === 2 &&
    arcs.every((a) => Math.abs(Math.abs(a.turn) - Math.PI) < 5e-3);
  return isRacetrack ? 'racetrack' : 'path';
}
