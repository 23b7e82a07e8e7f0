import type { AreaShape } from '../../features/area/shape.ts';
import type { Vec2 } from '../../geometry/path.ts';
import { deepestIn, grown, within, without, type Region } from '../../geometry/region.ts';
import { areaRegion, groundOf, type Ground } from '../../space/areas.ts';
import type { AreaView } from '../area-view.ts';
import type { KindContext } from '../kind.ts';
import { roomIn } from './room.ts';

/** What is narrower no cutter has to come back for, mm. */
const SLIVER = 0.03;

/** How an area of a context lies in the part at a level. */
export const groundAt = (c: Pick<KindContext, 'space'>, shape: AreaShape, floor: number): Ground =>
  groundOf(c.space, shape, (z) => c.space.sectionAt(z), floor);

/** Where the centre of a cutter may be over an area when it touches its walls, mm. */
export const roomOver = (shape: AreaShape, { enclosed, walls, cleared }: Ground, radius: number): Region =>
  enclosed ? roomIn(cleared, radius, 0) : without(grown(areaRegion(shape), radius), grown(walls, radius));

/** Where a hole to go in by lies in a closed area, and how far from its walls, mm; null where it is open to a side. */
export function entryPlace(
  c: Pick<KindContext, 'space'>,
  { shape }: AreaView,
): { at: Vec2; away: number } | null {
  const { enclosed, cleared } = groundAt(c, shape, shape.floor);
  return enclosed ? deepestIn(within(cleared, areaRegion(shape))) : null;
}

/** What of an area a cutter of a radius does not reach: its corners, and what is too narrow for it. mm. */
export function restOf(shape: AreaShape, ground: Ground, radius: number): Region {
  const own = areaRegion(shape);
  const left = without(own, grown(roomOver(shape, ground, radius), radius));
  // Along walls that both touch there are slivers, as lines and arcs are points here.
  return grown(grown(left, -SLIVER), SLIVER);
}
