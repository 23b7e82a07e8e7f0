import { boxRegion, grown, isEmpty, regionOf, without, type Region } from '../../geometry/region.ts';
import type { AreaShape } from '../../features/area/shape.ts';
import { at } from '../../lists.ts';
import type { KindContext } from '../kind.ts';

/** A sliver that no cutter has to reach, mm: about twice what a border's points may be off. */
const SLIVER = 0.02;
/** Inradius of what a round cutter leaves in a square corner, of its own radius. */
const IN_CORNER = 0.18;

/** Where a cutter's centre may be in a closed area when it leaves `stock` on the walls, mm. */
export const roomIn = (area: Region, radius: number, stock: number): Region => grown(area, -(radius + stock));

/**
 * Whether a cutter of a radius gets everywhere in an area whose centre may be in `room`; into its sharp corners as far as a round one can.
 */
export function reachesAll(area: Region, room: Region, radius: number, isSharp: boolean): boolean {
  // What stays in a square corner is no wider than this.
  const corner = isSharp ? IN_CORNER * radius : 0;
  return !isEmpty(room) && isEmpty(grown(without(area, grown(room, radius)), -SLIVER - corner));
}

/** All that metal may stand on in a setup: its stock where that stands proud of the part, else the part's own box. */
export function metalRound({ space: { setup } }: Pick<KindContext, 'space'>): Region {
  const { min, max } = setup.body.standsProud ? setup.body.box : setup.part;
  return boxRegion(min, max);
}

/** The outline itself as a region: what stands within it. */
export const standing = ({ rings }: AreaShape): Region => regionOf([at(rings, 0).map((e) => e.segment)]);
