import { at, last } from '../lists.ts';
import { distance2, type Vec2 } from './path.ts';
import { besideRun, bordersWithin, both, chainPoints, grown, NOWHERE, type Region } from './region.ts';

/** Walls this near to an area border it, mm. */
const BESIDE = 0.05;

/** A run of points without `by` at both its ends, mm; nothing where it is shorter. */
function shortened(points: readonly Vec2[], by: number): Vec2[] {
  const fromStart = (list: readonly Vec2[]): Vec2[] => {
    let rest = by;
    for (let i = 0; i + 1 < list.length; i++) {
      const [p, q] = [at(list, i), at(list, i + 1)];
      const l = distance2(p, q);
      if (l > rest)
        return [[p[0] + (rest / l) * (q[0] - p[0]), p[1] + (rest / l) * (q[1] - p[1])], ...list.slice(i + 1)];
      rest -= l;
    }
    return [];
  };
  return fromStart(fromStart(points).reverse()).reverse();
}

/** A stretch of walls, by points. */
export interface Run {
  points: Vec2[];
  closed: boolean;
}

/** What of the walls borders the area itself. */
export function ownWalls(walls: Region, area: Region): Run[] {
  return bordersWithin(walls, grown(area, BESIDE)).flatMap(({ path, closed }): Run[] => {
    if (closed) return [{ points: chainPoints(path), closed }];
    // Round the corner where the area ends the wall is another's.
    const points = shortened([...chainPoints(path), last(path).to], 2 * BESIDE);
    return points.length > 1 ? [{ points, closed }] : [];
  });
}

/** All that lies straight before or behind some walls, as far as `by`, mm: beyond their ends nothing. */
export const straightBeside = (own: readonly Run[], by: number): Region =>
  own.map((r) => besideRun(r.points, by, r.closed)).reduce(both, NOWHERE);
