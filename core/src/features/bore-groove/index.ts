import { first } from '../../lists.ts';
import { along } from '../../geometry/vec.ts';
import { circlePoints } from '../curves.ts';
import { isHole, type FeatureFamily, type Found, type Recognised, type RecogniseContext } from '../family.ts';
import { toFrame } from '../../geometry/frame.ts';
import { SHUT } from '../groove-shape.ts';
import { ringUndercuts } from '../hole/recognise.ts';
import { round, roundVec } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { BoreGrooveFeature } from './schema.ts';

export const boreGrooveFamily: FeatureFamily<'bore-groove'> = {
  family: 'bore-groove',
  prefix: 'B',
  isOpenBelow: () => true,
  curves: (f) => [circlePoints(f.centre, f.axis, f.grooveDiameter / 2)],
  recognise: recogniseBoreGrooves,
  groove: (f, frame) => {
    const [x, y, z] = toFrame(frame, f.centre);
    const half = f.grooveDiameter / 2;
    return {
      path: [{ kind: 'line', from: [x, y], to: [x, y] }],
      closed: false,
      ends: [SHUT, SHUT],
      levels: [{ top: z + f.width / 2, bottom: z - f.width / 2, halfTop: half, halfBottom: half }],
      through: false,
      isOneSided: false,
      floorRadius: 0,
      bore: f.boreDiameter / 2,
    };
  },
  place: (f) => f.centre,
  group: () => 'Bore grooves',
  sizeKey: (f) =>
    ['bore-groove', directionPart(f.axis), ...[f.boreDiameter, f.grooveDiameter, f.width].map(sizePart)].join(
      '|',
    ),
  describe: (f, say) => `⌀${say(f.grooveDiameter)} x ${say(f.width)} in ⌀${say(f.boreDiameter)}`,
  sortBy: (f) => f.boreDiameter,
};

/** The ring undercuts that were bridged while their holes were read. */
function recogniseBoreGrooves(context: RecogniseContext): Recognised<BoreGrooveFeature> {
  const features = ringUndercuts(context).flatMap((u): Found<BoreGrooveFeature>[] => {
    const hole = context.found.find((f) => isHole(f) && f.faces.includes(first(u.faces)));
    if (!hole) return [];
    return [
      {
        family: 'bore-groove',
        solid: context.solid,
        faces: [...u.faces].sort((a, b) => a - b),
        reachableFrom: hole.reachableFrom,
        axis: roundVec(u.axis),
        centre: roundVec(along(u.entry, u.axis, -(u.top + u.end) / 2)),
        boreDiameter: round(2 * u.boreRadius),
        grooveDiameter: round(2 * u.grooveRadius),
        width: round(u.end - u.top),
        holeId: hole.id,
      },
    ];
  });
  return { features, notes: [] };
}
