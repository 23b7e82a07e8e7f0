import { segmentLength, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { first, last } from '../../lists.ts';
import type { Hit } from '../../space/space.ts';
import { beyondEnd, placeAt, type RunEnd } from './way.ts';

/** Steps in which it is looked where a way must stop, mm, and in which that place is found. */
const STEP = 0.5;
const HALVINGS = 8;
/** Between the cutter and the wall that it stops before, mm. */
const ROOM = 0.05;

/** What a cutter would meet on a straight stretch; null where it has room. */
export type Meets = (from: Vec3, to: Vec3, along: Vec2) => Hit | null;

/** Which end, how low the cutter's tip is, how far past it is to go, and whether the face above goes on there. */
export interface AskedEnd {
  end: 'start' | 'end';
  z: number;
  past: number;
  goesOn: boolean;
}

/** How an end is made, and what stands there; null where the cutter has room nowhere. */
export interface FoundEnd {
  by: RunEnd | null;
  hit: Hit | null;
}

/**
 * How one end of an open way is made: past it by `past`, where the cutter has room there, else as far before it as the wall that stands there
 * wants; null where it has room nowhere.
 */
export function endOf(way: readonly Segment[], { end, z, past, goesOn }: AskedEnd, meets: Meets): FoundEnd {
  const up = ([x, y]: Vec2): Vec3 => [x, y, z];
  const own = beyondEnd(way, end, 0);
  const along = tangentAt(end === 'start' ? first(way) : last(way), end === 'start' ? 'from' : 'to');
  const hit = meets(up(own), up(beyondEnd(way, end, Math.max(0, past))), along);
  if (!hit && !goesOn) return { by: Math.max(0, past), hit: null };
  if (!meets(up(own), up(own), along)) return { by: 0, hit };
  const whole = way.reduce((sum, s) => sum + segmentLength(s), 0);
  const standsAt = (by: number): boolean => {
    const { place, along: there } = placeAt(way, end === 'end' ? whole - by : by);
    return meets(up(place), up(place), there) === null;
  };
  let free = STEP;
  while (free < whole && !standsAt(free)) free += STEP;
  if (free >= whole) return { by: null, hit };
  let met = free - STEP;
  for (let i = 0; i < HALVINGS; i++) {
    const mid = (free + met) / 2;
    if (standsAt(mid)) free = mid;
    else met = mid;
  }
  return { by: -Math.min(free + ROOM, whole - STEP), hit };
}
