import { reversePath, segmentLength, type Segment, type Vec2 } from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../grooves/chain.ts';
import { overlapOf } from '../grooves/loops.ts';
import { quarter } from '../grooves/walls.ts';
import type { Move, Pass } from '../work.ts';

/** How a cutter comes onto an edge or leaves it: by a quarter circle of a radius, straight from past its end, or down along it. */
export type Lead = { kind: 'arc'; radius: number } | { kind: 'past' } | { kind: 'along' };

/** Gone over twice where a closed edge joins, mm. */
const OVERLAP = 1;
/** The way down along an edge where there is no room beside it: so many times as long as it is deep, and at least so long, mm. */
const SLANT = 10;
const LEAST_SLANT = 2;

/** One way along an edge: program coordinates, mm. */
export interface EdgeRun {
  /** The way of the cutter's axis. A closed one begins where it is to begin. */
  way: readonly Segment[];
  closed: boolean;
  z: number;
  /** Just above the edge: from here on it comes down slowly. */
  above: number;
  r: number;
  on: Lead;
  off: Lead;
  fed: Fed & { side: 'left' | 'right' };
}

/** Where a lead begins, or ends. */
export function leadPlace(
  way: readonly Segment[],
  end: 'from' | 'to',
  lead: Lead,
  side: 'left' | 'right',
): Vec2 {
  const s = end === 'from' ? first(way) : last(way);
  return lead.kind === 'arc' ? quarter(s, end, lead.radius, side).outer : s[end];
}

/** Once along an edge, with its leads; of a closed one a little farther than round. */
export function alongEdge(run: EdgeRun): Pass {
  const { way, closed, z, above, r, on, off, fed } = run;
  const over = closed ? overlapOf(way, OVERLAP + (on.kind === 'along' ? slantOf(run) : 0)) : [];
  const whole = [...way, ...over];
  const start = leadPlace(way, 'from', on, fed.side);
  const moves: Move[] = [];
  let begin = start;
  if (on.kind === 'along') {
    const slant = overlapOf(way, slantOf(run));
    if (closed) {
      moves.push(lineTo(start, above, 'lead'), ...alongChain(slant, above, z, { ...fed, feed: 'ramp' }));
      moves.push(...alongChain(rest(way, slant), z, z, fed), ...alongChain(over, z, z, fed));
    } else {
      // Against its way down to its start, and from there along it.
      begin = last(slant).to;
      moves.push(lineTo(begin, above, 'lead'));
      moves.push(...alongChain(reversePath(slant), above, z, { ...fed, feed: 'ramp' }));
      moves.push(...alongChain(whole, z, z, fed));
    }
  } else {
    moves.push(lineTo(start, z, 'lead'));
    if (on.kind === 'arc') moves.push(arcOf(quarter(first(way), 'from', on.radius, fed.side), 'on', z, fed));
    moves.push(...alongChain(whole, z, z, fed));
  }
  if (off.kind === 'arc') moves.push(arcOf(quarter(last(whole), 'to', off.radius, fed.side), 'off', z, fed));
  if (off.kind === 'along') {
    const back = closed
      ? overlapOf(rest(way, over), slantOf(run))
      : overlapOf(reversePath([...way]), slantOf(run));
    moves.push(...alongChain(back, z, above, fed));
  }
  return { start: [begin[0], begin[1], r], moves };
}

function slantOf({ way, z, above }: EdgeRun): number {
  const whole = way.reduce((sum, s) => sum + segmentLength(s), 0);
  return Math.min(0.9 * whole, Math.max(LEAST_SLANT, SLANT * (above - z)));
}

/** What of a chain comes after its first stretch. */
function rest(way: readonly Segment[], gone: readonly Segment[]): Segment[] {
  if (gone.length === 0) return [...way];
  const end = last(gone);
  const own = way[gone.length - 1];
  const after = way.slice(gone.length);
  if (!own || Math.hypot(own.to[0] - end.to[0], own.to[1] - end.to[1]) < 1e-9) return after;
  const left: Segment =
    own.kind === 'line'
      ? { ...own, from: end.to }
      : { ...own, from: end.to, turn: own.turn - (end.kind === 'arc' ? end.turn : 0) };
  return [left, ...after];
}

function arcOf(
  { outer, centre, at }: ReturnType<typeof quarter>,
  which: 'on' | 'off',
  z: number,
  { side, feed }: EdgeRun['fed'],
): Move {
  const to = which === 'on' ? at : outer;
  return { kind: 'arc', to: [to[0], to[1], z], centre, clockwise: side === 'left', turns: 0, feed };
}
