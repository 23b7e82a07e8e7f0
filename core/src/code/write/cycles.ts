import type { MotionWork } from '../../motion/program.ts';
import type { CycleHow, HoleCycle } from '../../motion/work.ts';
import { cycleWord } from '../cycles.ts';
import type { Words } from './words.ts';

/** A block of code, and the label of what it makes. */
export interface MadeBlock {
  text: string;
  label: string;
}

/** What the cycle lines of an operation have in common. */
export interface CycleFeed {
  /** mm/min. */
  feed: number;
  /** Written with all its decimals: a tap's feed is pitch × speed. */
  exact: boolean;
}

export type CycleWork = MotionWork & { motion: HoleCycle };

/** Writes holes one after the other as canned cycles: words are written where they change, the cycle is ended after the last. */
export function cycleBlocks(
  works: readonly CycleWork[],
  { feed, exact }: CycleFeed,
  words: Words,
): MadeBlock[] {
  const out: MadeBlock[] = [];
  let [cycle, r, z, lift, f] = ['', '', '', null as boolean | null, ''];
  for (const w of works) {
    const { how } = w.motion;
    const nextCycle = [cycleWord(how), ...cycleWords(how, words)].join(' ');
    for (const piece of piecesOf(w)) {
      const [nextR, nextZ] = [words.coordinate(piece.r), words.coordinate(piece.z)];
      const nextFeed = `F${words.feed(feed * piece.share, exact)}`;
      const isNew = nextCycle !== cycle;
      const parts: string[] = [];
      if (piece.lift !== lift) parts.push(piece.lift ? 'G98' : 'G99');
      if (isNew) parts.push(cycleWord(how));
      parts.push(`X${words.coordinate(w.x)} Y${words.coordinate(w.y)}`);
      if (isNew || nextZ !== z || nextR !== r) parts.push(`Z${nextZ} R${nextR}`);
      if (isNew) parts.push(...cycleWords(how, words));
      if (isNew || nextFeed !== f) parts.push(nextFeed);
      [cycle, r, z, lift, f] = [nextCycle, nextR, nextZ, piece.lift, nextFeed];
      out.push({ text: parts.join(' '), label: w.label });
    }
  }
  return out;
}

/** P and Q of a cycle. */
function cycleWords(how: CycleHow, words: Words): string[] {
  if ('peck' in how && how.peck !== undefined) return [`Q${words.coordinate(how.peck)}`];
  if ('shift' in how) return [`Q${words.coordinate(how.shift)}`];
  return 'seconds' in how && how.seconds !== undefined ? [words.dwell(how.seconds)] : [];
}

/** How far above what is drilled already the next stretch begins to feed, mm. */
const INTO_HOLE = 0.5;

export interface Piece {
  r: number;
  z: number;
  lift: boolean;
  /** Share of the operation's feed. */
  share: number;
}

/**
 * A hole's cycle lines. One feed holds for a whole cycle, so a hole with stretches fed at half is drilled in as many lines; each begins
 * just above what the one before left, and the tool comes all the way out between. A full-retract cycle keeps its R: chips must get out.
 */
export function piecesOf(w: CycleWork): Piece[] {
  const { slow, how } = w.motion;
  if (!slow || slow.length === 0) return [{ r: w.r, z: w.z, lift: w.lift, share: 1 }];
  const out: Piece[] = [];
  let from = w.r;
  const add = (z: number, share: number): void => {
    const r = out.length === 0 || how.how === 'full-retract' ? w.r : from + INTO_HOLE;
    if (z < from - 0.05) out.push({ r, z, lift: true, share });
    from = Math.min(from, z);
  };
  for (const s of slow) {
    add(Math.max(s.from, w.z), 1);
    add(Math.max(s.to, w.z), 0.5);
  }
  add(w.z, 1);
  const last = out.at(-1);
  if (last) last.lift = w.lift;
  return out;
}
