import { at } from '../../lists.ts';
import { scale } from '../../geometry/vec.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import {
  areaFaces,
  areaReach,
  bordersOf,
  levelAreas,
  planeDirections,
  pointOn,
  type LevelArea,
} from '../area/floors.ts';
import { cornerRadius, wallCount, wallRuns } from '../area/rings.ts';
import { areaShape } from '../area/shape.ts';
import { borderCurves, borderPart, IN_PREPARED_STOCK } from '../area/words.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import type { StepFeature } from './schema.ts';

export const stepFamily: FeatureFamily<'step'> = {
  family: 'step',
  prefix: 'L',
  optional: IN_PREPARED_STOCK,
  isInPreparedStock: true,
  recognise: recogniseSteps,
  place: (f) => f.at,
  group: () => 'Steps',
  sizeKey: (f, anyDepth) =>
    [
      'step',
      directionPart(f.axis),
      f.walls,
      f.cornerRadius === null ? '-' : sizePart(f.cornerRadius),
      borderPart(f),
      depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `↧${say(f.depth)}, ${f.walls} ${f.walls === 1 ? 'wall' : 'walls'}${f.cornerRadius === null ? '' : `, R${say(f.cornerRadius)}`}`,
  sortBy: (f) => f.depth,
  curves: borderCurves,
  area: (f, frame) =>
    areaShape(f, frame, { side: 'open', depth: f.depth, isTopAt: false, floorRadius: f.floorRadius }),
};

/**
 * Floors with walls that are open somewhere. What is a floor from one side may be a wall from another: the side that is up is asked first,
 * and the others only about what is left.
 */
function recogniseSteps(context: RecogniseContext): Recognised<StepFeature> {
  const features: Found<StepFeature>[] = [];
  const taken = new Set(
    context.found.flatMap((f) => (['pocket', 'outline', 'face'].includes(f.family) ? f.faces : [])),
  );
  const isMain = [context.main, scale(context.main, -1)];
  planeDirections(context).forEach((d, n) => {
    for (const area of levelAreas(context, d).areas) {
      const edges = area.rings.flat();
      if (!edges.some((e) => e.isWall) || at(area.rings, 0).every((e) => e.isWall)) continue;
      const faces = areaFaces(context, area);
      if (n >= isMain.length && faces.some((f) => taken.has(f))) continue;
      features.push(stepOf(context, area, faces));
      for (const f of faces) taken.add(f);
    }
  });
  return { features, notes: [] };
}

function stepOf(context: RecogniseContext, area: LevelArea, faces: number[]): Found<StepFeature> {
  const { frame, rings, top, bottom, floorRadius } = area;
  const runs = rings.flatMap(wallRuns);
  const corner = cornerRadius(runs);
  return {
    family: 'step',
    solid: context.solid,
    faces,
    reachableFrom: areaReach(context, area, [frame.z]),
    axis: roundVec(frame.z),
    at: pointOn(area),
    borders: bordersOf(area),
    depth: round(top - bottom),
    walls: runs.reduce((n, r) => n + wallCount(r), 0),
    cornerRadius: corner === null ? null : round(corner),
    floorRadius: round(floorRadius),
  };
}
