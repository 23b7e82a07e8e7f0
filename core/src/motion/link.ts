import type { Space } from '../space/space.ts';
import type { Disc } from '../tools/profile.ts';
import type { Work } from './work.ts';

/**
 * Whether a tool must go back up to the clearance level between two holes. It stays at R only where nothing of part, stock and holding
 * comes near its whole outline on the way, and where the next R is no higher: under G99 many controls go across first and up afterwards.
 */
export function mustLift(space: Space | null, discs: readonly Disc[], from: Work, to: Work): boolean {
  if (to.r > from.r + 1e-6 || from.motion.kind === 'path' || from.motion.slow) return true;
  if (!space) return true;
  return !space.isFree(discs, [from.x, from.y, from.r], [to.x, to.y, from.r]);
}
