import type { AreaShape } from '../features/area/shape.ts';
import type { Feature } from '../features/family.ts';
import { familyOf } from '../features/registry.ts';
import type { Vec2 } from '../geometry/path.ts';
import {
  both,
  boxRegion,
  filled,
  isEmpty,
  piecesOf,
  regionOf,
  regionOfSection,
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
  regionOfSection(sectionAt(level + foot + OVER_FLOOR));

/** The same about an open area: holes and pockets in what stands there are none of its business. */
export const wallsAbout = (sectionAt: (level: number) => Vec2[][], floor: number, foot = 0): Region =>
  filled(standingAbove(sectionAt, floor, foot));

/** All that the part covers in plan: within its own outline; where that is not known, the box round it. */
export function partInPlan(features: readonly Feature[], { frame, part }: SetupFrame): Region {
  const outlines = features.flatMap((f) => {
    const shape = familyOf(f).area?.(f, frame);
    return shape?.side === 'outside' ? [areaRegion(shape)] : [];
  });
  return outlines.length > 0 ? outlines.reduce(both) : boxRegion(part.min, part.max);
}

/** What a setup's stock and part cover in plan. */
export interface SeenPlan {
  setup: Pick<SetupFrame, 'body'>;
  /** The part: see {@link partInPlan}. */
  plan: Region;
}

/**
 * What is cleared with an open area, on the level of its floor. Stock that stands proud of the part reaches over whatever lies lower: all of
 * the part that hangs together with the area goes down with it. What of the stock stands beyond the part's outline is the outline's.
 */
export function clearedWith({ setup, plan }: SeenPlan, own: Region, walls: Region): Region {
  if (!setup.body.standsProud) return own;
  const around = piecesOf(without(both(plan, own), walls));
  return { paths: around.filter((p) => !isEmpty(within(p, own))).flatMap((p) => p.paths) };
}

/** All metal that stands about an open area and is not to stay. */
export function metalAbout({ setup: { body } }: SeenPlan, cleared: Region, walls: Region): Region {
  return body.standsProud ? both(cleared, without(boxRegion(body.box.min, body.box.max), walls)) : cleared;
}

/** What an open area's making clears, as closed runs of points. */
export const clearedOutlines = (
  seen: SeenPlan,
  shape: AreaShape,
  sectionAt: (level: number) => Vec2[][],
): Vec2[][] =>
  ringsOf(clearedWith(seen, areaRegion(shape), wallsAbout(sectionAt, shape.floor, shape.floorRadius)));
