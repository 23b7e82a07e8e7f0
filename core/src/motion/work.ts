import type { Segment } from '../geometry/path.ts';
import type { Vec3 } from '../geometry/vec.ts';

/** How a hole is made along its axis, free of any dialect. Lengths in mm. */
export type CycleHow =
  /** Fed down in one go, out at rapid. */
  | { how: 'straight' }
  /** The same with a hold at the bottom. */
  | { how: 'dwell'; seconds: number }
  /** Short back-offs break the chip. */
  | { how: 'chip-break'; peck: number }
  /** All the way out after each peck. */
  | { how: 'full-retract'; peck: number }
  /** In step with the spindle, which turns back on the way out; out to R after each peck where one is said. */
  | { how: 'tap'; hand: 'right' | 'left'; peck?: number }
  /** Fed out as it was fed in, after a hold where one is said: reaming and boring. */
  | { how: 'feed-out'; seconds?: number }
  /** The spindle stands still on the way out. */
  | { how: 'stop-out' }
  /** The spindle stops in one direction and the tool is shifted off the wall by so much before it comes out. */
  | { how: 'shift-out'; shift: number };
export type CycleName = CycleHow['how'];

/** A stretch, from higher to lower Z, that is fed at half. */
export interface SlowStretch {
  from: number;
  to: number;
}

/** A hole made along its axis by one kind of tool motion that most controls know as a canned cycle. */
export interface HoleCycle {
  kind: 'cycle';
  how: CycleHow;
  /** Fed at half: where the drill breaks into a cavity, or enters another's hole. From the top down. */
  slow?: SlowStretch[];
}

/** What a feed is for: each kind of operation says how fast each is. */
export type FeedRole = 'cut' | 'plunge' | 'ramp' | 'lead' | 'finish' | 'thread';

/**
 * What the control is told where it compensates for the cutter's radius itself: the wall that is made, in place of the centre's way. It is
 * switched on in the first straight move that has one, and off in the next that has none.
 */
export interface WallMove {
  to: readonly [number, number];
  centre?: readonly [number, number];
}

/**
 * One move of a path, in program coordinates, mm. A helix is an arc whose Z changes; `turns` counts whole turns beyond the part turn.
 * `share` of its role's feed: the centre of a cutter goes slower than its edge on an inside arc.
 */
export type Move =
  | { kind: 'line'; to: Vec3; feed: FeedRole; share?: number; wall?: WallMove }
  | {
      kind: 'arc';
      to: Vec3;
      centre: readonly [number, number];
      clockwise: boolean;
      turns: number;
      feed: FeedRole;
      share?: number;
      wall?: WallMove;
    }
  | { kind: 'dwell'; seconds: number };

/** A stretch of a path that is cut in one go: the tool goes to `start` above the metal or in the air of the pass before, then moves. */
export interface Pass {
  start: Vec3;
  moves: Move[];
  /** On which side of the wall the cutter goes, where the control compensates. */
  control?: 'left' | 'right';
}

export interface PathMotion {
  kind: 'path';
  passes: Pass[];
}

/** A rim that is broken though the model has it sharp: a cut that is meant, and to be found as wide as it is wanted. */
export interface WantedRim {
  /** Level of the rim, program coordinates, and how wide the cone is there, mm. */
  z: number;
  diameter: number;
  /** Included angle, degrees. */
  angleDeg: number;
  /** The cone widens downward: the rim is that of an exit. */
  below: boolean;
}

/** An edge that is broken or rounded: a cut that is meant, and to be found as wide as it is wanted. Program coordinates, mm. */
export interface WantedEdge {
  feature: string;
  /** The hole whose rim it is. */
  hole?: string;
  /** Its upper edge as the model has it, in plan, with the face above it on the left. */
  path: Segment[];
  closed: boolean;
  top: number;
  /** How far it is cut into the face above; 0 where the model has the edge's form already. */
  inset: number;
  /** By how much less it is cut into it with each mm down, and how far down it goes. */
  slope: number;
  drop: number;
  /** The face looks away from the tool: the corner is cut off from behind, above that level. */
  behind?: true;
  /** Stretches along it that the cutter does not reach, in an inside corner or before a wall. */
  left: [number, number][];
}

/** An edge that rises and falls and is broken by a ball: a cut that is meant. Program coordinates, mm. */
export interface WantedRise {
  feature: string;
  /** Its points, and the normals of the face above and of the wall there. */
  run: readonly { at: Vec3; up: Vec3; out: Vec3 }[];
  /** Width of the break on each of its faces, and how much deeper than a flat the ball cuts it. */
  width: number;
  hollow: number;
}

/** What an operation does at one feature. Program coordinates, mm. */
export interface Work {
  /** Id of the feature, and its tag and number. */
  feature: string;
  label: string;
  /** Where the tool comes down to R, and goes up again. */
  x: number;
  y: number;
  /** Level down to which it comes at rapid. */
  r: number;
  /** Lowest place of its tip. */
  z: number;
  /** Z of the feature's top, and Z up to which metal may stand over it when this operation begins. */
  entryZ: number;
  metalZ: number;
  wanted?: WantedRim[];
  edges?: WantedEdge[];
  rises?: WantedRise[];
  motion: HoleCycle | PathMotion;
}

/** How far a work's path leads the tool from its axis, mm; an arc is taken by its whole circle. 0 for a cycle. */
export function orbitOf({ x, y, motion }: Work): number {
  if (motion.kind === 'cycle') return 0;
  let far = 0;
  for (const { start, moves } of motion.passes) {
    let at: readonly [number, number, number] = start;
    far = Math.max(far, Math.hypot(at[0] - x, at[1] - y));
    for (const m of moves) {
      if (m.kind === 'dwell') continue;
      const round =
        m.kind === 'arc'
          ? Math.hypot(m.centre[0] - x, m.centre[1] - y) +
            Math.hypot(at[0] - m.centre[0], at[1] - m.centre[1])
          : 0;
      far = Math.max(far, Math.hypot(m.to[0] - x, m.to[1] - y), round);
      at = m.to;
    }
  }
  return far;
}

/** How the first of an operation's works is made, where it is a cycle: the others are made alike. */
export const cycleOf = (works: readonly Pick<Work, 'motion'>[]): CycleHow | null =>
  works[0]?.motion.kind === 'cycle' ? works[0].motion.how : null;
