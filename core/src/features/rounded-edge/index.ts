import { edgeFields, isLongEnough, runFaces, stripKindOf } from '../edge/describe.ts';
import { edgeRuns } from '../edge/runs.ts';
import { edgeShape } from '../edge/shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { RoundedEdgeFeature } from './schema.ts';

export const roundedEdgeFamily: FeatureFamily<'rounded-edge'> = {
  family: 'rounded-edge',
  prefix: 'R',
  isOnEdge: true,
  recognise: recogniseRoundedEdges,
  place: (f) => f.at,
  edge: (f, frame) => edgeShape(f, { kind: 'round', radius: f.radius }, frame),
  group: (f) => `Rounded edges, ${f.side}`,
  sizeKey: (f) => ['rounded-edge', f.side, f.loop, directionPart(f.axis), sizePart(f.radius)].join('|'),
  describe: (f, say) => `R${say(f.radius)}`,
  sortBy: (f) => f.radius,
};

/** Convex round strips that flow into a face and the wall below it. */
function recogniseRoundedEdges(context: RecogniseContext): Recognised<RoundedEdgeFeature> {
  const features: Found<RoundedEdgeFeature>[] = [];
  for (const r of edgeRuns(context)) {
    if (r.form.kind !== 'rounded' || !isLongEnough(r)) continue;
    features.push({
      family: 'rounded-edge',
      ...edgeFields(context, r),
      faces: runFaces(context, r.strips),
      kind: stripKindOf(context, r),
      radius: round(r.form.radius),
    });
  }
  return { features, notes: [] };
}
