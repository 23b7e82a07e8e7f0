import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAgainst, isAlong, isParallel, isSquare, type Vec3 } from './vec.ts';

/** A unit vector so many degrees off X. */
const off = (degrees: number): Vec3 => [
  Math.cos((degrees * Math.PI) / 180),
  Math.sin((degrees * Math.PI) / 180),
  0,
];
const X: Vec3 = [1, 0, 0];

describe('directions', () => {
  it('are one within a few hundredths of a degree, as surfaces are recovered, and not within a tenth', () => {
    expect([0, 0.03, 0.08].map((a) => isAlong(X, off(a)))).toEqual([true, true, true]);
    expect([0.1, 1, 90, 180].map((a) => isAlong(X, off(a)))).toEqual([false, false, false, false]);
    expect([90, 90.05, 90.1, 45].map((a) => isSquare(X, off(a)))).toEqual([true, true, false, false]);
    expect([isParallel(X, off(180)), isAgainst(X, off(180)), isAgainst(X, off(0))]).toEqual([
      true,
      true,
      false,
    ]);
  });

  it('have one tolerance: what is along is square to what is square to it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (a, b) => {
          // Right at the border the two differ by rounding alone.
          fc.pre(Math.abs(Math.abs(b) - 0.08103) > 1e-3);
          expect(isAlong(off(a), off(a + b))).toBe(isSquare(off(a), off(a + b + 90)));
        },
      ),
    );
  });
});
