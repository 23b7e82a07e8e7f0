import type { Segment, Vec2 } from '../geometry/path.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { stretchesOf } from '../motion/stretches.ts';
import type { Pass } from '../motion/work.ts';

/** A whole circle as a closed border, counter-clockwise. */
export const circle = (centre: Vec2, radius: number): Segment[] => {
  const from: Vec2 = [centre[0] + radius, centre[1]];
  return [{ kind: 'arc', from, to: from, centre, radius, turn: 2 * Math.PI }];
};

const BARE = { feature: '', label: '', x: 0, y: 0, r: 0, z: 0, entryZ: 0, metalZ: 0 };

/** The straight stretches of all passes, their ends within 0.01 mm of the arcs. */
export const waysOf = (passes: readonly Pass[]): (readonly [Vec3, Vec3])[] =>
  passes.flatMap((p) => stretchesOf({ ...BARE, motion: { kind: 'path', passes: [p] } }, 0.01));
