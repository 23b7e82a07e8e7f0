import { move2, parallelPath } from '../../geometry/parallel.ts';
import { tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, toldAsWall, type Fed } from '../grooves/chain.ts';
import type { Move, Pass } from '../work.ts';

/** Straight on before a way, and straight on after it: there the control takes the cutter's radius up, and gives it up. */
export function approachOf(way: readonly Segment[], by: number): { start: Vec2; end: Vec2 } {
  const [a, b] = [first(way), last(way)];
  return { start: move2(a.from, tangentAt(a, 'from'), -by), end: move2(b.to, tangentAt(b, 'to'), by) };
}

/**
 * Along a way of the cutter's centre on one level, told to the control as the wall beside it (handbook, N74): the radius is taken up in a straight
 * move of `approach`, which is longer than it, and given up in another. Null where way and wall do not go piece by piece beside each other. mm.
 */
export function toldWall(
  way: readonly Segment[],
  { r, z, approach }: { r: number; z: number; approach: number },
  fed: Fed & { side: 'left' | 'right' },
): Pass | null {
  const wall = parallelPath(way, (fed.side === 'right' ? -1 : 1) * (fed.cutter / 2), false);
  if (!wall || wall.length !== way.length) return null;
  const told = toldAsWall(alongChain(way, z, z, fed), alongChain(wall, z, z, fed));
  if (!told) return null;
  const { start, end } = approachOf(way, approach);
  const from = first(way).from;
  const moves: Move[] = [
    lineTo(start, z, 'lead'),
    { kind: 'line', to: [from[0], from[1], z], feed: 'lead', wall: { to: first(wall).from } },
    ...told,
    lineTo(end, z, 'lead'),
  ];
  // With the wall on its right the cutter goes on the wall's left.
  return { start: [start[0], start[1], r], moves, control: fed.side === 'right' ? 'left' : 'right' };
}
