import { first, last } from '../../lists.ts';
import { reversePath, type Segment, type Vec2 } from '../../geometry/path.ts';
import { alongChain, lineFrom, lineTo, type Fed } from '../../motion/grooves/chain.ts';
import { circleAlong, growCircles, placesAlong } from '../../motion/grooves/circling.ts';
import {
  begunOnLongest,
  ringsOut,
  roundFrom,
  roundMiddle,
  runOf,
  sidesOf,
  type Middle,
} from '../../motion/grooves/loops.ts';
import { fallAt, levelsDown, rampDown, wayOf, windDown } from '../../motion/grooves/ramp.ts';
import { roundWall } from '../../motion/grooves/walls.ts';
import { woundWall } from '../../motion/grooves/wound-wall.ts';
import type { Move, Pass } from '../../motion/work.ts';

/** How a slot, groove or channel is cut: everything in program coordinates, mm. */
export interface StripCut {
  middle: Middle;
  /** Where the cutter may come down outside the part: at its start, at its end. */
  isFree: readonly [boolean, boolean];
  /** Of the cutter. */
  diameter: number;
  /** From the middle to where the cutter's centre runs along a finished wall. */
  off: number;
  /** Left on each wall by roughing. */
  stock: number;
  /** R level, where metal may stand first, and where the tip goes. */
  r: number;
  top: number;
  floor: number;
  /** Down each way, each turn, each layer; a wall is finished in layers of `wallLayer` at most. */
  perPass: number;
  wallLayer: number;
  /** Steepest ramp, degrees. */
  ramp: number;
  /** From one way round to the next. */
  stepover: number;
  /** In whole circles of this step along the middle; null: in layers. */
  circling: number | null;
  /** How deep circles go at once. */
  circleLayer: number;
  /** Rounds along the finished wall: 0 where roughing has made it. */
  rounds: number;
  isClimb: boolean;
  /** Above the metal, where a way down begins. */
  above: number;
  /** The control compensates for the cutter's radius: how long the straight way is on which it takes it up. */
  control: { approach: number } | null;
  /** Z down to which a hole as wide as the cutter stands open at the start of the middle line; null: there is none. */
  openTo: number | null;
}

/**
 * All moves of a strip: in one go rough from the top down, then its walls; where the control compensates, each wall for itself. Null where
 * the middle line has no such parallels.
 */
export function stripPasses(cut: StripCut): Pass[] | null {
  const { control, rounds } = cut;
  const rough = new StripMoves(control ? { ...cut, rounds: 0 } : cut).pass();
  if (!rough || !control || rounds === 0) return rough && [rough];
  const walls = wallsOf(cut, cut.off).map((way, i) => {
    const wall = wallsOf(cut, cut.off + cut.diameter / 2)[i];
    const fed = { feed: 'finish', cutter: cut.diameter, side: cut.isClimb ? 'right' : 'left' } as const;
    const to = {
      r: cut.r,
      from: cut.top + cut.above,
      floor: cut.floor,
      perTurn: Math.min(cut.wallLayer, fallAt(cut.ramp, wayOf(way))),
      rounds,
      ...control,
    };
    return wall ? woundWall(way, wall, to, fed) : null;
  });
  const all = walls.flatMap((w) => w ?? []);
  return all.length > 0 && all.length === walls.length ? [rough, ...all] : null;
}

/** The ways round along the walls at a distance from the middle: one, or of a closed middle line one on each side. */
function wallsOf({ middle, isClimb }: Pick<StripCut, 'middle' | 'isClimb'>, off: number): Segment[][] {
  if (middle.closed) {
    const path = begunOnLongest(middle.path);
    return sidesOf({ ...middle, path }, off, isClimb) ?? [];
  }
  const round = roundMiddle(middle, off, isClimb);
  return round ? [begunOnLongest(roundFrom(round, 'start'))] : [];
}

/** Where the cutter stands along the middle line while it works its way down. */
type Side = 'start' | 'end';
const other = (side: Side): Side => (side === 'start' ? 'end' : 'start');

class StripMoves {
  private readonly moves: Move[] = [];
  private readonly run: Segment[];
  private readonly middle: Middle;
  private side: Side = 'start';
  private at: Vec2;

  constructor(private readonly cut: StripCut) {
    // A closed one is come to where there is most room.
    this.run = cut.middle.closed ? begunOnLongest(cut.middle.path) : runOf(cut.middle);
    this.middle = { ...cut.middle, ...(cut.middle.closed ? { path: this.run } : {}) };
    if (!cut.isFree[0] && cut.isFree[1]) this.side = 'end';
    this.at = this.placeOf(this.side);
  }

  pass(): Pass | null {
    const { cut } = this;
    const start = this.at;
    const isDone = cut.middle.closed ? this.closed() : this.withEnds();
    return isDone ? { start: [start[0], start[1], cut.r], moves: this.moves } : null;
  }

  private placeOf(side: Side): Vec2 {
    return side === 'start' ? first(this.run).from : last(this.run).to;
  }

  /** The middle line from where the cutter stands. */
  private get way(): Segment[] {
    return this.side === 'start' ? this.run : reversePath(this.run);
  }

  /** The side where it may stand outside: its own, where both will do. */
  private get freeSide(): Side {
    return this.isOutside(this.side) ? this.side : other(this.side);
  }

  private isOutside(side: Side): boolean {
    return this.cut.isFree[side === 'start' ? 0 : 1];
  }

  private fed(feed: Fed['feed'], side: Fed['side'] = 'both'): Fed {
    return { feed, cutter: this.cut.diameter, side };
  }

  /** The side that a wall is on. */
  private get wall(): 'left' | 'right' {
    return this.cut.isClimb ? 'right' : 'left';
  }

  private get rough(): number {
    return Math.max(0, this.cut.off - this.cut.stock);
  }

  private go(at: Vec2, z: number, feed: Fed['feed'] = 'lead'): void {
    this.moves.push(...lineFrom(this.at, at, z, feed));
    this.at = at;
  }

  /** Levels of the layers, from the highest down to the floor. */
  private get levels(): number[] {
    const { cut } = this;
    return levelsDown(cut.top, cut.floor, cut.perPass);
  }

  private closed(): boolean {
    const { cut } = this;
    const from = cut.top + cut.above;
    const perTurn = Math.min(cut.perPass, fallAt(cut.ramp, wayOf(this.run)));
    this.moves.push(lineTo(this.at, from, 'lead'));
    const rings = this.rough > 0 ? ringsOut(this.rough, cut.stepover) : [];
    const loops = rings.map((off) => sidesOf(this.middle, off, cut.isClimb));
    const walls = cut.rounds > 0 ? sidesOf(this.middle, cut.off, cut.isClimb) : [];
    if (loops.some((l) => l === null) || walls === null) return false;
    let at = from;
    for (const z of rings.length > 0 ? this.levels : [cut.floor]) {
      this.moves.push(...windDown(this.run, at, z, perTurn, this.fed('ramp'), this.fed('cut')));
      for (const sides of loops)
        for (const side of sides ?? []) {
          this.go(first(side).from, z, 'cut');
          this.moves.push(...alongChain(side, z, z, this.fed('cut', this.wall)));
        }
      at = z;
      this.go(first(this.run).from, z);
    }
    for (const wall of walls) this.finish(wall, cut.off);
    return true;
  }

  private withEnds(): boolean {
    const { cut } = this;
    const isDone = cut.circling !== null ? this.circled(cut.circling) : this.layered();
    if (!isDone) return false;
    if (cut.rounds === 0) return true;
    const round = roundMiddle(cut.middle, cut.off, cut.isClimb);
    if (!round) return false;
    if (this.isOutside('start') || this.isOutside('end')) {
      this.outTo(this.freeSide, cut.floor);
      const loop = roundFrom(round, this.side);
      for (const z of this.wallLevels()) {
        this.level(z);
        for (let i = 0; i < cut.rounds; i++) {
          this.go(first(loop).from, z);
          this.moves.push(...alongChain(loop, z, z, this.fed('finish', this.wall)));
          this.at = last(loop).to;
        }
      }
      return true;
    }
    const loop = roundFrom(round, this.side);
    const isStraight = cut.middle.path.length === 1 && first(cut.middle.path).kind === 'line';
    // In a straight one every place of the middle is come to straight.
    this.finish(isStraight ? begunOnLongest(loop) : loop, isStraight ? cut.off : cut.off / 2);
    return true;
  }

  /** Along a closed wall, in layers from the top where it is too deep for one. */
  private finish(loop: readonly Segment[], lead: number): void {
    const { cut } = this;
    const from = this.at;
    for (const z of this.wallLevels()) {
      this.level(z);
      const round = roundWall(loop, this.at, z, lead, cut.rounds, {
        ...this.fed('finish'),
        side: this.wall,
      });
      this.moves.push(...round.moves);
      this.at = round.at;
    }
    this.go(from, cut.floor);
  }

  private wallLevels(): number[] {
    const { cut } = this;
    return levelsDown(cut.top, cut.floor, cut.wallLayer);
  }

  /** Up or down to a level where the cutter stands, which it has cleared already. */
  private level(z: number): void {
    const last = this.moves[this.moves.length - 1];
    if (last && last.kind !== 'dwell' && last.to[2] === z) return;
    this.moves.push(lineTo(this.at, z, 'lead'));
  }

  private layered(): boolean {
    const { cut } = this;
    const rings = ringsOut(this.rough, cut.stepover).map((off) => roundMiddle(cut.middle, off, cut.isClimb));
    let from = cut.top + cut.above;
    const isOpen = this.isOutside(this.side);
    if (!isOpen) this.moves.push(lineTo(this.at, from, 'lead'));
    const levels = rings.length > 0 || isOpen ? this.levels : [cut.floor];
    for (const z of levels) {
      if (isOpen) this.openLayer(z);
      else this.rampLayer(from, z);
      for (const ring of rings) {
        if (!ring) return false;
        if (isOpen) this.outTo(this.freeSide, z);
        const loop = roundFrom(ring, this.side);
        this.go(first(loop).from, z, 'cut');
        this.moves.push(...alongChain(loop, z, z, this.fed('cut', this.wall)));
        this.at = last(loop).to;
      }
      from = z;
      // The next layer, and the walls, begin on the middle line again.
      this.go(this.placeOf(this.side), z);
    }
    return true;
  }

  /** Back to the open past an end along what is cut already. */
  private outTo(side: Side, z: number): void {
    if (this.side !== side) {
      this.go(this.placeOf(this.side), z);
      this.moves.push(...alongChain(this.way, z, z, this.fed('lead')));
      this.side = side;
      this.at = this.placeOf(side);
    }
  }

  /** From outside along the middle at one level. */
  private openLayer(z: number): void {
    const before = this.moves.at(-1);
    if (before && before.kind !== 'dwell') this.outTo(this.freeSide, before.to[2]);
    this.moves.push(lineTo(this.at, z, 'lead'), ...alongChain(this.way, z, z, this.fed('cut')));
    this.side = other(this.side);
    this.at = this.placeOf(this.side);
  }

  /** Down a ramp in the metal, or straight down in a hole that was made before. */
  private rampLayer(from: number, z: number): void {
    const { cut } = this;
    if (cut.openTo !== null && this.side === 'start' && from > cut.openTo) {
      const open = Math.max(z, cut.openTo);
      this.moves.push(lineTo(this.at, open, 'plunge'));
      if (open <= z + 1e-6) {
        this.moves.push(...alongChain(this.run, z, z, this.fed('cut')));
        this.side = 'end';
        this.at = this.placeOf('end');
        // The next layer begins at the hole again.
        this.outTo('start', z);
        return;
      }
      from = open;
    }
    const perPass = Math.min(cut.perPass, fallAt(cut.ramp, wayOf(this.run)));
    const down = rampDown(this.way, from, z, perPass, this.fed('ramp'), this.fed('cut'));
    this.moves.push(...down.moves);
    if (!down.isAtStart) this.side = other(this.side);
    this.at = down.at;
  }

  /** In whole circles at full depth, from a ramp down at one end, or from outside. */
  private circled(step: number): boolean {
    const { cut } = this;
    let from = cut.top + cut.above;
    const isOpen = this.isOutside(this.side);
    if (!isOpen) this.moves.push(lineTo(this.at, from, 'lead'));
    for (const [i, z] of levelsDown(cut.top, cut.floor, cut.circleLayer).entries()) {
      if (isOpen) {
        if (i > 0) this.outTo(this.freeSide, from);
        this.moves.push(lineTo(this.at, z, 'lead'));
      } else this.rampLayer(from, z);
      const places = placesAlong(this.way, step);
      // From outside the first circles are in the air; where a ramp has cleared the middle they grow.
      const grown = isOpen ? [] : ringsOut(this.rough, step).slice(0, -1);
      const begun = growCircles(first(places), grown, cut.diameter, z);
      const circles = circleAlong(places, this.rough, cut.diameter, z);
      this.moves.push(...begun, ...circles.moves);
      this.at = circles.at;
      this.side = other(this.side);
      this.go(this.placeOf(this.side), z, 'cut');
      from = z;
    }
    return true;
  }
}
