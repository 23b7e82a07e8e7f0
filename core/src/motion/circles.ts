import type { Vec3 } from '../geometry/vec.ts';
import type { FeedRole, Move, Pass } from './work.ts';

/** Feed of a cutter's centre for a feed of its edge on an inside arc of work diameter `work`: Fc = Fe·(Dw − d)/Dw, as a share. */
export const insideShare = (work: number, cutter: number): number => (work - cutter) / work;

/** The same on an outside arc: Fc = Fe·(Dw + d)/Dw. */
export const outsideShare = (work: number, cutter: number): number => (work + cutter) / work;

/** Angle of a helix of so much a turn on a radius, degrees: atan(z / (2πr)). */
export const helixAngleDeg = (perTurn: number, radius: number): number =>
  (Math.atan(perTurn / (2 * Math.PI * radius)) * 180) / Math.PI;

/** A circle round an upright axis that a cutter's centre runs on. mm, program coordinates. */
export interface Ring {
  x: number;
  y: number;
  /** Of the centre's path. */
  radius: number;
  /** Where the helix begins, in the air, and where it ends. */
  from: number;
  to: number;
}

/**
 * Down a ring on a helix of whole turns, no steeper than `perTurn`, once round at the bottom, and back to the axis. Counter-clockwise: climb
 * cutting inside with a spindle that turns clockwise. `start` is the level at which it comes from the axis.
 */
export function helixDown(ring: Ring, perTurn: number, start: number, feed: FeedRole, share: number): Pass {
  const { x, y, radius, from, to } = ring;
  const round = (z: number, turns: number, role: FeedRole): Move => ({
    kind: 'arc',
    to: [x + radius, y, z],
    centre: [x, y],
    clockwise: false,
    turns,
    feed: role,
    share,
  });
  const turns = Math.max(1, Math.ceil((from - to) / perTurn - 1e-9));
  const axis: Vec3 = [x, y, start];
  return {
    start: axis,
    moves: [
      { kind: 'line', to: [x + radius, y, from], feed: 'lead' },
      round(to, turns, feed),
      round(to, 1, feed),
      { kind: 'line', to: [x, y, to], feed: 'lead' },
    ],
  };
}

/** Once round at one level, on and off the wall by half circles from the axis, as often as said. */
export function roundAt(ring: Ring, start: number, rounds: number, feed: FeedRole, share: number): Pass {
  const { x, y, radius, to } = ring;
  const half = (end: Vec3): Move => ({
    kind: 'arc',
    to: end,
    centre: [x + radius / 2, y],
    clockwise: false,
    turns: 0,
    feed,
    share,
  });
  return {
    start: [x, y, start],
    moves: [
      { kind: 'line', to: [x, y, to], feed: 'lead' },
      half([x + radius, y, to]),
      {
        kind: 'arc',
        to: [x + radius, y, to],
        centre: [x, y],
        clockwise: false,
        turns: rounds,
        feed,
        share,
      },
      half([x, y, to]),
    ],
  };
}
