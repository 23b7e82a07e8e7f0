import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { along, cross, distance, dot, length, normalize, scale, type Vec3 } from '../geometry/vec.ts';
import { curvePoint } from './evaluate.ts';
import { exactStretch } from './exact-curve.ts';
import type { BrepCurve, Nurbs } from './geometry.ts';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const direction = fc.tuple(real(-1, 1), real(-1, 1), real(-1, 1)).filter((d) => length(d) > 0.1);
const point = fc.tuple(real(-90, 90), real(-90, 90), real(-90, 90));

/** An arc of less than half a turn as a rational quadratic: the middle pole where its tangents meet. */
function arc(centre: Vec3, axis: Vec3, radius: number, angle: number): Nurbs<Vec3> {
  const x = normalize(cross(axis, Math.abs(axis[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0]));
  const y = cross(axis, x);
  const at = (a: number, r: number): Vec3 => along(along(centre, x, r * Math.cos(a)), y, r * Math.sin(a));
  const w = Math.cos(angle / 2);
  return {
    degree: 2,
    poles: [at(0, radius), at(angle / 2, radius / w), at(angle, radius)],
    weights: [1, w, 1],
    knots: [0, 0, 0, 1, 1, 1],
  };
}
const spline = (nurbs: Nurbs<Vec3>): BrepCurve => ({ kind: 'nurbs', nurbs });
const cubic = (poles: Vec3[]): BrepCurve =>
  spline({ degree: 3, poles, weights: null, knots: [0, 0, 0, 0, 1, 1, 1, 1] });

describe('a stretch of spline', () => {
  test('that is an arc is that arc, run the same way', () => {
    fc.assert(
      fc.property(point, direction, real(0.5, 60), real(0.2, 3), (centre, way, radius, angle) => {
        const axis = normalize(way);
        const before = spline(arc(centre, axis, radius, angle));
        const { curve, first, last } = exactStretch({ curve: before, first: 0, last: 1 });
        expect(curve.kind).toBe('circle');
        if (curve.kind !== 'circle') return;
        expect(distance(curve.at.origin, centre)).toBeLessThan(1e-5);
        expect(curve.radius).toBeCloseTo(radius, 5);
        expect(dot(curve.at.z, axis)).toBeCloseTo(1, 6);
        expect(last - first).toBeCloseTo(angle, 5);
        for (const [own, theirs] of [
          [first, 0],
          [(first + last) / 2, 0.5],
          [last, 1],
        ] as const)
          expect(distance(curvePoint(curve, own), curvePoint(before, theirs))).toBeLessThan(1e-4);
      }),
    );
  });

  test('that is straight is a line, whatever its poles are spaced like', () => {
    fc.assert(
      fc.property(point, direction, real(0.1, 0.9), real(0.1, 0.9), (from, way, a, b) => {
        const to = along(from, way, 30);
        const [s, t] = [Math.min(a, b), Math.max(a, b)];
        const poles = [0, s, t, 1].map((k) => along(from, way, 30 * k));
        const { curve, first, last } = exactStretch({ curve: cubic(poles), first: 0, last: 1 });
        expect(curve.kind).toBe('line');
        expect(distance(curvePoint(curve, first), from)).toBeLessThan(1e-9);
        expect(distance(curvePoint(curve, last), to)).toBeLessThan(1e-9);
      }),
    );
  });

  test('that goes all round comes back to the last digit', () => {
    const w = Math.SQRT1_2;
    const ring: Vec3[] = [
      ...[
        [1, 0],
        [1, 1],
        [0, 1],
        [-1, 1],
        [-1, 0],
        [-1, -1],
        [0, -1],
        [1, -1],
        [1, 0],
      ].map(([x, y]): Vec3 => [7 * x!, 7 * y!, 2]),
    ];
    const curve = spline({
      degree: 2,
      poles: ring,
      weights: ring.map((_, i) => (i % 2 ? w : 1)),
      knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
    });
    const exact = exactStretch({ curve, first: 0, last: 4 });
    expect(exact.curve).toMatchObject({ kind: 'circle', radius: expect.closeTo(7, 9) as number });
    expect(exact.last - exact.first).toBe(2 * Math.PI);
  });

  test('that is neither stays as it is: an S, a parabola, a line run there and back', () => {
    const bent: Vec3[][] = [
      [
        [0, 0, 0],
        [10, 10, 0],
        [20, -10, 0],
        [30, 0, 0],
      ],
      [
        [0, 0, 0],
        [5, 8, 0],
        [10, 8, 0],
        [15, 0, 0],
      ],
      [
        [0, 0, 0],
        [30, 0, 0],
        [-10, 0, 0],
        [20, 0, 0],
      ],
      [
        [0, 0, 0],
        [5, 5, 0],
        [10, 5, 3],
        [15, 0, 9],
      ],
    ];
    for (const poles of bent) {
      const stretch = { curve: cubic(poles), first: 0, last: 1 };
      expect(exactStretch(stretch)).toBe(stretch);
    }
    const line: BrepCurve = { kind: 'line', origin: [0, 0, 0], direction: scale([1, 0, 0], 3) };
    const stretch = { curve: line, first: 0, last: 2 };
    expect(exactStretch(stretch)).toBe(stretch);
  });

  test('a hair off a circle is no circle', () => {
    const nurbs = arc([0, 0, 0], [0, 0, 1], 20, 1);
    nurbs.poles[1] = scale(nurbs.poles[1]!, 1 + 0.05 / 20);
    const stretch = { curve: spline(nurbs), first: 0, last: 1 };
    expect(exactStretch(stretch)).toBe(stretch);
  });
});
