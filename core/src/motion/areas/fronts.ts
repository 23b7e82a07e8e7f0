import {
  areaOf,
  bordersOf,
  bordersWithin,
  chainPoints,
  deepestIn,
  grown,
  isIn,
  piecesOf,
  regionOf,
  ROUGH,
  within,
  without,
  type Region,
} from '../../geometry/region.ts';
import { leftOf, move2 } from '../../geometry/parallel.ts';
import {
  distance2,
  pathLength,
  reversePath,
  tangentAt,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineFrom, lineTo, type Fed } from '../grooves/chain.ts';
import { fallAt, levelsDown, windDown, wayOf } from '../grooves/ramp.ts';
import type { Move, Pass } from '../work.ts';
import { HELIX_SHARE, type ClosedCut } from './clear.ts';

/** A front ends so far before the room's border, which a last way follows, mm. */
const BEFORE_BORDER = 0.02;
/** Pieces of a front shorter than this are left to the last way, mm. */
const SHORTEST = 0.1;
/** What is less is cleared, mm². */
const NONE = 0.01;
/** Fronts that are looked for at most. */
const MOST = 3000;
/** A front is come to from so many steps inside what is cleared. */
const INSIDE = 1.3;
/** Places on a straight way that are looked at, mm apart. */
const LOOKED = 0.5;

/**
 * Clears a closed area in full-depth layers with a cut that is never wider than a step: down a helix, then in fronts that each take one step
 * more of what can be reached, wherever that lies (handbook, Pockets). Null where the cutter has no room for the helix. mm.
 */
export function clearInFronts(cut: ClosedCut): Pass[] | null {
  const out: Pass[] = [];
  for (const room of piecesOf(cut.room)) {
    const entry = deepestIn(room);
    const radius = HELIX_SHARE * (cut.flat ?? cut.diameter);
    if (!entry || entry.away < radius) return null;
    let from = cut.top + cut.above;
    const fronts = frontsIn(room, entry.at, radius, cut);
    for (const z of levelsDown(cut.top, cut.floor, cut.perLayer)) {
      out.push(...new FrontLayer(cut, from, z).passes(entry.at, radius, fronts, room));
      from = z;
    }
  }
  return out;
}

/** One step: where the cutter has been before it, and its ways. */
interface Front {
  before: Region;
  ways: Segment[][];
}

const circleOf = (centre: Vec2, radius: number): Segment[] => {
  const from: Vec2 = [centre[0] + radius, centre[1]];
  return [{ kind: 'arc', from, to: from, centre, radius, turn: 2 * Math.PI }];
};

/** Each grows from the one before, round corners and islands: no way leads through what is not cleared. */
function frontsIn(room: Region, at: Vec2, radius: number, { stepover, isClimb }: ClosedCut): Front[] {
  const inner = grown(room, -BEFORE_BORDER);
  const out: Front[] = [];
  let region = within(regionOf([circleOf(at, radius)]), room);
  for (let k = 0; k < MOST; k++) {
    if (areaOf(without(room, region)) < NONE) break;
    const next = within(grown(region, stepover, ROUGH.chord), room);
    if (areaOf(next) - areaOf(region) < NONE) break;
    const ways = bordersWithin(next, without(inner, grown(region, stepover / 2, ROUGH.chord)), ROUGH.fit)
      .filter((w) => pathLength(w.path) > SHORTEST)
      // With what is cut on the right, as a spindle that turns clockwise climbs.
      .map((w) => (isClimb ? w.path : reversePath(w.path)));
    out.push({ before: region, ways });
    region = next;
  }
  return out;
}

/** The place on a region's border that is nearest to another. */
function nearestOn(region: Region, to: Vec2): Vec2 {
  let best: { p: Vec2; away: number } = { p: to, away: Infinity };
  for (const border of bordersOf(region))
    for (const p of chainPoints(border, 0.01)) {
      const away = distance2(p, to);
      if (away < best.away) best = { p, away };
    }
  return best.p;
}

/** One layer, from the level that is cleared already down to its own. */
class FrontLayer {
  private readonly out: Pass[] = [];
  private place: Vec2 | null = null;

  constructor(
    private readonly cut: ClosedCut,
    private readonly from: number,
    private readonly z: number,
  ) {}

  passes(at: Vec2, radius: number, fronts: readonly Front[], room: Region): Pass[] {
    this.down(circleOf(at, radius));
    const { cut } = this;
    // Where fronts that follow each other touch they are no more than points: a little more, but nothing of the walls.
    for (const { before, ways } of fronts) {
      const cleared = within(grown(before, cut.stepover / 10, ROUGH.chord), room);
      for (const way of ways) this.along(way, before, cleared);
    }
    // Between the fronts' ends nothing but scallops stands along the border.
    const slack = grown(room, BEFORE_BORDER);
    for (const border of bordersOf(room)) {
      const ring = cut.isClimb ? border : reversePath(border);
      this.goTo(first(ring).from, slack);
      this.moves.push(...alongChain(ring, this.z, this.z, this.fed('cut')));
    }
    return this.out;
  }

  private fed(feed: Fed['feed']): Fed {
    return { feed, cutter: this.cut.diameter, side: this.cut.isClimb ? 'right' : 'left' };
  }

  private get moves(): Move[] {
    return last(this.out).moves;
  }

  private down(circle: readonly Segment[]): void {
    const { cut, z } = this;
    const way = cut.isClimb ? circle : reversePath([...circle]);
    const start = first(way).from;
    const perTurn = Math.min(cut.perLayer, fallAt(cut.ramp, wayOf(way)));
    const both: Fed = { feed: 'ramp', cutter: cut.diameter, side: 'both' };
    this.out.push({
      start: [start[0], start[1], cut.r],
      moves: [
        lineTo(start, this.from, 'lead'),
        ...windDown(way, this.from, z, perTurn, both, this.fed('cut')),
      ],
    });
    this.place = start;
  }

  /** Onto a way from inside what is cleared, along it, and back inside. */
  private along(way: readonly Segment[], before: Region, cleared: Region): void {
    const { cut, z } = this;
    const inward = (cut.isClimb ? 1 : -1) * INSIDE * cut.stepover;
    const [a, b] = [first(way), last(way)];
    const [ta, tb] = [tangentAt(a, 'from'), tangentAt(b, 'to')];
    const start = move2(a.from, leftOf(ta), inward);
    const end = move2(b.to, leftOf(tb), inward);
    this.goTo(isIn(cleared, start) ? start : nearestOn(before, a.from), cleared);
    this.moves.push(...lineFrom(this.placed, a.from, z, 'cut'), ...alongChain(way, z, z, this.fed('cut')));
    this.place = b.to;
    if (!isIn(cleared, end)) return;
    this.moves.push(lineTo(end, z, 'lead'));
    this.place = end;
  }

  private get placed(): Vec2 {
    return this.place ?? [0, 0];
  }

  /** Straight over ground that is cleared, else by way of R. */
  private goTo(to: Vec2, cleared: Region): void {
    const { cut, z } = this;
    const from = this.placed;
    const n = Math.ceil(distance2(from, to) / LOOKED) + 1;
    const isFree = Array.from({ length: n }, (_, i) => i / n).every((t) =>
      isIn(cleared, [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1])]),
    );
    if (isFree) this.moves.push(...lineFrom(from, to, z, 'lead'));
    else this.out.push({ start: [to[0], to[1], cut.r], moves: [lineTo(to, z, 'lead')] });
    this.place = to;
  }
}
