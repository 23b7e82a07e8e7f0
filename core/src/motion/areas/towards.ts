import {
  bordersOf,
  bordersWithin,
  both,
  chainPoints,
  filled,
  grown,
  isEmpty,
  without,
  type Region,
} from '../../geometry/region.ts';
import {
  distance2,
  pathLength,
  reversePath,
  segmentPoint,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../grooves/chain.ts';
import { levelsDown } from '../grooves/ramp.ts';
import type { Pass } from '../work.ts';
import { begunNear } from './clear.ts';

/** Pieces of a way shorter than this are left out, mm: they are where two borders just meet. */
const SHORTEST = 0.05;
/** Ways that are looked for at most. */
const MOST_WAYS = 2000;

/** How an open area is cut toward its walls: all in program coordinates, mm. */
export interface OpenCut {
  /** What stands above the floor. */
  walls: Region;
  /** What is to be cleared, and where metal may stand beyond its open sides. */
  area: Region;
  metal: Region;
  diameter: number;
  stepover: number;
  /** Left on the walls. */
  stock: number;
  r: number;
  top: number;
  floor: number;
  perLayer: number;
  isClimb: boolean;
}

/** A way beside the walls; closed where it goes round them. */
export interface BesideWalls {
  path: Segment[];
  closed: boolean;
}

/**
 * Ways parallel to what stands there, from the farthest that still cuts anything to the one beside the walls; each begins and ends in the
 * air beyond the metal, or goes round. With the wall on the right where it climbs.
 */
export function waysTowards({
  walls,
  area,
  metal,
  diameter,
  stepover,
  stock,
  isClimb,
}: Omit<OpenCut, 'r' | 'top' | 'floor' | 'perLayer'>): BesideWalls[][] {
  const radius = diameter / 2;
  // Out beyond all metal: there the cutter comes down.
  const room = grown(metal, radius + OUTSIDE);
  const out: BesideWalls[][] = [];
  for (let k = 0; k < MOST_WAYS; k++) {
    const off = radius + stock + k * stepover;
    // What the way before does not reach: nothing where all of the area is nearer to the walls.
    const isNeeded = k === 0 || !isEmpty(without(area, grown(walls, off - stepover + radius)));
    if (!isNeeded) break;
    const ways = bordersWithin(grown(walls, off), room).filter((w) => pathLength(w.path) > SHORTEST);
    if (ways.length > 0)
      out.unshift(ways.map((w) => ({ ...w, path: isClimb ? reversePath(w.path) : w.path })));
  }
  return out;
}

/** How far outside of all metal a cutter comes down, mm. */
export const OUTSIDE = 1;

/** Layers of such ways: each from outside, along, and out again. */
export function cutTowards(cut: OpenCut): Pass[] {
  const ways = waysTowards(cut);
  const fed: Fed = { feed: 'cut', cutter: cut.diameter, side: cut.isClimb ? 'right' : 'left' };
  const out: Pass[] = [];
  for (const z of levelsDown(cut.top, cut.floor, cut.perLayer))
    for (const distance of ways)
      for (const way of distance) {
        const path = way.closed ? wayIn(way.path, cut) : way.path;
        const start = first(path).from;
        out.push({
          start: [start[0], start[1], cut.r],
          moves: [lineTo(start, z, 'lead'), ...alongChain(path, z, z, fed)],
        });
      }
  return out;
}

/** A way round, come to from outside the metal and left there again, straight from the nearest place that is clear of it. */
function wayIn(ring: readonly Segment[], { metal, walls, diameter }: OpenCut): Segment[] {
  const outside = ringRoundMetal(filled(both(metal, walls)), diameter);
  const start = nearestTo(outside, ring);
  const loop = begunNear(ring, start);
  const [from, to] = [first(loop).from, last(loop).to];
  return [{ kind: 'line', from: start, to: from }, ...loop, { kind: 'line', from: to, to: start }];
}

/** Places on a ring that is clear of all metal. */
function ringRoundMetal(metal: Region, diameter: number): Vec2[] {
  return bordersOf(grown(metal, diameter / 2 + OUTSIDE)).flatMap((ring) => chainPoints(ring, 0.5));
}

/** Of some places the one nearest to a ring's own corners and middles. */
function nearestTo(places: readonly Vec2[], ring: readonly Segment[]): Vec2 {
  let best: { p: Vec2; away: number } = { p: first(places), away: Infinity };
  for (const s of ring)
    for (const q of [0, 0.5].map((t) => segmentPoint(s, t)))
      for (const p of places) {
        const away = distance2(p, q);
        if (away < best.away) best = { p, away };
      }
  return best.p;
}
