import { at } from '../../lists.ts';
import { reverseSegment } from '../../geometry/path.ts';
import { scale, type Vec3 } from '../../geometry/vec.ts';
import { extentAlong } from '../../model/patches.ts';
import type { FeatureFamily, Found, Recognised, RecogniseContext } from '../family.ts';
import {
  areaFaces,
  areaReach,
  bordersOf,
  levelAreas,
  planeDirections,
  pointOn,
  takenFaces,
  type LevelArea,
} from '../area/floors.ts';
import { boxAlongLongest, cornerRadius, wallRuns } from '../area/rings.ts';
import { cutsThrough } from '../area/sections.ts';
import { areaShape } from '../area/shape.ts';
import { borderCurves, borderPart, IN_PREPARED_STOCK } from '../area/words.ts';
import { round, roundVec } from '../round.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import { hasFloor } from '../strip/find.ts';
import { planFrame } from '../strip/sides.ts';
import { wallTop } from '../strip/strip.ts';
import type { PocketFeature } from './schema.ts';

export const pocketFamily: FeatureFamily<'pocket'> = {
  family: 'pocket',
  prefix: 'P',
  optional: IN_PREPARED_STOCK,
  isInPreparedStock: true,
  recognise: recognisePockets,
  place: (f) => f.at,
  group: (f) => (f.bottom === 'open' ? 'Pockets, through' : 'Pockets'),
  sizeKey: (f, anyDepth) =>
    [
      'pocket',
      f.bottom,
      directionPart(f.axis),
      sizePart(f.length),
      sizePart(f.width),
      sizePart(f.cornerRadius),
      f.islands,
      borderPart(f),
      f.bottom === 'open' ? '*' : depthPart(f.depth, anyDepth),
    ].join('|'),
  describe: (f, say) =>
    `${say(f.length)} x ${say(f.width)}${f.bottom === 'open' ? ' THRU' : ` ↧${say(f.depth)}`}, R${say(f.cornerRadius)}${f.islands > 0 ? `, ${f.islands} ${f.islands === 1 ? 'island' : 'islands'}` : ''}`,
  sortBy: (f) => f.width,
  curves: borderCurves,
  isOpenBelow: (f) => f.bottom === 'open',
  area: (f, frame) =>
    areaShape(f, frame, {
      side: 'closed',
      depth: f.depth,
      isTopAt: f.bottom === 'open',
      through: f.bottom === 'open',
      floorRadius: f.floorRadius,
    }),
};

/** Floors with a wall all round, and openings with nothing but walls. */
function recognisePockets(context: RecogniseContext): Recognised<PocketFeature> {
  const features: Found<PocketFeature>[] = [];
  for (const d of planeDirections(context))
    for (const area of levelAreas(context, d).areas)
      if (at(area.rings, 0).every((e) => e.isWall)) features.push(pocketOf(context, area, [d]));
  for (const area of throughAreas(context))
    features.push(pocketOf(context, area, [area.frame.z, scale(area.frame.z, -1)]));
  return { features, notes: [] };
}

function pocketOf(context: RecogniseContext, area: LevelArea, from: readonly Vec3[]): Found<PocketFeature> {
  const { frame, rings, top, bottom, floor, floorRadius } = area;
  const box = boxAlongLongest(at(rings, 0).map((e) => e.segment));
  return {
    family: 'pocket',
    solid: context.solid,
    faces: areaFaces(context, area),
    reachableFrom: areaReach(context, area, from),
    axis: roundVec(frame.z),
    at: pointOn(area, floor < 0 ? top : bottom),
    borders: bordersOf(area),
    bottom: floor < 0 ? 'open' : 'flat',
    depth: round(top - bottom),
    cornerRadius: round(cornerRadius(rings.flatMap(wallRuns)) ?? 0),
    floorRadius: round(floorRadius),
    length: round(box.length),
    width: round(box.width),
    islands: rings.length - 1,
  };
}

/** Openings from one side to the other, whose walls nothing else has taken. */
function throughAreas(context: RecogniseContext): LevelArea[] {
  const { model, graph, main } = context;
  const taken = takenFaces(context);
  const frame = planFrame(main);
  const seen = new Set<number>();
  const out: LevelArea[] = [];
  for (const { loops } of cutsThrough(context))
    for (const { pieces, area } of loops) {
      if (area >= 0 || pieces.some((p) => !p.segment || seen.has(p.patch))) continue;
      if (pieces.some((p) => at(graph.patches, p.patch).faces.some((f) => taken.has(f)))) continue;
      if (pieces.some((p) => hasFloor(context, p.patch, main))) continue;
      for (const p of pieces) seen.add(p.patch);
      const extents = pieces.map((p) => extentAlong(model, at(graph.patches, p.patch), main));
      const bottom = Math.max(...extents.map((e) => e[0]));
      out.push({
        frame,
        floor: -1,
        // The cut has the metal on its left; an area lies on the left of its border.
        rings: [
          [...pieces]
            .reverse()
            .flatMap((p) =>
              p.segment ? [{ segment: reverseSegment(p.segment), isWall: true, patches: [p.patch] }] : [],
            ),
        ],
        bottom,
        top: Math.max(...pieces.map((p) => wallTop(model, graph, p.patch, main, bottom).top)),
        floorRadius: 0,
      });
    }
  return out;
}
