import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { curvePoint } from '../brep/evaluate.ts';
import type { BrepCurve, Placement } from '../brep/geometry.ts';
import { add, cross, distance, normalize, type Vec3 } from '../geometry/vec.ts';
import { edgeRange, isOnCurve } from './edge-range.ts';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const placement = fc
  .tuple(real(-50, 50), real(-50, 50), real(-50, 50), real(0, Math.PI), real(0, 2 * Math.PI))
  .map(([ox, oy, oz, lean, turn]): Placement => {
    const z: Vec3 = [Math.sin(lean) * Math.cos(turn), Math.sin(lean) * Math.sin(turn), Math.cos(lean)];
    const x = normalize(cross(Math.abs(z[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0], z));
    return { origin: [ox, oy, oz], z, x, y: cross(z, x) };
  });
const round = fc
  .tuple(placement, real(0.5, 80), real(0.5, 80))
  .chain(([at, a, b]) =>
    fc.constantFrom<BrepCurve>(
      { kind: 'circle', at, radius: a },
      { kind: 'ellipse', at, major: a, minor: b },
    ),
  );
const open = fc.tuple(placement, real(0.5, 20), real(0.5, 20)).chain(([at, a, b]) =>
  fc.constantFrom<BrepCurve>(
    { kind: 'line', origin: at.origin, direction: at.x.map((v) => v * a) as Vec3 },
    { kind: 'parabola', at, focal: a },
    { kind: 'hyperbola', at, major: a, minor: b },
    {
      kind: 'nurbs',
      nurbs: {
        degree: 2,
        poles: [at.origin, add(at.origin, [a, 0, 0]), add(at.origin, [a, b, 0]), add(at.origin, [a, b, 9])],
        weights: [1, 2, 1.5, 1],
        knots: [0, 0, 0, 1, 2, 2, 2],
      },
    },
  ),
);

/** The middle of the stretch that was found is the middle of the one that was meant: it is not the other way round. */
function isStretch(c: BrepCurve, a: number, b: number): void {
  const found = edgeRange(c, curvePoint(c, a), curvePoint(c, b), false);
  expect(found).not.toBeNull();
  const { first, last, off } = found!;
  expect(off).toBeLessThan(1e-5);
  const off2 = distance(curvePoint(c, (first + last) / 2), curvePoint(c, (a + b) / 2));
  expect(off2).toBeLessThan(1e-4);
}

describe('where an edge runs on its curve', () => {
  test('on a round curve from its start on, over the place where the angle begins again', () => {
    fc.assert(
      fc.property(round, real(-6, 6), real(0.05, 6.2), (c, from, turn) => {
        isStretch(c, from, from + turn);
      }),
    );
  });

  test('on a line, a spline and an open conic', () => {
    fc.assert(
      fc.property(open, real(0.05, 0.9), real(0.05, 1), (c, from, more) => {
        isStretch(c, from, Math.min(2, from + more));
      }),
    );
  });

  test('on a spline whose pieces are of very unlike lengths', () => {
    // A short piece and a long one: the place sought lies in the long one, near to where they meet.
    const uneven: BrepCurve = {
      kind: 'nurbs',
      nurbs: {
        degree: 2,
        poles: [
          [0, 0, 0],
          [0.15, 0, 0],
          [0.3, 0.01, 0],
          [9, 4, 0],
          [12, 11, 0],
        ],
        weights: null,
        knots: [0, 0, 0, 0.027, 0.027, 1, 1, 1],
      },
    };
    fc.assert(
      fc.property(real(0, 0.5), real(0.01, 0.5), (from, more) => {
        isStretch(uneven, from, from + more);
      }),
    );
  });

  test('once round where it ends in the place it began in', () => {
    fc.assert(
      fc.property(round, real(-6, 6), (c, from) => {
        const p = curvePoint(c, from);
        const found = edgeRange(c, p, p, true);
        expect(found!.last - found!.first).toBeCloseTo(2 * Math.PI, 9);
      }),
    );
  });

  test('against its own direction an open curve is not run, and a line does not come back', () => {
    const line: BrepCurve = { kind: 'line', origin: [0, 0, 0], direction: [2, 0, 0] };
    expect(edgeRange(line, [4, 0, 0], [2, 0, 0], false)).toBeNull();
    expect(edgeRange(line, [4, 0, 0], [4, 0, 0], true)).toBeNull();
    expect(edgeRange(line, [2, 0, 0], [4, 0, 0], false)).toMatchObject({ first: 1, last: 2 });
  });

  test('an end beside the curve is said to be so far off', () => {
    const at: Placement = { origin: [0, 0, 0], z: [0, 0, 1], x: [1, 0, 0], y: [0, 1, 0] };
    const circle: BrepCurve = { kind: 'circle', at, radius: 10 };
    const near = edgeRange(circle, [10.01, 0, 0], [0, 10, 0], false)!;
    expect(near.off).toBeCloseTo(0.01, 9);
    expect(isOnCurve(near)).toBe(true);
    const far = edgeRange(circle, [10, 0, 0], [0, 10, 0.2], false)!;
    expect(far.off).toBeCloseTo(0.2, 9);
    expect(isOnCurve(far)).toBe(false);
  });
});
