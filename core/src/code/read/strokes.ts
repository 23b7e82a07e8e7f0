import { at, first } from '../../lists.ts';
import type { CycleName } from '../../motion/work.ts';
import type { Coordinate, CycleCall, Motion } from './motion.ts';

/** What holds from a motion on that motions do not carry themselves. */
export interface Standing {
  /** How many motions there were before. */
  motions: number;
  spindle: CycleCall['spindle'];
  coolant: boolean;
  workOffset: string | null;
  feedPerTurn: boolean;
}

/** Heights nearer than this are one, mm. */
const SAME = 1e-6;
/** Farthest that a bored wall is shifted off before the tool comes out, mm. */
const MOST_SHIFT = 5;

/** A hole made along its axis by straight moves: what of the motions it is, and what it does. */
interface Stroke {
  from: number;
  to: number;
  how: CycleName;
  hand?: 'right' | 'left';
  q?: number;
  seconds?: number;
  z: number;
  /** The motion that goes deepest. */
  deepest: number;
}

/**
 * Holes that are written out: fed straight down from where the tool stood, and out again at the same place, in one go or in pecks. They are
 * judged as the cycle that does the same, so their motions get its `how`. What moves aside below its start is milled and no stroke.
 */
export function strokes(
  motions: Motion[],
  standing: readonly Standing[],
  makesHoles: (tool: number) => boolean,
): CycleCall[] {
  const out: CycleCall[] = [];
  const stands = new StandingAt(standing);
  for (let i = 0; i < motions.length; i++) {
    if (!isDown(at(motions, i)) || !makesHoles(at(motions, i).tool)) continue;
    const before = motions[i - 1];
    if (before && before.kind !== 'rapid' && before.tool === at(motions, i).tool) continue;
    const stroke = strokeAt(motions, i, stands);
    if (!stroke) continue;
    // The way down to where feeding starts is the stroke's own, as it is a cycle's.
    const start = before && isFromAbove(before) ? i - 1 : i;
    out.push(callOf(motions, stroke, stands, start));
    for (let k = start; k <= stroke.to; k++) at(motions, k).how = stroke.how;
    i = stroke.to;
  }
  return out;
}

/** The state at a motion; asked for in growing order mostly, and near the last answer always. */
class StandingAt {
  private i = 0;
  constructor(private readonly list: readonly Standing[]) {}

  of(motion: number): Standing {
    while (this.i > 0 && at(this.list, this.i).motions > motion) this.i--;
    while (this.i + 1 < this.list.length && at(this.list, this.i + 1).motions <= motion) this.i++;
    return at(this.list, this.i);
  }
}

const isKnown = (p: readonly Coordinate[]): p is readonly [number, number, number] =>
  p.every((v) => v !== null);
const isUpright = (m: Motion): boolean => m.from[0] === m.to[0] && m.from[1] === m.to[1];
/** Fed straight down, outside a cycle. */
const isDown = (m: Motion): boolean =>
  m.kind === 'feed' &&
  m.how === undefined &&
  !m.compensation &&
  isKnown(m.from) &&
  isKnown(m.to) &&
  isUpright(m) &&
  m.to[2] < m.from[2] - SAME;

function strokeAt(motions: readonly Motion[], from: number, stands: StandingAt): Stroke | null {
  const begin = at(motions, from);
  const r = begin.from[2] ?? 0;
  const turned = stands.of(from).spindle;
  const s: Stroke = { from, to: from, how: 'straight', z: r, deepest: from };
  const pecks: number[] = [];
  // How it came out each time: all the way, or a little.
  const outs = { whole: 0, short: 0, fed: 0, turnedBack: 0, still: 0, shifted: 0 };
  for (let i = from; i < motions.length; i++) {
    const m = at(motions, i);
    if (m.tool !== begin.tool || m.how !== undefined) return null;
    if (m.kind === 'dwell') {
      s.seconds = Math.max(s.seconds ?? 0, m.seconds ?? 0);
      continue;
    }
    const z = m.to[2] ?? Infinity;
    if (!isUpright(m)) {
      // Off the wall of a bored hole with the spindle stopped, and no farther.
      if (m.kind !== 'rapid' || !isShift(m) || stands.of(i).spindle !== 'off') return null;
      outs.shifted++;
      continue;
    }
    if (z < (m.from[2] ?? Infinity)) {
      if (m.kind !== 'feed') continue;
      if (z < s.z - SAME) {
        pecks.push(s.z - z);
        [s.z, s.deepest] = [z, i];
      }
      continue;
    }
    const { spindle } = stands.of(i);
    if (m.kind === 'feed') outs.fed++;
    if (spindle === 'off') outs.still++;
    else if (spindle !== turned) outs.turnedBack++;
    if (z < r - SAME) {
      outs.short++;
      continue;
    }
    outs.whole++;
    s.to = i;
    if (!goesBackIn(motions, i, r)) return named(s, pecks, outs, turned);
  }
  return outs.whole > 0 ? named(s, pecks, outs, turned) : null;
}

const isShift = (m: Motion): boolean =>
  isKnown(m.from) &&
  isKnown(m.to) &&
  m.from[2] === m.to[2] &&
  Math.hypot(m.to[0] - m.from[0], m.to[1] - m.from[1]) <= MOST_SHIFT;

/** Whether the tool, out at R, goes on in the same hole: what rises higher has ended it. */
function goesBackIn(motions: readonly Motion[], i: number, r: number): boolean {
  const [m, next] = [at(motions, i), motions[i + 1]];
  if (!next || (m.to[2] ?? Infinity) > r + SAME || next.tool !== m.tool) return false;
  return isUpright(next) && (next.kind === 'rapid' || next.kind === 'feed') && (next.to[2] ?? Infinity) < r;
}

function named(
  s: Stroke,
  pecks: readonly number[],
  outs: { whole: number; short: number; fed: number; turnedBack: number; still: number; shifted: number },
  turned: CycleCall['spindle'],
): Stroke {
  if (outs.fed > 0 && outs.turnedBack > 0 && outs.short === 0) {
    s.how = 'tap';
    s.hand = turned === 'counter-clockwise' ? 'left' : 'right';
  } else if (outs.shifted > 0) s.how = 'shift-out';
  else if (pecks.length > 1) s.how = outs.short > 0 ? 'chip-break' : 'full-retract';
  else if (outs.fed > 0) s.how = 'feed-out';
  else if (outs.still > 0) s.how = 'stop-out';
  else if (s.seconds !== undefined) s.how = 'dwell';
  if (pecks.length > 1) s.q = Math.max(...pecks);
  return s;
}

const isFromAbove = (m: Motion): boolean =>
  m.kind === 'rapid' &&
  isUpright(m) &&
  m.how === undefined &&
  (m.from[2] ?? -Infinity) > (m.to[2] ?? Infinity);

function callOf(motions: readonly Motion[], s: Stroke, stands: StandingAt, start: number): CycleCall {
  const own = motions.slice(s.from, s.to + 1);
  const deepest = at(motions, s.deepest);
  const begin = first(own);
  const { spindle, coolant, workOffset, feedPerTurn } = stands.of(s.from);
  return {
    line: deepest.line,
    ...(deepest.caller === undefined ? {} : { caller: deepest.caller }),
    lines: [at(motions, start).line, at(own, own.length - 1).line],
    cycle: 'G1',
    how: s.how,
    ...(s.hand ? { hand: s.hand } : {}),
    tool: begin.tool,
    x: begin.from[0] ?? 0,
    y: begin.from[1] ?? 0,
    r: begin.from[2] ?? 0,
    z: s.z,
    initial: at(motions, start).from[2] ?? 0,
    q: s.q,
    dwellSeconds: s.seconds,
    feed: begin.feed,
    feedPerTurn,
    speed: begin.speed,
    spindle,
    coolant,
    workOffset,
    rises: false,
  };
}
