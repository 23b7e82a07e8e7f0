import type { Vec3 } from '../geometry/vec.ts';
import type { ThreadSide } from '../threads/shape.ts';
import type { FeedRole, Move } from './work.ts';

/** How a cutter comes from the axis to the wall and back: by half a circle, or straight aside and by a quarter. */
export const THREAD_LEADS = ['half circle', 'quarter circle'] as const;
export type ThreadLead = (typeof THREAD_LEADS)[number];

type Point = readonly [number, number];

/** A thread, cut by a cutter that goes round its axis and along it in step. Program coordinates, mm. */
export interface ThreadHelix {
  x: number;
  y: number;
  side: ThreadSide;
  /** Of the centre's path on the wall, at its lower end. */
  radius: number;
  /** By how much that radius grows with each mm up: 0 for a straight thread. */
  cone: number;
  /** Way along the axis in one turn: pitch × starts. */
  lead: number;
  hand: 'right' | 'left';
  /** Seen from above. */
  clockwise: boolean;
  /** Where the tool's tip stands at the lower end of its whole turns, and how many these are. */
  low: number;
  turns: number;
  /** Where on the wall the turns are at their lower end, radians from X. */
  angle: number;
  leads: ThreadLead;
  /** Outside: how far from the wall's path the cutter begins and ends. */
  aside: number;
  /** The cutter's radius, where the control is told the wall and works the way out itself; null where the way is computed. */
  byControl: number | null;
}

/** Whether the cutter goes up while it cuts: right hand counter-clockwise, left hand clockwise (handbook, Thread milling). */
export const goesUp = ({ hand, clockwise }: Pick<ThreadHelix, 'hand' | 'clockwise'>): boolean =>
  (hand === 'right') !== clockwise;

/** Climb cutting goes counter-clockwise inside and clockwise outside, for either hand (handbook, Thread milling). */
export const isClockwise = (side: ThreadSide, cut: 'climb' | 'conventional'): boolean =>
  (side === 'outside') === (cut === 'climb');

/** Share of a turn that a way in or out takes along the axis inside: half a circle half the lead, a quarter a quarter. */
export const leadShare = (leads: ThreadLead): number => (leads === 'half circle' ? 0.5 : 0.25);

/** Length of the straight way before a quarter outside, mm: longer than the radius that the control takes up on it. */
export const straightBefore = (aside: number, byControl: number | null): number =>
  Math.max(aside, (byControl ?? 0) + 1);

/** Pieces of one turn of a tapered thread: an eighth each (handbook, Thread milling). */
const PIECES = 8;

const turned = ([ux, uy]: Point, by: number): Point => {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return [c * ux - s * uy, s * ux + c * uy];
};

/**
 * Centre of the arc between two places of a spiral, seen from its axis: equally far from both, and as near to the axis as that can be. It
 * stays within a few thousandths of the spiral over an eighth of a turn.
 */
function arcCentre(from: Point, to: Point): Point {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy);
  const [ux, uy] = [dx / length, dy / length];
  const along = ((from[0] + to[0]) / 2) * ux + ((from[1] + to[1]) / 2) * uy;
  return [along * ux, along * uy];
}

/** A place or an arc's end in the plane, seen from the thread's axis. */
interface Arc {
  to: Point;
  centre: Point;
}

/**
 * One pass round a thread: to the wall by an arc tangent to it, whole turns in step with the lead, and back by another arc. Inside it begins
 * and ends on the axis, outside beside the wall. The ways in and out go along with the helix, so that Z never jumps. `feeds`: of the way in,
 * and of the turns.
 */
export function threadMoves(h: ThreadHelix, feeds: { in: FeedRole; turns: FeedRole; share: number }): Move[] {
  const path = new ThreadPath(h);
  const { begin, first, last, end } = path.levels;
  const { share } = feeds;
  const arc = (
    z: number,
    feed: FeedRole,
    clockwise: boolean,
    turns: number,
    of: (grown: number) => Arc,
  ): Move => {
    const { to, centre } = path.placed(of(0));
    return {
      kind: 'arc',
      to: [to[0], to[1], z],
      centre,
      clockwise,
      turns,
      feed,
      share,
      ...(h.byControl === null ? {} : { wall: path.placed(of(h.byControl)) }),
    };
  };
  const line = (at: Point, z: number, wall?: Point): Move => {
    const [x, y] = path.place(at);
    return { kind: 'line', to: [x, y, z], feed: 'lead', ...(wall ? { wall: { to: path.place(wall) } } : {}) };
  };
  const isHalf = h.leads === 'half circle';
  const leads = h.side === 'inside' ? h.clockwise : !h.clockwise;
  const pieces = h.cone === 0 ? 1 : PIECES * h.turns;
  const quarter = (before: boolean): Point => path.leadEnd(before);
  return [
    line(path.beside(true), begin),
    ...(isHalf
      ? []
      : [line(quarter(true), begin, h.byControl === null ? undefined : path.leadEnd(true, h.byControl))]),
    arc(first, feeds.in, leads, 0, (grown) => path.leadIn(grown)),
    ...Array.from({ length: pieces }, (_, k) =>
      arc(
        first + ((last - first) * (k + 1)) / pieces,
        feeds.turns,
        h.clockwise,
        h.cone === 0 ? h.turns : 0,
        (grown) => path.piece(k, pieces, grown),
      ),
    ),
    arc(end, feeds.turns, leads, 0, (grown) => path.leadOut(grown)),
    ...(isHalf ? [] : [line(path.beside(false), end)]),
  ];
}

/** Where a pass begins, in the air: on the axis inside, beside the wall outside. */
export function threadStart(h: ThreadHelix): Vec3 {
  const path = new ThreadPath(h);
  const [x, y] = path.place(path.beside(true));
  return [x, y, path.levels.begin];
}

/**
 * The places of a pass, seen from the thread's axis. `grown`: what the control is told is by so much nearer to the metal than the centre's
 * way; 0: the centre's way itself.
 */
class ThreadPath {
  readonly levels: { begin: number; first: number; last: number; end: number };
  /** +1 counter-clockwise. */
  private readonly sense: 1 | -1;
  /** +1 inside, where the metal lies outward. */
  private readonly out: 1 | -1;
  private readonly u: Point;
  /** Centre's path on the wall, where the turns begin and end. */
  private readonly radii: readonly [begin: number, end: number];

  constructor(private readonly h: ThreadHelix) {
    this.sense = h.clockwise ? -1 : 1;
    this.out = h.side === 'inside' ? 1 : -1;
    this.u = [Math.cos(h.angle), Math.sin(h.angle)];
    const up = goesUp(h) ? 1 : -1;
    const top = h.low + h.turns * h.lead;
    const [first, last] = up > 0 ? [h.low, top] : [top, h.low];
    const radiusAt = (z: number): number => h.radius + h.cone * (z - h.low);
    this.radii = [radiusAt(first), radiusAt(last)];
    this.levels = {
      begin: first - up * this.rise(this.radii[0]),
      first,
      last,
      end: last + up * this.rise(this.radii[1]),
    };
  }

  place([px, py]: Point): Point {
    return [this.h.x + px, this.h.y + py];
  }

  placed({ to, centre }: Arc): Arc {
    return { to: this.place(to), centre: this.place(centre) };
  }

  private radius(before: boolean): number {
    return this.radii[before ? 0 : 1];
  }

  /** Radius of the arc that leads to the wall and back, and how far from the axis its centre lies. */
  private leadArc(radius: number): { r: number; middle: number } {
    const { side, aside } = this.h;
    return side === 'inside'
      ? { r: radius / 2, middle: radius / 2 }
      : { r: aside / 2, middle: radius + aside / 2 };
  }

  /** How far along the axis a way in or out goes: inside as the handbook says, outside with the slope of the helix. */
  private rise(radius: number): number {
    const { lead, leads, side } = this.h;
    return lead * leadShare(leads) * (side === 'inside' ? 1 : this.leadArc(radius).r / radius);
  }

  /** The far end of a way in (`before`) or out: half a circle from the wall, or a quarter. */
  leadEnd(before: boolean, grown = 0): Point {
    const { r, middle } = this.leadArc(this.radius(before));
    const [ux, uy] = this.u;
    // From the arc's centre to the wall, then back along the arc; outside it turns the other way round than the thread.
    const back = (before ? -1 : 1) * this.sense * this.out * leadShare(this.h.leads) * 2 * Math.PI;
    const [bx, by] = turned([this.out * ux, this.out * uy], back);
    return [middle * ux + (r + grown) * bx, middle * uy + (r + grown) * by];
  }

  /** Where it begins and ends. Outside a straight way goes before a quarter: on it the control takes the cutter's radius up. */
  beside(before: boolean): Point {
    const { side, leads, aside, byControl } = this.h;
    const end = this.leadEnd(before);
    if (leads === 'half circle') return end;
    if (side === 'inside') return [0, 0];
    const more = straightBefore(aside, byControl);
    return [end[0] + more * this.u[0], end[1] + more * this.u[1]];
  }

  private onU(length: number): Point {
    return [length * this.u[0], length * this.u[1]];
  }

  leadIn(grown: number): Arc {
    const { r, middle } = this.leadArc(this.radii[0]);
    return { to: this.onU(middle + this.out * (r + grown)), centre: this.onU(middle) };
  }

  leadOut(grown: number): Arc {
    return { to: this.leadEnd(false, grown), centre: this.onU(this.leadArc(this.radii[1]).middle) };
  }

  /** A piece of the turns on the wall; its ends lie on the true spiral. */
  piece(k: number, pieces: number, grown: number): Arc {
    const [from, to] = [this.onWall(k / pieces, grown), this.onWall((k + 1) / pieces, grown)];
    return { to, centre: this.h.cone === 0 ? [0, 0] : arcCentre(from, to) };
  }

  private onWall(share: number, grown: number): Point {
    const [begin, end] = this.radii;
    const radius = begin + (end - begin) * share + this.out * grown;
    // Whole turns of a straight thread end exactly where they begin.
    const on = this.h.cone === 0 ? 0 : this.sense * 2 * Math.PI * this.h.turns * share;
    const [ux, uy] = turned(this.u, on);
    return [radius * ux, radius * uy];
  }
}

/**
 * Radii of the centre's path, pass by pass, from where the cutter touches the wall to full depth: as much metal in each, so that the depth of
 * pass i of m goes with √(i/m) (handbook, Thread milling).
 */
export const passRadii = (touching: number, full: number, passes: number): number[] =>
  Array.from({ length: passes }, (_, i) => touching + (full - touching) * Math.sqrt((i + 1) / passes));

/**
 * How a cutter of so many rows goes along a thread: the lower ends of its bands, above the lowest, and the whole turns of each. One row takes
 * as many turns as the thread is long; many rows one turn in each band, whole pitches apart. `length`: from the lowest groove to where the
 * thread must have run out above.
 */
export function threadBands(
  length: number,
  pitch: number,
  lead: number,
  rows: number,
): { offsets: number[]; turns: number } {
  if (rows === 1) return { offsets: [0], turns: Math.max(1, Math.ceil(length / lead - 1e-9)) };
  const height = rows * pitch;
  // Rows reach (rows − 1) pitches up, and a turn one lead more.
  const bands = Math.max(1, Math.ceil((length + pitch - lead) / height - 1e-9));
  return { offsets: Array.from({ length: bands }, (_, i) => i * height), turns: 1 };
}
