import {
  distance2,
  isSameCarrier,
  joinSegments,
  pathLength,
  segmentLength,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { insideShare, outsideShare } from '../circles.ts';
import type { FeedRole, Move } from '../work.ts';

/** Ends nearer than this are one place, mm. */
const SAME = 1e-9;
/** An outside arc is never fed more than this many times as fast as a line: a small one would be all but a point. */
const MOST_SHARE = 2;

/** On which side of its way a cutter cuts: its feed holds at that edge. `both`: a full-width cut. */
export type CutSide = 'left' | 'right' | 'both';

/**
 * Share of the feed for a cutter's centre on a piece of its way, so that the feed holds at the edge that cuts (handbook, Speeds and feeds):
 * Fc = Fe·(Dw − d)/Dw inside an arc, (Dw + d)/Dw outside it; of a full-width cut at the outer edge, which is the faster.
 */
export function arcShare(s: Segment, cutter: number, side: CutSide): number {
  if (s.kind === 'line') return 1;
  const isOutside = side !== 'both' && (side === 'left') === s.turn > 0;
  if (!isOutside) return insideShare(2 * s.radius + cutter, cutter);
  const work = 2 * s.radius - cutter;
  // Round a corner nothing is cut.
  if (Math.abs(work) < 1e-6) return 1;
  return work > 0 ? Math.min(MOST_SHARE, outsideShare(work, cutter)) : MOST_SHARE;
}

/** How the moves along a chain are fed. */
export interface Fed {
  feed: FeedRole;
  /** Diameter of the cutter, mm, and the side that it cuts on. */
  cutter: number;
  side: CutSide;
}

/** Moves along a chain, falling evenly from `from` to `to`. The cutter stands at its start. Arcs stay arcs: helical where they fall. */
export function alongChain(path: readonly Segment[], from: number, to: number, fed: Fed): Move[] {
  const whole = pathLength([...path]);
  let gone = 0;
  return joined(path).flatMap((s): Move[] => {
    const length = segmentLength(s);
    if (length < SAME) return [];
    gone += length;
    const z = gone >= whole - SAME ? to : from + ((to - from) * gone) / whole;
    const share = arcShare(s, fed.cutter, fed.side);
    const at = [s.to[0], s.to[1], z] as [number, number, number];
    if (s.kind === 'line') return [{ kind: 'line', to: at, feed: fed.feed }];
    return [
      {
        kind: 'arc',
        to: at,
        centre: s.centre,
        clockwise: s.turn < 0,
        turns: Math.abs(s.turn) > 2 * Math.PI - 1e-6 ? 1 : 0,
        feed: fed.feed,
        ...(share === 1 ? {} : { share }),
      },
    ];
  });
}

/** The chain with straight pieces that go on in one line as one. */
function joined(path: readonly Segment[]): Segment[] {
  const out: Segment[] = [];
  for (const s of path) {
    const before = out.at(-1);
    if (before?.kind === 'line' && s.kind === 'line' && isSameCarrier(before, s))
      out[out.length - 1] = joinSegments(before, s);
    else out.push(s);
  }
  return out;
}

/** A straight move to a place. */
export const lineTo = ([x, y]: Vec2, z: number, feed: FeedRole): Move => ({
  kind: 'line',
  to: [x, y, z],
  feed,
});

/** Moves of a cutter's centre, told to the control as the wall beside them; null where they do not go piece by piece beside each other. */
export function toldAsWall(own: readonly Move[], wall: readonly Move[]): Move[] | null {
  if (own.length !== wall.length) return null;
  const out: Move[] = [];
  for (const [i, m] of own.entries()) {
    const b = wall[i];
    if (m.kind === 'dwell' || !b || b.kind !== m.kind) return null;
    const to = [b.to[0], b.to[1]] as const;
    out.push(
      m.kind === 'arc' && b.kind === 'arc'
        ? { ...m, wall: { to, centre: b.centre } }
        : { ...m, wall: { to } },
    );
  }
  return out;
}

/** A straight move, or none where the cutter stands there already. */
export const lineFrom = (at: Vec2, to: Vec2, z: number, feed: FeedRole): Move[] =>
  distance2(at, to) < 1e-6 ? [] : [lineTo(to, z, feed)];
