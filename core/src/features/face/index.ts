import { at } from '../../lists.ts';
import { scale } from '../../geometry/vec.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import { areaFaces, areaReach, bordersOf, levelAreas, pointOn, type LevelArea } from '../area/floors.ts';
import { boxAlongLongest, ringArea } from '../area/rings.ts';
import { areaShape } from '../area/shape.ts';
import { borderCurves, IN_PREPARED_STOCK } from '../area/words.ts';
import { round, roundVec } from '../round.ts';
import { directionPart, sizePart } from '../sizes.ts';
import type { FaceFeature } from './schema.ts';

/** Planes nearer to one level are one, mm. */
const SAME_LEVEL = 0.005;

export const faceFamily: FeatureFamily<'face'> = {
  family: 'face',
  prefix: 'F',
  optional: IN_PREPARED_STOCK,
  isInPreparedStock: true,
  recognise: recogniseFaces,
  place: (f) => f.at,
  group: () => 'Faces',
  sizeKey: (f) =>
    ['face', directionPart(f.axis), sizePart(f.level), sizePart(f.length), sizePart(f.width)].join('|'),
  describe: (f, say) => `${say(f.length)} x ${say(f.width)}`,
  sortBy: (f) => -f.level,
  curves: borderCurves,
  area: (f, frame) => areaShape(f, frame, { side: 'top', depth: 0, isTopAt: true }),
};

/** Of the side that is up and the one below: planes that no wall rises from, those of one level together. */
function recogniseFaces(context: RecogniseContext): Recognised<FaceFeature> {
  const features: Found<FaceFeature>[] = [];
  for (const d of [context.main, scale(context.main, -1)]) {
    const levels: LevelArea[][] = [];
    for (const area of levelAreas(context, d).areas) {
      if (area.rings.flat().some((e) => e.isWall)) continue;
      const same = levels.find((l) => Math.abs(at(l, 0).bottom - area.bottom) < SAME_LEVEL);
      if (same) same.push(area);
      else levels.push([area]);
    }
    for (const level of levels) features.push(faceOf(context, level));
  }
  return { features, notes: [] };
}

function faceOf(context: RecogniseContext, areas: readonly LevelArea[]): Found<FaceFeature> {
  const largest = areas.reduce((a, b) => (Math.abs(sizeOf(b)) > Math.abs(sizeOf(a)) ? b : a));
  const { frame, bottom } = largest;
  const box = boxAlongLongest(areas.flatMap((a) => a.rings.flatMap((r) => r.map((e) => e.segment))));
  return {
    family: 'face',
    solid: context.solid,
    faces: areas.flatMap((a) => areaFaces(context, a)).sort((a, b) => a - b),
    reachableFrom: areaReach(context, largest, [frame.z]),
    axis: roundVec(frame.z),
    at: pointOn(largest),
    borders: areas.flatMap(bordersOf),
    level: round(bottom),
    length: round(Math.max(box.length, box.width)),
    width: round(Math.min(box.length, box.width)),
  };
}

const sizeOf = ({ rings }: LevelArea): number => ringArea(at(rings, 0).map((e) => e.segment));
