import { move2 } from '../../geometry/parallel.ts';
import { tangentAt, type Segment } from '../../geometry/path.ts';
import { first } from '../../lists.ts';
import type { Move, Pass } from '../work.ts';
import { alongChain, lineTo, toldAsWall, type Fed } from './chain.ts';
import { stepsDown } from './ramp.ts';

/** How a wall is wound down along where the control compensates for the cutter's radius. mm. */
export interface WoundWall {
  /** R level; where it begins, above the part; and where the last turn lies. */
  r: number;
  from: number;
  floor: number;
  /** Down a turn at most. */
  perTurn: number;
  /** Flat turns at the end. */
  rounds: number;
  /** Length of the straight way on which the control takes the radius up: more than the radius. */
  approach: number;
}

/**
 * Along a closed way of the cutter's centre, told to the control as the wall beside it: the radius is taken up above the part in a straight
 * move, then it winds down, with flat turns at the end and no way out: it goes straight up, and gives the radius up there (handbook, N71).
 * Null where centre's way and wall do not go piece by piece beside each other.
 */
export function woundWall(
  way: readonly Segment[],
  wall: readonly Segment[],
  { r, from, floor, perTurn, rounds, approach }: WoundWall,
  fed: Fed & { side: 'left' | 'right' },
): Pass | null {
  const start = first(way).from;
  const away = move2(start, tangentAt(first(way), 'from'), -approach);
  const turns = stepsDown(from, floor, perTurn);
  const levels = [
    ...Array.from({ length: turns }, (_, i) => [i, i + 1].map((k) => from + ((floor - from) * k) / turns)),
    ...Array.from({ length: rounds }, () => [floor, floor]),
  ] as [number, number][];
  const on = first(wall).from;
  const moves: Move[] = [
    lineTo(away, from, 'lead'),
    { kind: 'line', to: [start[0], start[1], from], feed: 'lead', wall: { to: on } },
  ];
  for (const [z0, z1] of levels) {
    const told = toldAsWall(alongChain(way, z0, z1, fed), alongChain(wall, z0, z1, fed));
    if (!told) return null;
    moves.push(...told);
  }
  moves.push(
    { kind: 'line', to: [start[0], start[1], r], feed: 'lead', wall: { to: on } },
    lineTo(away, r, 'lead'),
  );
  // With the wall on its right the cutter goes on the wall's left.
  return { start: [away[0], away[1], r], moves, control: fed.side === 'right' ? 'left' : 'right' };
}
