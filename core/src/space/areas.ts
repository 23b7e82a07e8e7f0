import type { AreaShape } from '../features/area/shape.ts';
import type { Feature } from '../features/family.ts';
import { familyOf } from '../features/registry.ts';
import { ownWalls, straightBeside } from '../geometry/beside-walls.ts';
import type { Vec2 } from '../geometry/path.ts';
import {
  both,
  boxRegion,
  filled,
  grown,
  isEmpty,
  NOWHERE,
  piecesOf,
  regionOf,
  regionOfSection,
  within,
  without,
  type Region,
} from '../geometry/region.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';

/** What stands above a floor is found by a cut through the part so far above it, mm. */
const OVER_FLOOR = 0.05;
/** What of an area is narrower lies on the border of what stands beside it, mm. */
const SLIVER = 0.05;

/** What an area covers in plan: its outer border, less the islands. */
export const areaRegion = ({ rings }: AreaShape): Region =>
  regionOf(rings.map((r) => r.map((e) => e.segment)));

/** What of the part stands above a level, over the fillet at its walls' foot. */
export const standingAbove = (sectionAt: (level: number) => Vec2[][], level: number, foot = 0): Region =>
  regionOfSection(sectionAt(level + foot + OVER_FLOOR));

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
 * the part that hangs together with the area goes down with it, and what of the stock stands straight before its walls. The rest of the
 * stock beyond the part's outline is the outline's.
 */
function clearedWith({ setup: { body }, plan }: SeenPlan, own: Region, walls: Region): Region {
  if (!body.standsProud) return own;
  const part = touching(without(both(plan, own), walls), own);
  const { min, max } = body.box;
  const before = straightBeside(ownWalls(walls, part), Math.hypot(max[0] - min[0], max[1] - min[1]));
  return both(part, touching(within(without(boxRegion(min, max), walls), before), part));
}

/** All metal that stands about an open area and is not to stay. */
export function metalAbout({ setup: { body } }: SeenPlan, cleared: Region, walls: Region): Region {
  return body.standsProud ? both(cleared, without(boxRegion(body.box.min, body.box.max), walls)) : cleared;
}

/** How an area lies in the part at a level. */
export interface Ground {
  /** Metal stands all round what is cleared: it is gone into from above. Else it is come to from outside, toward its walls. */
  enclosed: boolean;
  /** What stands about an open one; holes and pockets in that are none of its business. */
  walls: Region;
  /** What is cleared with it: itself, and whatever hangs together with it and lies no higher. */
  cleared: Region;
}

/**
 * What stands round an area whose floor lies at a level, and what goes with it. A step within a pocket has walls all round the two of them: it is
 * cleared as one of them, from above.
 */
export function groundOf(
  seen: SeenPlan,
  shape: AreaShape,
  sectionAt: (level: number) => Vec2[][],
  floor = shape.floor,
): Ground {
  const own = areaRegion(shape);
  if (shape.side !== 'open') return { enclosed: shape.side === 'closed', walls: NOWHERE, cleared: own };
  const stands = standingAbove(sectionAt, floor, shape.floorRadius);
  const walls = filled(stands);
  if (!isEmpty(grown(without(own, walls), -SLIVER)))
    return { enclosed: false, walls, cleared: clearedWith(seen, own, walls) };
  return { enclosed: true, walls, cleared: touching(without(walls, stands), own) };
}

/** The pieces of a region that lie over another. */
const touching = (r: Region, own: Region): Region => ({
  paths: piecesOf(r)
    .filter((p) => !isEmpty(within(p, own)))
    .flatMap((p) => p.paths),
});
