import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PartMesh } from '../model/mesh.ts';
import { meshModel } from '../model/mesh.ts';
import { boxModel } from '../testing/box-model.ts';
import { heightsOf } from './heights.ts';

const FRAME = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;
const frame = {
  ...FRAME,
  origin: [...FRAME.origin],
  x: [...FRAME.x],
  y: [...FRAME.y],
  z: [...FRAME.z],
} as Parameters<typeof heightsOf>[1];
const box = heightsOf(meshModel(boxModel([0, 0, -10], [20, 10, 5])), frame);

/** A mesh of single triangles. */
function soup(corners: number[][]): PartMesh {
  const positions = Float32Array.from(corners.flat());
  const count = corners.length;
  return {
    positions,
    normals: new Float32Array(positions.length),
    triangles: Uint32Array.from({ length: count }, (_, i) => i),
    faceOf: new Uint32Array(count / 3),
    failed: [],
  };
}

describe('heights', () => {
  it('sees a box from above, beside it and past it', () => {
    expect(box.top).toBe(5);
    expect(box.along(10, 5, 10, 5, 1, -Infinity)).toBe(5);
    expect(box.along(22, 5, 22, 5, 1, -Infinity)).toBe(-Infinity);
    expect(box.along(22, 5, 22, 5, 2.001, -Infinity)).toBe(5);
    expect(box.along(-5, 20, 30, 20, 9.9, -Infinity)).toBe(-Infinity);
    expect(box.along(-5, 20, 30, 20, 10.1, -Infinity)).toBe(5);
    expect(box.along(-5, -5, 30, 20, 0.1, -Infinity)).toBe(5);
    expect(box.along(10, 5, 10, 5, 1, 5)).toBe(-Infinity);
  });

  it('a ring leaves its middle out', () => {
    const post = heightsOf(meshModel(boxModel([-1, -1, 0], [1, 1, 8])), frame);
    expect(post.ring(0, 0, 1.5, 5, -Infinity)).toBe(-Infinity);
    expect(post.ring(0, 0, 1.2, 5, -Infinity)).toBe(8);
    expect(post.ring(3, 0, 0, 1.9, -Infinity)).toBe(-Infinity);
  });

  it('is the highest of dense samples, never below any, for any triangles', () => {
    const coordinate = fc.integer({ min: -40, max: 40 }).map((v) => v / 4);
    const corner = fc.tuple(coordinate, coordinate, coordinate).map((p) => [...p]);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(corner, corner, corner), { minLength: 1, maxLength: 12 }),
        fc.tuple(coordinate, coordinate, coordinate, coordinate),
        fc.integer({ min: 1, max: 20 }).map((v) => v / 4),
        fc.integer({ min: 0, max: 9 }).map((v) => v / 10),
        (triangles, [ax, ay, bx, by], r, share) => {
          const heights = heightsOf(soup(triangles.flat()), frame);
          const [along, inner] = [heights.along(ax, ay, bx, by, r, -Infinity), share * r];
          const ring = heights.ring(ax, ay, inner, r, -Infinity);
          let [sampled, sampledRing] = [-Infinity, -Infinity];
          const N = 24;
          for (const [a, b, c] of triangles) {
            for (let i = 0; i <= N; i++) {
              for (let k = 0; k + i <= N; k++) {
                const at = [0, 1, 2].map(
                  (n) => a![n]! + (i / N) * (b![n]! - a![n]!) + (k / N) * (c![n]! - a![n]!),
                );
                const [x, y, z] = at as [number, number, number];
                const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
                const s =
                  l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l2)) : 0;
                if (Math.hypot(x - ax - s * (bx - ax), y - ay - s * (by - ay)) < r - 1e-6)
                  sampled = Math.max(sampled, z);
                const d = Math.hypot(x - ax, y - ay);
                if (d > inner + 1e-6 && d < r - 1e-6) sampledRing = Math.max(sampledRing, z);
              }
            }
          }
          expect(along).toBeGreaterThanOrEqual(sampled - 1e-6);
          expect(ring).toBeGreaterThanOrEqual(sampledRing - 1e-6);
          // What it says is there: a little wider, samples come near it.
          if (along > -Infinity)
            expect(along).toBeLessThanOrEqual(Math.max(...triangles.flat().map((p) => p[2]!)));
          expect(ring).toBeLessThanOrEqual(heights.along(ax, ay, ax, ay, r, -Infinity) + 1e-6);
        },
      ),
      { numRuns: 150 },
    );
  });
});
