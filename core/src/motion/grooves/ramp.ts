import { pathLength, reversePath, type Segment, type Vec2 } from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import type { Move } from '../work.ts';
import { alongChain, type Fed } from './chain.ts';

/** How many equal steps take a cutter from one level to another, no more than `most` each. */
export const stepsDown = (from: number, to: number, most: number): number =>
  Math.max(1, Math.ceil((from - to) / most - 1e-9));

/** The levels of equal steps from one to another, the last exactly that. */
const levelsBetween =
  (from: number, to: number, n: number) =>
  (i: number): number =>
    i >= n ? to : from + ((to - from) * i) / n;

/** Levels of layers, from the highest down to the last, each no more than `most` below the one before. */
export function levelsDown(from: number, to: number, most: number): number[] {
  const n = stepsDown(from, to, most);
  const level = levelsBetween(from, to, n);
  return Array.from({ length: n }, (_, i) => level(i + 1));
}

/** Angle of a ramp that falls so much along a way, degrees: atan(fall / way). */
export const rampAngleDeg = (fall: number, way: number): number => (Math.atan(fall / way) * 180) / Math.PI;

/** The most that may be fallen along a way at an angle, mm. */
export const fallAt = (angleDeg: number, way: number): number =>
  angleDeg >= 90 ? Infinity : way * Math.tan((angleDeg * Math.PI) / 180);

/** Moves, and the place at which they end. */
export interface Ramped {
  moves: Move[];
  at: Vec2;
  /** The cutter stands at the start of the chain. */
  isAtStart: boolean;
}

/**
 * Back and forth along a chain with two ends, so much down each way and a flat last one: the cutter stands at its start, and ends at `to`
 * with nothing left of the ramp (handbook, Helical bores and ramps).
 */
export function rampDown(
  path: readonly Segment[],
  from: number,
  to: number,
  perPass: number,
  ramp: Fed,
  flat: Fed,
): Ramped {
  const n = stepsDown(from, to, perPass);
  const level = levelsBetween(from, to, n);
  const ways = [[...path], reversePath([...path])];
  const moves: Move[] = [];
  for (let i = 0; i < n; i++) moves.push(...alongChain(ways[i % 2] ?? [], level(i), level(i + 1), ramp));
  moves.push(...alongChain(ways[n % 2] ?? [], to, to, flat));
  const isAtStart = n % 2 === 1;
  return { moves, at: isAtStart ? first(path).from : last(path).to, isAtStart };
}

/** Round a closed chain, so much down a turn and a flat last one: the cutter stands at its start (handbook, N71). */
export function windDown(
  path: readonly Segment[],
  from: number,
  to: number,
  perTurn: number,
  ramp: Fed,
  flat: Fed,
): Move[] {
  const n = stepsDown(from, to, perTurn);
  const level = levelsBetween(from, to, n);
  const moves: Move[] = [];
  for (let i = 0; i < n; i++) moves.push(...alongChain(path, level(i), level(i + 1), ramp));
  return [...moves, ...alongChain(path, to, to, flat)];
}

/** How long a chain is, mm. */
export const wayOf = (path: readonly Segment[]): number => pathLength([...path]);
