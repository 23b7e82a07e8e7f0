import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { directionFromFrame, directionToFrame, frameFrom, fromFrame, toFrame } from './frame.ts';
import { anyPerpendicular, cross, distance, dot, length, normalize, type Vec3 } from './vec.ts';

const number = fc.double({ min: -500, max: 500, noNaN: true });
const vec = fc.tuple(number, number, number).map((v) => v as Vec3);
const direction = vec.filter((v) => length(v) > 1e-3).map(normalize);

describe('frames', () => {
  it('are right-handed and undo themselves', () => {
    fc.assert(
      fc.property(vec, direction, vec, (origin, z, p) => {
        const f = frameFrom(origin, z, anyPerpendicular(z));
        expect(dot(cross(f.x, f.y), f.z)).toBeCloseTo(1, 9);
        expect(distance(fromFrame(f, toFrame(f, p)), p)).toBeLessThan(1e-8);
        expect(distance(directionFromFrame(f, directionToFrame(f, p)), p)).toBeLessThan(1e-8);
      }),
    );
  });
  it('give the origin the place 0, 0, 0', () =>
    expect(toFrame(frameFrom([1, 2, 3], [0, 0, 1], [1, 0, 0]), [1, 2, 3])).toEqual([0, 0, 0]));
});

describe('vectors', () => {
  it('normalize leaves nought alone', () => expect(normalize([0, 0, 0])).toEqual([0, 0, 0]));
  it('a perpendicular is one', () => {
    fc.assert(
      fc.property(direction, (d) => void expect(Math.abs(dot(anyPerpendicular(d), d))).toBeLessThan(1e-9)),
    );
  });
});
