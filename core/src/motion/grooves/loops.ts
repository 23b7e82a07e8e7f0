import { first, last } from '../../lists.ts';
import { extendedPath, parallelPath } from '../../geometry/parallel.ts';
import { reversePath, segmentLength, segmentPoint, type Segment, type Vec2 } from '../../geometry/path.ts';

/** A middle line that a cutter is led round. */
export interface Middle {
  path: readonly Segment[];
  /** It has no ends. */
  closed: boolean;
  /** How far the cutter runs out past its start and its end, mm; null: it ends round there. */
  past: readonly [number | null, number | null];
}

/** The middle line with what the cutter runs out past its ends. */
export const runOf = ({ path, past }: Middle): Segment[] => extendedPath(path, past[0] ?? 0, past[1] ?? 0);

/** A way round a middle line: along one wall, across the end, back along the other, across the start. */
export interface Round {
  there: Segment[];
  ahead: Segment;
  back: Segment[];
  behind: Segment;
}

/**
 * Once round a middle line with two ends at a distance: half circles round its closed ends, straight across past the open ones.
 * `isClimb`: both walls on the right (counter-clockwise), as a spindle that turns clockwise climbs; else both on the left. Null where it has
 * no such parallel.
 */
export function roundMiddle(m: Middle, off: number, isClimb: boolean): Round | null {
  const run = runOf(m);
  const side = isClimb ? -off : off;
  const [there, other] = [parallelPath(run, side, false), parallelPath(run, -side, false)];
  if (!there || !other) return null;
  const back = reversePath(other);
  const across = (from: Vec2, to: Vec2, past: number | null, centre: Vec2): Segment =>
    past === null
      ? { kind: 'arc', from, to, centre, radius: off, turn: isClimb ? Math.PI : -Math.PI }
      : { kind: 'line', from, to };
  return {
    there,
    ahead: across(last(there).to, first(back).from, m.past[1], last(run).to),
    back,
    behind: across(last(back).to, first(there).from, m.past[0], first(run).from),
  };
}

/** The way round as one chain, begun at the start or at the end of the middle line. */
export const roundFrom = ({ there, ahead, back, behind }: Round, end: 'start' | 'end'): Segment[] =>
  end === 'start' ? [...there, ahead, ...back, behind] : [...back, behind, ...there, ahead];

/** The two walls of a closed middle line at a distance, each run with its wall on the right to climb, else on the left. */
export function sidesOf(m: Middle, off: number, isClimb: boolean): Segment[][] | null {
  const [right, left] = [parallelPath(m.path, -off, true), parallelPath(m.path, off, true)];
  if (!right || !left) return null;
  return isClimb ? [right, reversePath(left)] : [reversePath(right), left];
}

/** Distances from the middle, from the inside out, no more than `step` apart; the last one is `most`. */
export function ringsOut(most: number, step: number): number[] {
  if (most < 1e-6) return [];
  const n = Math.max(1, Math.ceil(most / step - 1e-9));
  return Array.from({ length: n }, (_, i) => (most * (i + 1)) / n);
}

/** A closed chain that begins in the middle of its longest straight piece, or of its longest piece where none is straight. */
export function begunOnLongest(loop: readonly Segment[]): Segment[] {
  // A circle begins where it begins.
  if (loop.length === 1) return [...loop];
  const best = (list: readonly Segment[]): Segment | undefined =>
    list.reduce<Segment | undefined>(
      (a, b) => (a && segmentLength(a) >= segmentLength(b) ? a : b),
      undefined,
    );
  const longest = best(loop.filter((s) => s.kind === 'line')) ?? best(loop);
  if (!longest) return [];
  const i = loop.indexOf(longest);
  const [a, b] = halves(longest);
  return [b, ...loop.slice(i + 1), ...loop.slice(0, i), a];
}

function halves(s: Segment): [Segment, Segment] {
  const m = segmentPoint(s, 0.5);
  return s.kind === 'line'
    ? [
        { kind: 'line', from: s.from, to: m },
        { kind: 'line', from: m, to: s.to },
      ]
    : [
        { ...s, to: m, turn: s.turn / 2 },
        { ...s, from: m, turn: s.turn / 2 },
      ];
}

/** The first stretch of a chain, mm: what is gone over twice at the join of a closed one. */
export function overlapOf(loop: readonly Segment[], length: number): Segment[] {
  const out: Segment[] = [];
  let rest = length;
  for (const s of loop) {
    const l = segmentLength(s);
    if (l >= rest) {
      const to = segmentPoint(s, rest / l);
      out.push(s.kind === 'line' ? { ...s, to } : { ...s, to, turn: (s.turn * rest) / l });
      return out;
    }
    out.push(s);
    rest -= l;
  }
  return out;
}
