import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dot, normalize, sub, type Vec3 } from '../geometry/vec.ts';
import { alongZ, type Frustum } from './frustum.ts';

const isIn = (f: Frustum, p: Vec3, slack: number): boolean => {
  const d = sub(p, f.origin);
  const s = dot(d, f.axis);
  const rho = Math.sqrt(Math.max(0, dot(d, d) - s * s));
  const r = f.r0 + ((s - f.s0) / (f.s1 - f.s0)) * (f.r1 - f.r0);
  return s >= f.s0 - slack && s <= f.s1 + slack && rho <= r + slack;
};

describe('an upright line through a round cavity', () => {
  it('that lies passes a chord of it', () => {
    const lying: Frustum = { origin: [0, 0, -10], axis: [1, 0, 0], s0: 0, s1: 20, r0: 5, r1: 5 };
    expect(alongZ(lying, 10, 3)).toEqual([-14, -6]);
    expect(alongZ(lying, 10, 5.1)).toBeNull();
    expect(alongZ(lying, 20.1, 0)).toBeNull();
  });
  it('that stands passes all of it', () => {
    const upright: Frustum = { origin: [0, 0, 0], axis: [0, 0, -1], s0: 2, s1: 12, r0: 5, r1: 0 };
    expect(alongZ(upright, 0, 0)!.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-12, -2]);
    expect(alongZ(upright, 2.5, 0)!.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-7, -2]);
  });
  it('is inside just there (property)', () => {
    const v = fc.double({ min: -1, max: 1, noNaN: true });
    const r = fc.double({ min: 0, max: 6, noNaN: true });
    fc.assert(
      fc.property(v, v, v, r, r, v, v, (ax, ay, az, r0, r1, px, py) => {
        fc.pre(Math.hypot(ax, ay, az) > 0.2 && r0 + r1 > 0.1);
        const f: Frustum = { origin: [1, 2, 3], axis: normalize([ax, ay, az]), s0: 1, s1: 9, r0, r1 };
        const [x, y] = [1 + 8 * px, 2 + 8 * py];
        const ends = alongZ(f, x, y);
        for (let z = -14; z <= 20; z += 0.37) {
          const here = ends !== null && z > ends[0] && z < ends[1];
          // What is clearly in or out is told so.
          if (isIn(f, [x, y, z], -1e-3)) expect(here).toBe(true);
          if (!isIn(f, [x, y, z], 1e-3)) expect(here).toBe(false);
        }
      }),
      { numRuns: 400 },
    );
  });
});
