import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  add,
  along,
  anyPerpendicular,
  areaAbout,
  cross,
  distance,
  dot,
  isAgainst,
  isAlong,
  isParallel,
  isSquare,
  length,
  normalize,
  reject,
  scale,
  sub,
  type Vec3,
} from './vec.ts';

const real = fc.double({ min: -100, max: 100, noNaN: true });
const vector = fc.tuple(real, real, real).map((v): Vec3 => v);
const unit = vector.filter((v) => length(v) > 1).map(normalize);

describe('vectors', () => {
  test('a cross product is square to both and right-handed', () => {
    expect(cross([1, 0, 0], [0, 1, 0])).toEqual([0, 0, 1]);
    fc.assert(
      fc.property(vector, vector, (a, b) => {
        const c = cross(a, b);
        expect(Math.abs(dot(c, a))).toBeLessThan(1e-6);
        expect(Math.abs(dot(c, b))).toBeLessThan(1e-6);
        // Lagrange: |a × b|² + (a · b)² = |a|²·|b|².
        expect(dot(c, c) + dot(a, b) ** 2).toBeCloseTo(dot(a, a) * dot(b, b), 2);
      }),
    );
  });

  test('what is left without its part along a direction is square to it', () => {
    fc.assert(
      fc.property(vector, unit, (a, d) => {
        expect(Math.abs(dot(reject(a, d), d))).toBeLessThan(1e-9);
        expect(distance(add(reject(a, d), scale(d, dot(a, d))), a)).toBeLessThan(1e-9);
      }),
    );
  });

  test('any perpendicular is one', () => {
    fc.assert(
      fc.property(unit, (d) => {
        expect(dot(anyPerpendicular(d), d)).toBeCloseTo(0, 9);
        expect(length(anyPerpendicular(d))).toBeCloseTo(1, 9);
      }),
    );
  });

  test('the zero vector has no direction and stays what it is', () => {
    expect(normalize([0, 0, 0])).toEqual([0, 0, 0]);
  });

  test('directions are one within a hundredth of a degree, and not within a tenth', () => {
    const tilted = (degrees: number): Vec3 => {
      const a = (degrees * Math.PI) / 180;
      return [Math.sin(a), 0, Math.cos(a)];
    };
    const up: Vec3 = [0, 0, 1];
    expect([isAlong(up, tilted(0.01)), isAlong(up, tilted(0.1))]).toEqual([true, false]);
    expect([isAgainst(up, tilted(180.01)), isAgainst(up, tilted(179.9))]).toEqual([true, false]);
    expect([isParallel(up, tilted(179.99)), isParallel(up, tilted(90))]).toEqual([true, false]);
    expect([isSquare(up, tilted(90.01)), isSquare(up, tilted(90.1))]).toEqual([true, false]);
  });
});

describe('the area of a run of points', () => {
  const square: Vec3[] = [
    [1, 1, 7],
    [4, 1, 7],
    [4, 3, 7],
    [1, 3, 7],
  ];

  test('is positive counter-clockwise as seen against the normal, and that of its shadow from aside', () => {
    expect(areaAbout(square, [0, 0, 1])).toBeCloseTo(6, 12);
    expect(areaAbout(square, [0, 0, -1])).toBeCloseTo(-6, 12);
    expect(areaAbout([...square].reverse(), [0, 0, 1])).toBeCloseTo(-6, 12);
    expect(areaAbout(square, [0.6, 0, 0.8])).toBeCloseTo(4.8, 12);
    expect(areaAbout([], [0, 0, 1])).toBe(0);
    expect(areaAbout(square.slice(0, 2), [0, 0, 1])).toBe(0);
  });

  test('does not depend on where it begins and lies', () => {
    fc.assert(
      fc.property(fc.array(vector, { minLength: 3, maxLength: 12 }), unit, vector, (points, n, by) => {
        const area = areaAbout(points, n);
        const turned = [...points.slice(1), ...points.slice(0, 1)];
        expect(areaAbout(turned, n)).toBeCloseTo(area, 5);
        expect(
          areaAbout(
            points.map((p) => along(p, by, 1)),
            n,
          ),
        ).toBeCloseTo(area, 5);
        expect(
          areaAbout(
            points.map((p) => sub(p, by)),
            n,
          ),
        ).toBeCloseTo(area, 5);
      }),
    );
  });
});
