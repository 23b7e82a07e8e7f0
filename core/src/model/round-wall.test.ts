import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { add, cross, distance, dot, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import { circleEdge, oneFace, type BareEdge } from '../testing/one-face.ts';
import { meshArea, meshModel } from './mesh.ts';
import { roundWall } from './round-wall.ts';
import type { Loop, Surface } from './solid-model.ts';

const [ORIGIN, AXIS]: [Vec3, Vec3] = [[3, -2, 1], normalize([1, 2, -2])];
const X = normalize(cross(AXIS, [0, 0, 1]));
const onAxis = (h: number): Vec3 => add(ORIGIN, scale(AXIS, h));
const cylinder: Surface = { kind: 'cylinder', origin: ORIGIN, axis: AXIS, radius: 5 };
const cone: Surface = { kind: 'cone', origin: ORIGIN, axis: AXIS, radius: 5, semiAngle: Math.atan(0.25) };
const WITHOUT_SEAM: Loop[] = [[{ edge: 0, reversed: false }], [{ edge: 1, reversed: true }]];
const WITH_SEAM: Loop[] = [
  [
    { edge: 0, reversed: false },
    { edge: 2, reversed: false },
    { edge: 1, reversed: true },
    { edge: 2, reversed: true },
  ],
];

interface Rim {
  n: number;
  from: number;
  isBack: boolean;
}
const rim = (height: number, radius: number, { n, from, isBack }: Rim): BareEdge =>
  circleEdge(onAxis(height), isBack ? scale(AXIS, -1) : AXIS, radius, { n, x: X, from });

const rims = fc.record({
  n: fc.integer({ min: 24, max: 90 }),
  from: fc.double({ min: -7, max: 7, noNaN: true }),
  isBack: fc.boolean(),
});

describe('a wall between two whole circles', () => {
  test.each([
    ['a cylinder', cylinder, 5],
    ['a cone', cone, 5 + 12 * 0.25],
  ])('of %s has its area and faces outward, however its rims are run and begun', (_, surface, upper) => {
    fc.assert(
      fc.property(rims, rims, fc.boolean(), fc.boolean(), (a, b, reversed, isSwapped) => {
        const edges = [rim(0, 5, a), rim(12, upper, b)];
        const { model, face } = oneFace(
          { surface, loops: WITHOUT_SEAM, reversed },
          isSwapped ? edges.reverse() : edges,
        );
        expect(roundWall(model, face)?.triangles).toHaveLength(3 * (a.n + b.n));
        const mesh = meshModel(model);
        const slant = Math.hypot(12, upper - 5);
        expect(Math.abs(meshArea(mesh) / (Math.PI * (5 + upper) * slant) - 1)).toBeLessThan(0.02);
        const corner = (i: number): Vec3 => [...mesh.positions.subarray(3 * i, 3 * i + 3)] as Vec3;
        for (let t = 0; t < mesh.triangles.length; t += 3) {
          const [p, q, r] = [0, 1, 2].map((k) => corner(at(mesh.triangles, t + k))) as [Vec3, Vec3, Vec3];
          const middle = scale(add(add(p, q), r), 1 / 3);
          const out = sub(middle, onAxis(dot(sub(middle, ORIGIN), AXIS)));
          expect(dot(cross(sub(q, p), sub(r, p)), out) > 0).toBe(!reversed);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('has each side of its rims once, and none besides where the seam is joined', () => {
    const edges = [
      rim(0, 5, { n: 30, from: 0.3, isBack: false }),
      rim(12, 5, { n: 48, from: 2, isBack: true }),
    ];
    const { model } = oneFace({ surface: cylinder, loops: WITHOUT_SEAM }, edges);
    const { positions, triangles } = meshModel(model);
    const place = (i: number): string =>
      [...positions.subarray(3 * i, 3 * i + 3)].map((v) => v.toFixed(4)).join();
    const open = new Set<string>();
    for (let t = 0; t < triangles.length; t += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [place(at(triangles, t + k)), place(at(triangles, t + ((k + 1) % 3)))];
        if (!open.delete(`${b}|${a}`)) open.add(`${a}|${b}`);
      }
    expect(open.size).toBe(30 + 48);
  });

  test('with a seam is the same', () => {
    const even = { n: 36, from: 0, isBack: false };
    const edges = [rim(0, 5, even), rim(12, 5, even)];
    const seam: BareEdge = {
      curve: { kind: 'line' },
      points: [at(edges[0]!.points, 0), at(edges[1]!.points, 0)],
    };
    const withSeam = oneFace({ surface: cylinder, loops: WITH_SEAM }, [...edges, seam]);
    const without = oneFace({ surface: cylinder, loops: WITHOUT_SEAM }, edges);
    expect(roundWall(withSeam.model, withSeam.face)).toEqual(roundWall(without.model, without.face));
  });

  test('is nothing else: a rim that waves, one rim alone, two at one height, another surface', () => {
    const even = { n: 36, from: 0, isBack: false };
    const wall = (surface: Surface, loops: Loop[], ...edges: BareEdge[]) => {
      const { model, face } = oneFace({ surface, loops }, edges);
      return roundWall(model, face);
    };
    const [low, high] = [rim(0, 5, even), rim(12, 5, even)];
    const waving: BareEdge = { ...high, curve: { kind: 'spline' } };
    expect(wall(cylinder, WITHOUT_SEAM, low, high)).not.toBeNull();
    expect(wall(cylinder, WITHOUT_SEAM, low, waving)).toBeNull();
    expect(wall(cylinder, WITHOUT_SEAM.slice(0, 1), low)).toBeNull();
    expect(wall(cylinder, WITHOUT_SEAM, low, rim(0, 5, even))).toBeNull();
    const ball: Surface = { kind: 'sphere', origin: ORIGIN, radius: 13 };
    expect(wall(ball, WITHOUT_SEAM, low, high)).toBeNull();
    // A circle beside the axis is no rim of it.
    const beside: BareEdge = circleEdge(add(onAxis(12), scale(X, 0.1)), AXIS, 5, { x: X });
    expect(wall(cylinder, WITHOUT_SEAM, low, beside)).toBeNull();
  });

  test('begins both rims where they are nearest: no triangle goes far round', () => {
    const edges = [
      rim(0, 5, { n: 40, from: 0, isBack: false }),
      rim(12, 5, { n: 40, from: 3, isBack: false }),
    ];
    const { model, face } = oneFace({ surface: cylinder, loops: WITHOUT_SEAM }, edges);
    const { flat, triangles } = roundWall(model, face)!;
    for (let t = 0; t < triangles.length; t += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [at(flat, at(triangles, t + k)), at(flat, at(triangles, t + ((k + 1) % 3)))];
        expect(distance(a.point, b.point)).toBeLessThan(Math.hypot(12, 2));
      }
  });
});
