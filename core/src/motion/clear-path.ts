import { directionFromFrame, fromFrame, type Frame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { RayCaster } from '../model/ray.ts';
import type { ClearPath } from './program.ts';

/** Room kept beside a tool in rapid travel, mm. */
const SIDE_ROOM = 1;

/** Looks along the tool's middle and both its sides for anything of the part that stands in the way. */
export function clearPathOver(rays: RayCaster, frame: Frame): ClearPath {
  return (from, to, radius) => {
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) return true;
    const direction = directionFromFrame(frame, [dx / length, dy / length, 0]);
    const reach = radius + SIDE_ROOM;
    return [0, -reach, reach].every((side) => {
      const start: Vec3 = [from[0] - (dy / length) * side - (dx / length) * reach, from[1] + (dx / length) * side - (dy / length) * reach, from[2]];
      return rays.firstHit(fromFrame(frame, start), direction, length + 2 * reach) === null;
    });
  };
}
