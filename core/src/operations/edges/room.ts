import type { Vec2 } from '../../geometry/path.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { Hit, Space } from '../../space/space.ts';
import { TOUCH } from '../../space/space.ts';
import { discsOf, radiusAt, type Disc, type ProfilePoint } from '../../tools/profile.ts';

/** Edges that a cutter runs along are touched, and chords of round walls lie inside them, mm. */
const BESIDE = -0.03;

/** Between its tip and an edge's level a flank is looked at in so many steps: as it is there decides where it must stop. */
const STEPS = 8;

/** A cutter's outline as discs, with those on its flank up to just below a level `deep` above its tip, mm. */
export function discsOnEdge(outline: readonly ProfilePoint[], deep: number): Disc[] {
  const flank = Array.from({ length: STEPS }, (_, i): Disc => {
    const z = Math.max(0, (deep - TOUCH - 1e-3) * (1 - i / STEPS));
    return { z, r: radiusAt(outline, z), part: 'cutting' };
  });
  let widest = -1;
  return [...discsOf(outline), ...flank]
    .sort((a, b) => a.z - b.z || b.r - a.r)
    .filter((d) => {
      if (d.r <= widest + 1e-9) return false;
      widest = d.r;
      return true;
    });
}

/** A cutter on an edge: its tip's level and what it takes of the corner. mm. */
export interface OnEdge {
  /** Z of the upper edge and of the tip. */
  top: number;
  tip: number;
  /** How far it cuts into the face above, and by how much less with each mm down: that metal is to go. */
  inset: number;
  slope: number;
  /** It is cut off from behind: that metal lies above the edge. */
  isBehind: boolean;
}

/** How far a disc of a cutter stands in what is to be cut off, mm. */
function within(d: Disc, { top, tip, inset, slope, isBehind }: OnEdge): number {
  const below = (isBehind ? -1 : 1) * (top - tip - d.z);
  return below < -1e-6 ? 0 : Math.max(0, inset - below * slope);
}

/**
 * Where a tool beside an edge would be in what is to stay of the part; null where it has room. The corner that it is to cut is left out: by
 * discs that stand as much farther out as they would reach into it, where it is known which way the air is (`out`, a unit vector); else by
 * discs that are so much less wide all round.
 */
export function meetsPart(
  space: Space,
  discs: readonly Disc[],
  [a, b]: readonly [Vec3, Vec3],
  edge: OnEdge,
  out: Vec2 | null = null,
): Hit | null {
  for (const d of discs) {
    const p = within(d, edge);
    const moved = ([x, y, z]: Vec3): Vec3 => (out ? [x + p * out[0], y + p * out[1], z] : [x, y, z]);
    const hit = space.partAlong([{ ...d, r: out ? d.r : d.r - p }], moved(a), moved(b), BESIDE);
    if (hit) return hit;
  }
  return null;
}
