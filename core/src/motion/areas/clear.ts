import {
  bordersOf,
  chainPoints,
  deepestIn,
  grown,
  isIn,
  piecesOf,
  regionOf,
  ROUGH,
  without,
  type Region,
} from '../../geometry/region.ts';
import {
  distance2,
  reversePath,
  segmentLength,
  segmentPoint,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { at, first } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../grooves/chain.ts';
import { fallAt, levelsDown, wayOf, windDown } from '../grooves/ramp.ts';
import type { Move, Pass } from '../work.ts';

/** A ring nearer than this to what is left within it clears that too: of the cutter's radius. */
const CLEARED = 0.94;
/** A way down is at least so many cutters long: a shorter one would be all but a plunge. */
const LEAST_WAY = 1.5;
/** Radius of a circle that a cutter goes down on, of its diameter: no core stays in its middle. */
export const HELIX_SHARE = 0.4;
/** What a way may lie off its room's border, mm. */
const SLACK = 0.01;
/** A straight way from one ring to the next is no longer than so many steps. */
const FAR = 2.2;

/** How a closed area is cleared: all in program coordinates, mm. */
export interface ClosedCut {
  /** Where the cutter's centre may be. */
  room: Region;
  diameter: number;
  /** As wide as it cuts level, where that is less: its corners are round. */
  flat?: number;
  stepover: number;
  /** R level, where metal may stand first, and the floor; one layer is no deeper than `perLayer`. */
  r: number;
  top: number;
  floor: number;
  perLayer: number;
  /** Steepest way down, degrees. */
  ramp: number;
  /** Above the metal, where a way down begins. */
  above: number;
  isClimb: boolean;
  /** It goes down on a circle where there is room for one, in place of the innermost way. */
  isHelix?: boolean;
  /** A hole in which it goes straight down, and the level down to which that is open. */
  hole?: { at: Vec2; to: number } | null;
}

/** Ways round of one pocket of room, from the innermost out: each is a closed chain. */
interface Nest {
  /** Borders of this piece of room, the outer one and those round islands. */
  rings: Segment[][];
  /** What lies within, a step farther in. */
  inner: Nest[];
}

/** All moves that clear an area layer by layer, each from the inside out. Empty where the cutter has no room in it. */
export function clearClosed(cut: ClosedCut): Pass[] {
  const nests = nestsOf(cut.room, cut);
  const slack = grown(cut.room, SLACK);
  const out: Pass[] = [];
  for (const nest of nests) {
    let from = cut.top + cut.above;
    for (const z of levelsDown(cut.top, cut.floor, cut.perLayer)) {
      const layer = new Layer(cut, slack, from, z);
      layer.clear(nest);
      out.push(...layer.passes);
      from = z;
    }
  }
  return out;
}

function nestsOf(room: Region, cut: ClosedCut, fit?: number): Nest[] {
  return piecesOf(room).map((piece) => {
    // Round its outer border with the wall on the right, as a spindle that turns clockwise climbs.
    const rings = bordersOf(piece, fit).map((r) => (cut.isClimb ? r : reversePath(r)));
    const within = grown(piece, -cut.stepover, ROUGH.chord);
    // Where ways are far apart a core may stand between the last of them and the middle: it has a way of its own.
    const flat = cut.flat ?? cut.diameter;
    const core = without(
      grown(piece, (-CLEARED * flat) / 2, ROUGH.chord),
      grown(within, flat / 2, ROUGH.chord),
    );
    return { rings, inner: [...nestsOf(within, cut, ROUGH.fit), ...nestsOf(core, cut, ROUGH.fit)] };
  });
}

/** One layer of an area, from the level that is cleared already down to its own. */
class Layer {
  readonly passes: Pass[] = [];
  private place: Vec2 | null = null;

  constructor(
    private readonly cut: ClosedCut,
    /** Its room, with what the fitted arcs may lie off its border. */
    private readonly slack: Region,
    private readonly from: number,
    private readonly z: number,
  ) {}

  /** What lies within first, then round it; the way down is the innermost ring that is long enough for one. */
  clear(nest: Nest): void {
    const isWayIn = nest.inner.every((n) => !this.hasWayDown(n));
    if (isWayIn) {
      this.goDown(nest);
      for (const n of nest.inner) this.inwards(n);
    } else for (const n of nest.inner) if (this.hasWayDown(n)) this.clear(n);
    // A small piece beside a larger one is cut from the ring round both.
    const late = isWayIn ? [] : nest.inner.filter((n) => !this.hasWayDown(n));
    for (const [i, ring] of nest.rings.entries()) if (!(isWayIn && i === 0)) this.round(ring);
    for (const n of late) this.inwards(n);
  }

  private hasWayDown({ rings, inner }: Nest): boolean {
    return wayOf(first(rings)) >= LEAST_WAY * this.cut.diameter || inner.some((n) => this.hasWayDown(n));
  }

  private inwards(nest: Nest): void {
    for (const ring of nest.rings) this.round(ring);
    for (const n of nest.inner) this.inwards(n);
  }

  private fed(feed: Fed['feed'], side: Fed['side'] = 'both'): Fed {
    return { feed, cutter: this.cut.diameter, side };
  }

  /** Down into the metal, and round the ring that is cut first. */
  private goDown(nest: Nest): void {
    const { cut } = this;
    const ring = first(nest.rings);
    if (this.downHole(ring) || (cut.isHelix && this.downHelix(nest))) return;
    const start = first(ring).from;
    const perTurn = Math.min(cut.perLayer, fallAt(cut.ramp, wayOf(ring)));
    this.passes.push({
      start: [start[0], start[1], cut.r],
      moves: [
        lineTo(start, this.from, 'lead'),
        ...windDown(ring, this.from, this.z, perTurn, this.fed('ramp'), this.fed('cut')),
      ],
    });
    this.place = start;
  }

  /** Straight down where a hole is open, from there to the ring: false where there is none, or no straight way from it. */
  private downHole(ring: readonly Segment[]): boolean {
    const { cut, z } = this;
    const { hole } = cut;
    if (!hole) return false;
    const loop = begunNear(ring, hole.at);
    const start = first(loop).from;
    if (!this.isClearWay(hole.at, start)) return false;
    const level = Math.max(z, Math.min(hole.to, this.from));
    const perTurn = Math.min(cut.perLayer, fallAt(cut.ramp, wayOf(loop)));
    this.passes.push({
      start: [hole.at[0], hole.at[1], cut.r],
      moves: [
        lineTo(hole.at, level, 'lead'),
        lineTo(start, level, 'cut'),
        ...(level > z
          ? windDown(loop, level, z, perTurn, this.fed('ramp'), this.fed('cut'))
          : alongChain(loop, z, z, this.fed('cut'))),
      ],
    });
    this.place = start;
    return true;
  }

  /** Round a circle of less than the cutter's own width down to the layer, then on to the ring. */
  private downHelix({ rings }: Nest): boolean {
    const { cut, z } = this;
    const middle = deepestIn(regionOf(rings))?.at ?? first(first(rings)).from;
    const radius = HELIX_SHARE * (cut.flat ?? cut.diameter);
    const from: Vec2 = [middle[0] + radius, middle[1]];
    const turn = (cut.isClimb ? 2 : -2) * Math.PI;
    const circle: Segment[] = [{ kind: 'arc', from, to: from, centre: middle, radius, turn }];
    if (!chainPoints(circle, 0.05).every((p) => isIn(this.slack, p))) return false;
    const loop = begunNear(first(rings), from);
    const start = first(loop).from;
    if (!this.isClearWay(from, start)) return false;
    const perTurn = Math.min(cut.perLayer, fallAt(cut.ramp, wayOf(circle)));
    this.passes.push({
      start: [from[0], from[1], cut.r],
      moves: [
        lineTo(from, this.from, 'lead'),
        ...windDown(circle, this.from, z, perTurn, this.fed('ramp'), this.fed('cut')),
        lineTo(start, z, 'cut'),
        ...alongChain(loop, z, z, this.fed('cut')),
      ],
    });
    this.place = start;
    return true;
  }

  /** Round a ring from its place nearest to where the cutter stands; where that is far, or not on cleared ground, from above. */
  private round(ring: readonly Segment[]): void {
    const { cut, place, z } = this;
    const loop = place ? begunNear(ring, place) : [...ring];
    const start = first(loop).from;
    const isNear = place && distance2(place, start) <= FAR * cut.stepover && this.isClearWay(place, start);
    const moves: Move[] = isNear ? [lineTo(start, z, 'cut')] : [lineTo(start, this.from, 'lead')];
    // What is come to from above is gone into on a ramp, as it is metal there.
    const down = isNear
      ? alongChain(loop, z, z, this.fed('cut', cut.isClimb ? 'right' : 'left'))
      : windDown(
          loop,
          this.from,
          z,
          Math.min(cut.perLayer, fallAt(cut.ramp, wayOf(loop))),
          this.fed('ramp'),
          this.fed('cut'),
        );
    if (isNear) this.last.moves.push(...moves, ...down);
    else this.passes.push({ start: [start[0], start[1], cut.r], moves: [...moves, ...down] });
    this.place = start;
  }

  private isClearWay(a: Vec2, b: Vec2): boolean {
    return [0.2, 0.4, 0.6, 0.8].every((t) =>
      isIn(this.slack, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]),
    );
  }

  private get last(): Pass {
    return at(this.passes, this.passes.length - 1);
  }
}

/** Places looked at along a piece. */
const PLACES = 8;

/** A closed chain that begins about where it comes nearest to a place. */
export function begunNear(ring: readonly Segment[], p: Vec2): Segment[] {
  let best = { i: 0, share: 0, away: Infinity };
  ring.forEach((s, i) => {
    for (let k = 0; k < PLACES; k++) {
      const away = distance2(segmentPoint(s, k / PLACES), p);
      if (away < best.away - 1e-9) best = { i, share: k / PLACES, away };
    }
  });
  const s = at(ring, best.i);
  if (best.share === 0 || segmentLength(s) < 0.5) return [...ring.slice(best.i), ...ring.slice(0, best.i)];
  const m = segmentPoint(s, best.share);
  const [a, b]: [Segment, Segment] =
    s.kind === 'line'
      ? [
          { ...s, to: m },
          { ...s, from: m },
        ]
      : [
          { ...s, to: m, turn: s.turn * best.share },
          { ...s, from: m, turn: s.turn * (1 - best.share) },
        ];
  return [b, ...ring.slice(best.i + 1), ...ring.slice(0, best.i), a];
}
