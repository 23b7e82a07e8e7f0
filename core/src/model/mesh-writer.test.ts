import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Vec3 } from '../geometry/vec.ts';
import { MeshWriter } from './mesh-writer.ts';
import type { Face } from './solid-model.ts';
import type { Flat } from './triangulate.ts';

const face: Face = {
  solid: 0,
  surface: { kind: 'cylinder', origin: [0, 0, 0], axis: [0, 0, 1], radius: 5 },
  reversed: true,
  loops: [],
};
const flat = (...points: Vec3[]): Flat[] => points.map((point) => ({ u: 0, v: 0, point }));
const [a, b, c, d]: [Vec3, Vec3, Vec3, Vec3] = [
  [5, 0, 0],
  [0, 5, 0],
  [0, 5, 3],
  [5, 0, 3],
];

describe('a mesh written face by face', () => {
  test('has its corners, the surface’s normals away from the metal, and each triangle’s face', () => {
    const writer = new MeshWriter(8);
    writer.addFace(face, flat(a, b, c), [0, 2, 1]);
    writer.endFace(4);
    writer.addFace(face, flat(a, b, c, d), [0, 2, 1, 0, 3, 2]);
    writer.endFace(7);
    const mesh = writer.mesh();
    expect([...mesh.positions]).toEqual([a, b, c, a, b, c, d].flat());
    // A bore's wall looks toward its axis.
    expect([...mesh.normals.subarray(0, 6)].map((v) => v + 0)).toEqual([-1, 0, 0, 0, -1, 0]);
    expect([...mesh.triangles]).toEqual([0, 2, 1, 3, 5, 4, 3, 6, 5]);
    expect([...mesh.faceOf]).toEqual([4, 7, 7]);
  });

  test('takes a free-form face’s own triangles, and none from one that has none', () => {
    const writer = new MeshWriter(1);
    expect(writer.addFreeform({ positions: [], normals: [], triangles: [] })).toBe(false);
    writer.addFace(face, flat(a, b, c), [0, 2, 1]);
    writer.endFace(0);
    const own = { positions: [a, b, d].flat(), normals: [a, b, d].flat(), triangles: [2, 1, 0] };
    expect(writer.addFreeform(own)).toBe(true);
    writer.endFace(1);
    const mesh = writer.mesh();
    expect([...mesh.triangles]).toEqual([0, 2, 1, 5, 4, 3]);
    expect([...mesh.positions.subarray(9)]).toEqual(own.positions);
    expect([...mesh.faceOf]).toEqual([0, 1]);
  });

  test('is the same however much room it was given at first', () => {
    const faces = fc.array(fc.integer({ min: 3, max: 40 }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(faces, fc.integer({ min: 0, max: 2000 }), (sizes, room) => {
        const written = (corners: number) => {
          const writer = new MeshWriter(corners);
          sizes.forEach((n, f) => {
            const points = Array.from({ length: n }, (_, i): Vec3 => [5 + i, f, i]);
            const fan = Array.from({ length: n - 2 }, (_, i) => [0, i + 1, i + 2]).flat();
            writer.addFace(face, flat(...points), fan);
            writer.endFace(f);
          });
          return writer.mesh();
        };
        const mesh = written(room);
        expect(mesh).toEqual(written(1));
        expect(mesh.faceOf).toHaveLength(sizes.reduce((sum, n) => sum + n - 2, 0));
      }),
    );
  });
});
