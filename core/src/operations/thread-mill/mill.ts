import { insideShare, outsideShare } from '../../motion/circles.ts';
import {
  goesUp,
  leadShare,
  passRadii,
  threadBands,
  threadMoves,
  threadStart,
  type ThreadHelix,
  type ThreadLead,
} from '../../motion/thread-helix.ts';
import type { Pass } from '../../motion/work.ts';
import { PIPE_TAPER, threadSizes, type ThreadSide, type ThreadSizes } from '../../threads/shape.ts';
import { leadOf, startsOf, type Thread } from '../../threads/thread.ts';
import { firstTooth } from '../../tools/kinds/thread-mill.ts';
import type { Tool } from '../../tools/schema.ts';

/** How a thread is cut, and by what. Lengths in mm. */
export interface Mill {
  thread: Thread;
  side: ThreadSide;
  tool: Tool;
  /** By how much its diameters are to be wider than the standard's, for the gauge. */
  fit: number;
  /** Diameter that stands before: of the open hole, or of the boss. */
  before: number;
  passes: number;
  spring: number;
  clockwise: boolean;
  leads: ThreadLead;
  /** Outside: how far beside the wall's path it begins. */
  aside: number;
  /** The control compensates for the cutter's radius. */
  byControl: boolean;
  /** Where full thread begins, degrees from X counter-clockwise seen from above; null: anywhere. */
  startAngle: number | null;
}

/** Where a thread is cut: its axis, Z where it begins, and how far below that it is to be full, mm. */
export interface MillPlace {
  x: number;
  y: number;
  startZ: number;
  full: number;
  /** Level at which the tool may cross over it. */
  r: number;
}

const isTapered = ({ thread }: Pick<Mill, 'thread'>): boolean => thread.form === 'pipe-tapered';

/** Diameter of the lowest tooth: of a tapered cutter wider than its tip. */
export const toothDiameter = (t: Tool): number =>
  t.diameter + (t.threadForm?.tapered ? firstTooth(t) * PIPE_TAPER : 0);

/** Sizes that are cut at a depth below the thread's start: the standard's, as much wider as the gauge asks for. */
export function cutSizes(
  { thread, side, fit }: Pick<Mill, 'thread' | 'side' | 'fit'>,
  below = 0,
): ThreadSizes {
  const { major, pitch, minor } = threadSizes(thread, side, below);
  return { major: major + fit, pitch: pitch + fit, minor: minor + fit };
}

/** Radius of the centre's path at full depth: (D − d)/2 inside, (D1 + d)/2 outside (handbook, Thread milling). */
export function wallRadius(m: Pick<Mill, 'thread' | 'side' | 'fit' | 'tool'>, below = 0): number {
  const { major, minor } = cutSizes(m, below);
  const d = toothDiameter(m.tool);
  return m.side === 'inside' ? (major - d) / 2 : (minor + d) / 2;
}

/** How far below its lowest groove a cutter's tip goes: half a tooth, and what the way in or out takes along the axis. */
export function underGroove(m: Pick<Mill, 'thread' | 'side' | 'fit' | 'tool' | 'leads' | 'aside'>): number {
  const share = m.side === 'inside' ? 1 : m.aside / 2 / wallRadius(m);
  return firstTooth(m.tool) + leadOf(m.thread) * leadShare(m.leads) * share;
}

/** Bands from the lowest groove to half a pitch beyond where the thread begins. */
const bandsOf = (
  { thread, tool }: Pick<Mill, 'thread' | 'tool'>,
  full: number,
): ReturnType<typeof threadBands> =>
  threadBands(full + thread.pitch / 2, thread.pitch, leadOf(thread), tool.threadForm?.rows ?? 1);

/** How often and which way it goes round, in words. */
export function turnsInWords(m: Mill, full: number): string {
  const { offsets, turns } = bandsOf(m, full);
  const way = goesUp({ hand: m.thread.hand, clockwise: m.clockwise }) ? 'up' : 'down';
  const starts = startsOf(m.thread);
  return `${starts > 1 ? `${starts} starts of ` : ''}${offsets.length > 1 ? `${offsets.length} bands of ` : ''}${turns} ${way}`;
}

/** Angle at which full thread begins, degrees from its lowest groove on: a right hand turns on as it goes up. */
export function angleAtStart({ thread }: Pick<Mill, 'thread'>, full: number): number {
  const on = ((thread.hand === 'right' ? 1 : -1) * 360 * full) / leadOf(thread);
  return ((on % 360) + 360) % 360;
}

/**
 * The whole way at one place: from what stands to full depth, then the spring passes; each start begins at k·360/n at the same Z (handbook,
 * Thread milling). Inside it is all one pass, on the axis between the turns; outside the tool crosses above the thread.
 */
export function millPasses(m: Mill, place: MillPlace): Pass[] {
  const { tool, thread, side } = m;
  const low = place.startZ - place.full - firstTooth(tool);
  const wall = wallRadius(m, place.full);
  const stock = Math.max(0, side === 'inside' ? wallRadius(m) - touching(m) : touching(m) - wallRadius(m));
  const inward = side === 'inside' ? 1 : -1;
  const offsets = passRadii(stock, 0, m.passes).map((o) => -inward * o);
  const bands = bandsOf(m, place.full);
  // Inside the radius grows upward, outside it falls, and the cutter's own taper is the same.
  const cone = isTapered(m) ? (inward * PIPE_TAPER) / 2 : 0;
  const begin = m.startAngle === null ? 0 : m.startAngle - angleAtStart(m, place.full);
  const passes: Pass[] = [];
  for (const [n, offset] of [...offsets, ...Array.from({ length: m.spring }, () => 0)].entries())
    for (let k = 0; k < startsOf(thread); k++)
      for (const up of bands.offsets) {
        const helix: ThreadHelix = {
          x: place.x,
          y: place.y,
          side,
          radius: wall + offset + cone * up,
          cone,
          lead: leadOf(thread),
          hand: thread.hand,
          clockwise: m.clockwise,
          low: low + up,
          turns: bands.turns,
          angle: ((begin + (360 * k) / startsOf(thread)) * Math.PI) / 180,
          leads: m.leads,
          aside: m.aside,
          byControl: m.byControl ? tool.diameter / 2 : null,
        };
        const work = 2 * helix.radius + inward * tool.diameter;
        const moves = threadMoves(helix, {
          in: 'ramp',
          turns: n < m.passes ? 'thread' : 'finish',
          share: (side === 'inside' ? insideShare : outsideShare)(work, tool.diameter),
        });
        const [x, y] = threadStart(helix);
        passes.push({
          start: [x, y, place.r],
          moves,
          ...(m.byControl ? { control: m.clockwise === (side === 'inside') ? 'right' : 'left' } : {}),
        });
      }
  return side === 'inside' ? joined(passes) : passes;
}

/** Radius of the centre's path where the cutter just touches what stands. */
const touching = ({ side, before, tool }: Mill): number =>
  (before - (side === 'inside' ? 1 : -1) * toothDiameter(tool)) / 2;

/** On the axis nothing lies between the turns: they need no lift. */
function joined(passes: readonly Pass[]): Pass[] {
  const [first] = passes;
  return first ? [{ ...first, moves: passes.flatMap((p) => p.moves) }] : [];
}
