import { directionFromFrame, fromFrame, type Frame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { RayCaster } from '../model/ray.ts';
import type { ClearPath } from './program.ts';

/** Room kept beside a tool in rapid travel, mm. */
const SIDE_ROOM = 1;
/** Distance between the lines of sight, mm: nothing wider than this slips between them. */
const SPACING = 1;

/** Looks along the whole width of the tool's way for anything of the part that stands in it. */
export function clearPathOver(rays: RayCaster, frame: Frame): ClearPath {
  return (from, to, radius) => {
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) return true;
    const [ux, uy] = [dx / length, dy / length];
    const direction = directionFromFrame(frame, [ux, uy, 0]);
    const reach = radius + SIDE_ROOM;
    const lines = Math.ceil((2 * reach) / SPACING) + 1;
    for (let i = 0; i < lines; i++) {
      const side = -reach + (2 * reach * i) / (lines - 1);
      const start: Vec3 = [from[0] - uy * side - ux * reach, from[1] + ux * side - uy * reach, from[2]];
      if (rays.firstHit(fromFrame(frame, start), direction, length + 2 * reach) !== null) return false;
    }
    return true;
  };
}
