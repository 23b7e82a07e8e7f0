import { reversePath, type Segment } from '../../geometry/path.ts';
import type { Frame } from '../../geometry/frame.ts';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import { levelsSeen, planPieces } from '../groove-shape.ts';
import type { BorderPiece } from './schema.ts';

/** A piece of an area's border in plan, with the area on its left. */
export interface AreaEdge {
  segment: Segment;
  isWall: boolean;
}

/**
 * An area as cut from above, program coordinates, mm. `closed`: walls all round (a pocket); `open`: walls on some sides (a step); `outside`:
 * all that stands outside a closed wall (an outline); `top`: all that stands upon a level (a face).
 */
export interface AreaShape {
  side: 'closed' | 'open' | 'outside' | 'top';
  /** Closed runs: the outer border first, then the islands; of an outline its wall alone. */
  rings: AreaEdge[][];
  top: number;
  floor: number;
  through: boolean;
  /** At the foot of its walls. */
  floorRadius: number;
}

/** An area's borders and levels as a setup sees them. `depth`: of its floor below its top, which lies at `at`'s level where `isTopAt`. */
export function areaShape(
  f: { at: Vec3; axis: Vec3; borders: BorderPiece[][] },
  frame: Frame,
  {
    side,
    depth,
    isTopAt,
    through = false,
    floorRadius = 0,
  }: { side: AreaShape['side']; depth: number; isTopAt: boolean; through?: boolean; floorRadius?: number },
): AreaShape {
  const isTurned = dot(f.axis, frame.z) < 0;
  const rings = f.borders.map((ring) => {
    const walls = planPieces(
      ring.map((b) => b.piece),
      f.axis,
      frame,
    );
    const edges = walls.map((segment, i) => ({ segment, isWall: ring[i]?.isWall ?? true }));
    // Seen from its other side what was on the left is on the right.
    return isTurned
      ? reversePath(walls).map((segment, i) => ({ segment, isWall: edges.at(-1 - i)?.isWall ?? true }))
      : edges;
  });
  const level = levelsSeen(f.at, f.axis, isTopAt ? depth : -depth, frame);
  const [top, floor] = [Math.max(...level), Math.min(...level)];
  return { side, rings, top, floor, through, floorRadius };
}
