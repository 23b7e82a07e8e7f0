import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DerivedSetup } from '../../job/derive.ts';
import { distance, type Vec3 } from '../../geometry/vec.ts';
import { ballAt } from '../../operations/edges/ball.ts';
import { endMill } from '../../testing/fixtures.ts';
import type { ReadProgram } from '../../code/read/motion.ts';
import type { KnownMotion } from '../chords.ts';
import { milledRises, RiseFinder } from './rises.ts';

/** An edge that falls along X: the face above looks up and along, the wall to −Y. */
const FALL = 0.2;
const UP: Vec3 = [FALL / Math.hypot(1, FALL), 0, 1 / Math.hypot(1, FALL)];
const run = Array.from({ length: 21 }, (_, i) => ({
  at: [i, 0, -FALL * i] as Vec3,
  up: UP,
  out: [0, -1, 0] as Vec3,
}));
const WIDTH = 0.4;
const BALL = { ...endMill(9, 6), cornerRadius: 3 };
const setup = {
  operations: [
    {
      tag: 'X',
      tool: BALL,
      work: [{ label: 'X1', rises: [{ feature: 'X1', run, width: WIDTH, hollow: 0.01 }] }],
    },
  ],
} as unknown as DerivedSetup;

const motion = (part: Partial<KnownMotion>): KnownMotion =>
  ({ line: 1, kind: 'feed', tool: 9, feed: 300, speed: 4000, ...part }) as KnownMotion;
/** The ball's tip for a point of the edge, so much too high. */
const tipAt = (i: number, high = 0): Vec3 => {
  const [x, y, z] = ballAt(run[i]!, WIDTH, 3)!;
  return [x, y, z - 3 + high];
};
const read = (high: number, to = 20): ReadProgram =>
  ({
    motions: Array.from({ length: to }, (_, i) =>
      motion({ line: i + 1, from: tipAt(i, high), to: tipAt(i + 1, high) }),
    ),
  }) as unknown as ReadProgram;
const toolOf = () => BALL;

describe('an edge that rises, in what was read', () => {
  it('is passed by as near as it is to be, or by as much too far as the ball is too high', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.1, max: 0.1, noNaN: true }), (high) => {
        const [own] = milledRises(read(high), new RiseFinder(setup), toolOf);
        // Toward the edge and away from it a ball comes by less than it is lowered or lifted.
        // Its ends are passed by ends of the way: they are looked at along it.
        for (const off of own!.off.slice(1, -1)) {
          expect(off * high).toBeGreaterThanOrEqual(-1e-9);
          expect(Math.abs(off)).toBeLessThanOrEqual(Math.abs(high) + 1e-6);
          if (Math.abs(high) > 0.01) expect(Math.abs(off)).toBeGreaterThan(0.5 * Math.abs(high));
        }
      }),
    );
  });

  it('of which a part is not passed says so at each point', () => {
    const [own] = milledRises(read(0, 8), new RiseFinder(setup), toolOf);
    expect(own!.off.slice(0, 8).every((v) => Math.abs(v) < 1e-6)).toBe(true);
    expect(own!.off.at(-1)).toBe(Infinity);
  });

  it('is found along an arc that comes by it in its middle, though its ends are one place far off', () => {
    const far: Vec3 = [10, -29, -3];
    const circle = motion({
      kind: 'arc',
      from: far,
      to: far,
      centre: [10, -15, -3],
      clockwise: false,
      turns: 1,
    });
    const finder = new RiseFinder(setup);
    // A whole circle of radius 14 whose top comes to Y −1; its ends lie at Y −29.
    expect(finder.by(circle, BALL)).toEqual([]);
    expect(finder.isOn(circle, BALL)).toBe(true);
    expect(distance(far, run[10]!.at)).toBeGreaterThan(20);
  });

  it('is nothing to a cutter that is no ball, or at rapid', () => {
    const finder = new RiseFinder(setup);
    const along = motion({ from: tipAt(2), to: tipAt(5) });
    expect(finder.by(along, BALL).length).toBeGreaterThan(0);
    expect(finder.by(along, endMill(9, 6))).toEqual([]);
    expect(finder.by({ ...along, kind: 'rapid' }, BALL)).toEqual([]);
  });
});
