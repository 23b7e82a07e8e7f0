import { first, last } from '../../lists.ts';
import { chordStep } from '../../geometry/arc.ts';
import { distance2, reversePath, segmentPoint, type Segment, type Vec2 } from '../../geometry/path.ts';
import { alongChain, lineFrom, lineTo, type Fed } from '../../motion/grooves/chain.ts';
import { ringsOut, roundFrom, roundMiddle, runOf, type Middle } from '../../motion/grooves/loops.ts';
import type { Move, Pass } from '../../motion/work.ts';

/** How far a line may lie beside the arc that it stands for, mm. */
const CHORD = 0.004;

/** One level of a cut under a mouth. */
export interface UnderLevel {
  /** Of the cutter's tip. */
  z: number;
  /** How far its centre goes from the middle, mm. */
  off: number;
  feed: 'cut' | 'finish';
  rounds: number;
}

/** How a cutter that is wider than the mouth clears what lies under it. Program coordinates, mm. */
export interface UnderCut {
  middle: Middle;
  /** It comes and goes at its start, else at its end. */
  isFromStart: boolean;
  diameter: number;
  r: number;
  levels: readonly UnderLevel[];
  /** From one way along to the next. */
  stepover: number;
  isClimb: boolean;
}

/**
 * Level by level: along the middle, then ever wider round it, in and out past an open end at one level. Up and down is outside alone, and
 * round a closed end it goes in lines. Null where the middle has no such parallels.
 */
export function underPass(cut: UnderCut): Pass | null {
  const run = runOf(cut.middle);
  const way = cut.isFromStart ? run : reversePath(run);
  const outside = first(way).from;
  const side = cut.isFromStart ? 'start' : 'end';
  const fed = (feed: Fed['feed'], wall: Fed['side']): Fed => ({ feed, cutter: cut.diameter, side: wall });
  const wall = cut.isClimb ? 'right' : 'left';
  const moves: Move[] = [];
  let at: Vec2 = outside;
  for (const { z, off, feed, rounds } of cut.levels) {
    moves.push(...lineFrom(at, outside, lastZ(moves) ?? cut.r, 'lead'), lineTo(outside, z, 'lead'));
    moves.push(...alongChain(way, z, z, fed(feed, 'both')));
    // Back along the way it came; past an end that is open too it needs no more than to leave.
    moves.push(...alongChain(reversePath(way), z, z, fed('lead', 'both')));
    at = outside;
    const rings = ringsOut(off, cut.stepover);
    const all = [...rings, ...Array.from({ length: rounds - 1 }, () => off)];
    for (const ring of off > 1e-6 ? all : []) {
      const round = roundMiddle(cut.middle, ring, cut.isClimb);
      if (!round) return null;
      const loop = roundFrom(round, side).slice(0, -1).flatMap(straight);
      moves.push(...lineFrom(at, first(loop).from, z, 'lead'), ...alongChain(loop, z, z, fed(feed, wall)));
      at = last(loop).to;
    }
  }
  return { start: [outside[0], outside[1], cut.r], moves };
}

function lastZ(moves: readonly Move[]): number | null {
  const m = moves.at(-1);
  return m && m.kind !== 'dwell' ? m.to[2] : null;
}

/** An arc as lines within a few thousandths: under a mouth nothing goes on arcs. */
function straight(s: Segment): Segment[] {
  if (s.kind === 'line') return distance2(s.from, s.to) < 1e-9 ? [] : [s];
  const n = Math.max(1, Math.ceil(Math.abs(s.turn) / chordStep(s.radius, CHORD)));
  return Array.from({ length: n }, (_, i) => ({
    kind: 'line',
    from: i === 0 ? s.from : segmentPoint(s, i / n),
    to: i === n - 1 ? s.to : segmentPoint(s, (i + 1) / n),
  }));
}
