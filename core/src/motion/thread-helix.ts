import type { Vec3 } from '../geometry/vec.ts';
import type { FeedRole, Move } from './work.ts';

/** How a cutter comes from the axis to the wall and back: by half a circle, or straight aside and by a quarter. */
export const THREAD_LEADS = ['half circle', 'quarter circle'] as const;
export type ThreadLead = (typeof THREAD_LEADS)[number];

/** A thread inside, cut by a cutter that goes round its axis and along it in step. Program coordinates, mm. */
export interface ThreadHelix {
  x: number;
  y: number;
  /** Of the centre's path on the wall. */
  radius: number;
  /** Way along the axis in one turn: pitch × starts. */
  lead: number;
  hand: 'right' | 'left';
  /** Seen from above. */
  clockwise: boolean;
  /** Where the tool's tip stands at the lower end of its whole turns, and how many these are. */
  low: number;
  turns: number;
  /** Where on the wall the turns begin and end, radians from X. */
  angle: number;
  leads: ThreadLead;
}

/** Whether the cutter goes up while it cuts: right hand counter-clockwise, left hand clockwise (handbook, Thread milling). */
export const goesUp = ({ hand, clockwise }: Pick<ThreadHelix, 'hand' | 'clockwise'>): boolean =>
  (hand === 'right') !== clockwise;

/** Share of a turn that a way in or out takes along the axis: half a circle half the lead, a quarter a quarter. */
export const leadShare = (leads: ThreadLead): number => (leads === 'half circle' ? 0.5 : 0.25);

/**
 * One pass round a thread: from the axis to the wall by an arc tangent to it, whole turns in step with the lead, and back to the axis by
 * another arc. The ways in and out go along with the helix, so that Z never jumps. It begins anywhere on the axis. `feeds`: of the way in, and
 * of the turns.
 */
export function threadMoves(h: ThreadHelix, feeds: { in: FeedRole; turns: FeedRole; share: number }): Move[] {
  const { x, y, radius, lead, turns, clockwise } = h;
  const up = goesUp(h) ? 1 : -1;
  const along = up * lead * leadShare(h.leads);
  const first = up > 0 ? h.low : h.low + turns * lead;
  const last = first + up * turns * lead;
  const [ux, uy] = [Math.cos(h.angle), Math.sin(h.angle)];
  // The way it goes at the wall.
  const [tx, ty] = clockwise ? [uy, -ux] : [-uy, ux];
  const centre = [x + (radius / 2) * ux, y + (radius / 2) * uy] as const;
  const wall = (z: number): Vec3 => [x + radius * ux, y + radius * uy, z];
  const arc = (to: Vec3, middle: readonly [number, number], feed: FeedRole, whole = 0): Move => ({
    kind: 'arc',
    to,
    centre: middle,
    clockwise,
    turns: whole,
    feed,
    share: feeds.share,
  });
  const isHalf = h.leads === 'half circle';
  // A quarter begins and ends beside the axis, where the hole is open.
  const beside = (side: number, z: number): Vec3 => [
    centre[0] + (side * radius * tx) / 2,
    centre[1] + (side * radius * ty) / 2,
    z,
  ];
  const axis = (z: number): Vec3 => [x, y, z];
  const begin = first - along;
  const end = last + along;
  return [
    { kind: 'line', to: axis(begin), feed: 'lead' },
    ...(isHalf ? [] : [{ kind: 'line', to: beside(-1, begin), feed: 'lead' } as const]),
    arc(wall(first), centre, feeds.in),
    arc(wall(last), [x, y], feeds.turns, turns),
    arc(isHalf ? axis(end) : beside(1, end), centre, feeds.turns),
    ...(isHalf ? [] : [{ kind: 'line', to: axis(end), feed: 'lead' } as const]),
  ];
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
