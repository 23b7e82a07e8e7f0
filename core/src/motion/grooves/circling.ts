import { move2 } from '../../geometry/parallel.ts';
import { segmentLength, segmentPoint, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import type { Move } from '../work.ts';
import { insideShare } from '../circles.ts';

/** Places along a chain no more than `step` apart, with the way it goes there; its two ends among them. */
export function placesAlong(path: readonly Segment[], step: number): { at: Vec2; ahead: Vec2 }[] {
  return path.flatMap((s, i) => {
    const n = Math.max(1, Math.ceil(segmentLength(s) / step - 1e-9));
    return Array.from({ length: i === 0 ? n + 1 : n }, (_, k) => {
      const share = (i === 0 ? k : k + 1) / n;
      const at = segmentPoint(s, share);
      const piece: Segment = s.kind === 'line' ? s : { ...s, from: at };
      return { at, ahead: tangentAt(piece, 'from') };
    });
  });
}

/** One whole circle about a place, begun and ended behind it. */
function circleAt(
  { at: centre, ahead }: { at: Vec2; ahead: Vec2 },
  radius: number,
  cutter: number,
  z: number,
  feed: 'lead' | 'cut',
): { moves: Move[]; at: Vec2 } {
  const at = move2(centre, ahead, -radius);
  const to: [number, number, number] = [at[0], at[1], z];
  const share = insideShare(2 * radius + cutter, cutter);
  return {
    at,
    moves: [
      { kind: 'line', to, feed },
      { kind: 'arc', to, centre, clockwise: false, turns: 1, feed: 'cut', share },
    ],
  };
}

/** Circles about one place that grow by one step after the other, so that none of them cuts more than that. */
export const growCircles = (
  place: { at: Vec2; ahead: Vec2 },
  radii: readonly number[],
  cutter: number,
  z: number,
): Move[] => radii.flatMap((r) => circleAt(place, r, cutter, z, 'cut').moves);

/**
 * Along a chain in whole circles about its places: each begins and ends behind its place, where metal is gone already, so that no more than
 * the step is ever cut at once. Counter-clockwise: climb cutting. The cutter ends behind the last place.
 */
export function circleAlong(
  places: readonly { at: Vec2; ahead: Vec2 }[],
  radius: number,
  cutter: number,
  z: number,
): { moves: Move[]; at: Vec2 } {
  let at: Vec2 = [0, 0];
  const moves = places.flatMap((place): Move[] => {
    const circle = circleAt(place, radius, cutter, z, 'lead');
    at = circle.at;
    return circle.moves;
  });
  return { moves, at };
}
