import { at, first } from '../../lists.ts';
import { edgeFields, runFaces } from '../edge/describe.ts';
import type { RunByHand } from '../edge/by-hand.ts';
import { edgeRuns } from '../edge/runs.ts';
import { edgeShape } from '../edge/shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { SharpEdgeFeature } from './schema.ts';

export const sharpEdgeFamily: FeatureFamily<'sharp-edge'> = {
  family: 'sharp-edge',
  prefix: 'E',
  isOnEdge: true,
  optional: 'Sharp in the model: nothing asks for a break.',
  recognise: recogniseSharpEdges,
  place: (f) => f.at,
  edge: (f, frame) => edgeShape(f, { kind: 'sharp' }, frame),
  isBrokenOnWish: true,
  group: (f) => (f.holeId ? 'Sharp hole rims' : `Sharp edges, ${f.side}`),
  sizeKey: (f) =>
    [
      'sharp-edge',
      f.side,
      f.loop,
      directionPart(f.axis),
      f.rimDiameter ? `d${sizePart(f.rimDiameter)}` : sizePart(f.length),
    ].join('|'),
  describe: (f, say) =>
    f.rimDiameter === undefined ? `${say(f.length)} long` : `rim ⌀${say(f.rimDiameter)}`,
  sortBy: (f) => f.rimDiameter ?? f.length,
};

/** Convex edges without a shape of their own, chained along the face above them. */
function recogniseSharpEdges(context: RecogniseContext): Recognised<SharpEdgeFeature> {
  const features: Found<SharpEdgeFeature>[] = [];
  for (const r of edgeRuns(context)) {
    if (r.form.kind !== 'sharp') continue;
    const { holeId } = r.form;
    const wall = at(context.graph.patches, first(r.strips)).surface;
    features.push({
      family: 'sharp-edge',
      ...edgeFields(context, r),
      faces: runFaces(context, [r.top, ...r.strips]),
      ...(holeId
        ? { holeId, ...(wall.kind === 'cylinder' ? { rimDiameter: round(2 * wall.radius) } : {}) }
        : {}),
    });
  }
  return { features, notes: [] };
}

/** Edges chosen by hand, to be broken. */
export const handMadeEdge = (
  made: RunByHand & Pick<SharpEdgeFeature, 'family'>,
  id: string,
): SharpEdgeFeature => ({
  ...made,
  id,
  solid: 0,
  faces: [],
  reachableFrom: [made.axis],
  roomBeside: null,
  roomBelow: null,
});
