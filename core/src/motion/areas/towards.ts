import {
  bordersOf,
  bordersWithin,
  both,
  chainPoints,
  filled,
  grown,
  isEmpty,
  isIn,
  without,
  type Region,
} from '../../geometry/region.ts';
import {
  distance2,
  pathLength,
  reversePath,
  segmentPoint,
  tangentAt,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { ownWalls, straightBeside } from '../../geometry/beside-walls.ts';
import { extendedPath } from '../../geometry/parallel.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../grooves/chain.ts';
import { levelsDown } from '../grooves/ramp.ts';
import type { Pass } from '../work.ts';
import { begunNear } from './clear.ts';
import { OUTSIDE, pastMetal, type PastMetal } from './past-metal.ts';

/** Pieces of a way shorter than this are left out, mm: they are where two borders just meet. */
const SHORTEST = 0.05;
/** What a way may lie nearer to a wall than it is to, mm. */
const SLACK = 0.02;
/** Where a straight way out is looked at. */
const PLACES = [0, 0.1, 0.25, 0.5, 0.75, 1];
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
  /** As wide as it cuts level, where that is less: its corners are round. */
  flat?: number;
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
  flat = diameter,
  stepover,
  stock,
  isClimb,
}: Omit<OpenCut, 'r' | 'top' | 'floor' | 'perLayer'>): BesideWalls[][] {
  const radius = diameter / 2;
  const own = ownWalls(walls, area);
  const past = pastMetal(metal, radius);
  const kept = grown(walls, radius + stock - SLACK);
  // Out beyond all metal: there the cutter comes down.
  const outside = grown(metal, radius + OUTSIDE);
  const out: BesideWalls[][] = [];
  for (let k = 0; k < MOST_WAYS; k++) {
    const off = radius + stock + k * stepover;
    // What the way before does not reach: nothing where all of the area is nearer to the walls.
    const isNeeded = k === 0 || !isEmpty(without(area, grown(walls, off - stepover + flat / 2)));
    if (!isNeeded) break;
    const border = grown(walls, off);
    const straight = ledOut(bordersWithin(border, straightBeside(own, off + SHORTEST)), past, kept);
    const ways = straight ?? bordersWithin(border, outside);
    const long = ways.filter((w) => pathLength(w.path) > SHORTEST);
    if (long.length > 0)
      out.unshift(long.map((w) => ({ ...w, path: isClimb ? reversePath(w.path) : w.path })));
  }
  return out;
}

/** Open ways led on straight until they are past all metal; null where that is another wall. */
function ledOut(ways: readonly BesideWalls[], past: PastMetal, kept: Region): BesideWalls[] | null {
  const out = ways.map(({ path, closed }): BesideWalls => {
    if (closed) return { path, closed };
    const [a, b] = [first(path), last(path)];
    const [back, ahead] = [tangentAt(a, 'from'), tangentAt(b, 'to')];
    return { closed, path: extendedPath(path, past(a.from, [-back[0], -back[1]]), past(b.to, ahead)) };
  });
  const ends = out.flatMap(({ path, closed }) => (closed ? [] : [first(path), last(path)]));
  const isFree = ends.every((s) => PLACES.every((t) => !isIn(kept, segmentPoint(s, t))));
  return out.length > 0 && isFree ? out : null;
}

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
