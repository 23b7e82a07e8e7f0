import type { AreaShape } from '../features/area/shape.ts';
import type { Vec2 } from '../geometry/path.ts';
import {
  boxRegion,
  filled,
  isEmpty,
  piecesOf,
  regionOf,
  regionOfPoints,
  ringsOf,
  within,
  without,
  type Region,
} from '../geometry/region.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';

/** What stands above a floor is found by a cut through the part so far above it, mm. */
const OVER_FLOOR = 0.05;

/** What an area covers in plan: its outer border, less the islands. */
export const areaRegion = ({ rings }: AreaShape): Region =>
  regionOf(rings.map((r) => r.map((e) => e.segment)));

/** What of the part stands above a level, over the fillet at its walls' foot. */
export const standingAbove = (sectionAt: (level: number) => Vec2[][], level: number, foot = 0): Region =>
  regionOfPoints(sectionAt(level + foot + OVER_FLOOR));

/** The same about an open area: holes and pockets in what stands there are none of its business. */
export const wallsAbout = (sectionAt: (level: number) => Vec2[][], floor: number, foot = 0): Region =>
  filled(standingAbove(sectionAt, floor, foot));

/**
 * Where metal may stand about an open area, on the level of its floor. Stock that stands proud of the part reaches over whatever lies lower: all
 * of that which hangs together with the area is cleared with it, from outside.
 */
export function clearedWith({ body }: Pick<SetupFrame, 'body'>, own: Region, walls: Region): Region {
  if (!body.standsProud) return own;
  const around = piecesOf(without(boxRegion(body.box.min, body.box.max), walls));
  return { paths: around.filter((p) => !isEmpty(within(p, own))).flatMap((p) => p.paths) };
}

/** What an open area's making clears, as closed runs of points. */
export const clearedOutlines = (
  setup: Pick<SetupFrame, 'body'>,
  shape: AreaShape,
  sectionAt: (level: number) => Vec2[][],
): Vec2[][] =>
  ringsOf(clearedWith(setup, areaRegion(shape), wallsAbout(sectionAt, shape.floor, shape.floorRadius)));
