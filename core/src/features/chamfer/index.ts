import { edgeFields, isLongEnough, runFaces, stripKindOf } from '../edge/describe.ts';
import { edgeRuns } from '../edge/runs.ts';
import { edgeShape } from '../edge/shape.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { round } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { ChamferFeature } from './schema.ts';

export const chamferFamily: FeatureFamily<'chamfer'> = {
  family: 'chamfer',
  prefix: 'K',
  isOnEdge: true,
  recognise: recogniseChamfers,
  place: (f) => f.at,
  edge: (f, frame) =>
    edgeShape(
      f,
      { kind: 'chamfer', width: f.width, drop: f.width * Math.tan((f.angle * Math.PI) / 180) },
      frame,
    ),
  group: (f) => `Chamfers, ${f.side}`,
  sizeKey: (f) =>
    ['chamfer', f.side, f.loop, directionPart(f.axis), sizePart(f.width), f.angle.toFixed(1)].join('|'),
  describe: (f, say) => `${say(f.width)} x ${+f.angle.toFixed(2)}°`,
  sortBy: (f) => f.width,
};

/** Narrow slanted strips between a face and the wall below it, chained along the face. */
function recogniseChamfers(context: RecogniseContext): Recognised<ChamferFeature> {
  const features: Found<ChamferFeature>[] = [];
  for (const r of edgeRuns(context)) {
    if (r.form.kind !== 'chamfer' || !isLongEnough(r)) continue;
    features.push({
      family: 'chamfer',
      ...edgeFields(context, r),
      faces: runFaces(context, r.strips),
      kind: stripKindOf(context, r),
      width: round(r.form.width),
      angle: round(r.form.angle),
    });
  }
  return { features, notes: [] };
}
