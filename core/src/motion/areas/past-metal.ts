import type { Vec2 } from '../../geometry/path.ts';
import { grown, isIn, type Region } from '../../geometry/region.ts';

/** How far outside of all metal a cutter comes down, mm. */
export const OUTSIDE = 1;
/** No part is longer, mm. */
const FARTHEST = 5000;

/** How far from a place on its way, straight on, a cutter is clear of all metal: mm. */
export type PastMetal = (at: Vec2, away: Vec2) => number;

/** {@link PastMetal} of a cutter and what metal may stand there. */
export function pastMetal(metal: Region, radius: number): PastMetal {
  const room = grown(metal, radius + OUTSIDE / 2);
  const step = Math.max(0.5, radius / 4);
  return (at, [dx, dy]) => {
    for (let by = 0; by < FARTHEST; by += step)
      if (!isIn(room, [at[0] + by * dx, at[1] + by * dy])) return by;
    return radius + OUTSIDE;
  };
}
