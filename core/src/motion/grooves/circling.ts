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
  const share = insideShare(2 * radius + cutter, cutter);
  let at: Vec2 = [0, 0];
  const moves = places.flatMap(({ at: centre, ahead }): Move[] => {
    at = move2(centre, ahead, -radius);
    const to: [number, number, number] = [at[0], at[1], z];
    return [
      { kind: 'line', to, feed: 'lead' },
      { kind: 'arc', to, centre, clockwise: false, turns: 1, feed: 'cut', share },
    ];
  });
  return { moves, at };
}
