import { first, last } from '../../lists.ts';
import { leftOf, move2 } from '../../geometry/parallel.ts';
import { tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import type { FeedRole, Move } from '../work.ts';
import { alongChain, lineFrom, type Fed } from './chain.ts';
import { overlapOf } from './loops.ts';

/** A lead of less radius is no lead: the cutter goes straight to the wall, mm. */
const LEAST_LEAD = 0.15;
/** Gone over twice where a way round closes, mm. */
export const OVERLAP = 1;

/** A quarter circle beside a chain: where it leaves the air, its centre, and where it meets the chain. */
export interface Quarter {
  outer: Vec2;
  centre: Vec2;
  at: Vec2;
}

/** A quarter circle onto a chain at its start, or off it at its end, from the side away from its wall. */
export function quarter(s: Segment, end: 'from' | 'to', radius: number, wall: 'left' | 'right'): Quarter {
  const t = tangentAt(s, end);
  const centre = move2(s[end], leftOf(t), wall === 'right' ? radius : -radius);
  return { outer: move2(centre, t, end === 'from' ? -radius : radius), centre, at: s[end] };
}

/**
 * Once or more round a closed way along a wall, on and off by quarter circles of `lead`, or straight where there is no room for them. It comes
 * from `from` and ends beside the way; all at one level.
 */
export function roundWall(
  loop: readonly Segment[],
  from: Vec2,
  z: number,
  lead: number,
  rounds: number,
  fed: Fed & { side: 'left' | 'right' },
): { moves: Move[]; at: Vec2 } {
  const over = overlapOf(loop, OVERLAP);
  const [on, off] = [quarter(first(loop), 'from', lead, fed.side), quarter(last(over), 'to', lead, fed.side)];
  const laps = Array.from({ length: rounds }, () => alongChain(loop, z, z, fed)).flat();
  const ends = [...laps, ...alongChain(over, z, z, fed)];
  if (lead < LEAST_LEAD) {
    const away = fed.side === 'right' ? lead : -lead;
    const back = move2(last(over).to, leftOf(tangentAt(last(over), 'to')), away);
    return {
      moves: [
        ...lineFrom(from, first(loop).from, z, 'lead'),
        ...ends,
        ...lineFrom(last(over).to, back, z, 'lead'),
      ],
      at: back,
    };
  }
  const arc = (to: Vec2, centre: Vec2, feed: FeedRole): Move => ({
    kind: 'arc',
    to: [to[0], to[1], z],
    centre,
    clockwise: fed.side === 'left',
    turns: 0,
    feed,
  });
  return {
    moves: [
      ...lineFrom(from, on.outer, z, 'lead'),
      arc(on.at, on.centre, fed.feed),
      ...ends,
      arc(off.outer, off.centre, fed.feed),
    ],
    at: off.outer,
  };
}
