import { edgeFields, runFaces } from '../edge/describe.ts';
import { edgeRuns } from '../edge/runs.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { SharpEdgeFeature } from './schema.ts';

export const sharpEdgeFamily: FeatureFamily<'sharp-edge'> = {
  family: 'sharp-edge',
  prefix: 'E',
  recognise: recogniseSharpEdges,
  place: (f) => f.at,
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
    const wall = context.graph.patches[r.strips[0]!]!.surface;
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
