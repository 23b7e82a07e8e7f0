import fc from 'fast-check';
import { expect, test } from 'vitest';
import { cross, dot, normalize, sub, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import type { PartMesh } from './mesh.ts';
import { rayCaster } from './ray.ts';

const coordinate = fc.integer({ min: -2000, max: 2000 }).map((v) => v / 16);
const point = fc.tuple(coordinate, coordinate, coordinate);
const triangle = fc.tuple(point, point, point);

function meshOf(triangles: readonly (readonly [Vec3, Vec3, Vec3])[]): PartMesh {
  const positions = Float32Array.from(triangles.flat(2));
  return {
    positions,
    normals: new Float32Array(positions.length),
    triangles: Uint32Array.from(triangles.flat(), (_, i) => i),
    faceOf: new Uint32Array(triangles.length),
    failed: [],
  };
}

/** By the plane of the triangle and the three sides of the place in it. */
function hit(origin: Vec3, direction: Vec3, [a, b, c]: readonly [Vec3, Vec3, Vec3]): number {
  const n = cross(sub(b, a), sub(c, a));
  const along = dot(n, direction);
  if (Math.abs(along) < 1e-9) return Infinity;
  const t = dot(n, sub(a, origin)) / along;
  const p: Vec3 = [0, 1, 2].map((k) => at(origin, k) + t * at(direction, k)) as Vec3;
  const sides = [
    [a, b],
    [b, c],
    [c, a],
  ].map(([from, to]) => dot(n, cross(sub(to!, from!), sub(p, from!))));
  // Nearer to a side than this it is as good on either side of it.
  if (sides.some((s) => Math.abs(s) < 1e-6 * dot(n, n))) return NaN;
  return t > 1e-6 && sides.every((s) => s > 0) ? t : Infinity;
}

test('a ray meets what it meets first when every triangle is asked', () => {
  fc.assert(
    fc.property(
      fc.array(triangle, { maxLength: 60 }),
      point,
      point.filter((d) => dot(d, d) > 0.1),
      (triangles, origin, towards) => {
        const direction = normalize(towards);
        const all = triangles.map((t) => hit(origin, direction, t));
        fc.pre(!all.some(Number.isNaN));
        const nearest = Math.min(Infinity, ...all);
        const found = rayCaster(meshOf(triangles)).firstHit(origin, direction);
        if (nearest === Infinity) expect(found).toBeNull();
        else expect(found).toBeCloseTo(nearest, 5);
      },
    ),
    { numRuns: 500 },
  );
});

test('nothing farther than the limit counts', () => {
  const wall: [Vec3, Vec3, Vec3] = [
    [10, -5, -5],
    [10, 5, -5],
    [10, 0, 5],
  ];
  const rays = rayCaster(meshOf([wall]));
  expect(rays.firstHit([0, 0, 0], [1, 0, 0])).toBeCloseTo(10, 9);
  expect(rays.firstHit([0, 0, 0], [1, 0, 0], 9.9)).toBeNull();
  expect(rays.firstHit([0, 0, 0], [-1, 0, 0])).toBeNull();
});

test('many triangles in one place, and none, are no trouble', () => {
  const one: [Vec3, Vec3, Vec3] = [
    [0, 0, 3],
    [1, 0, 3],
    [0, 1, 3],
  ];
  const rays = rayCaster(meshOf(Array.from({ length: 300 }, () => one)));
  expect(rays.firstHit([0.2, 0.2, 0], [0, 0, 1])).toBeCloseTo(3, 6);
  expect(rayCaster(meshOf([])).firstHit([0, 0, 0], [0, 0, 1])).toBeNull();
});
