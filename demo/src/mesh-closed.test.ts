import { beforeAll, describe, expect, it } from 'vitest';
import { meshModel, meshVolume, type PartMesh } from '@yellow-pin/core/model/mesh';
import { readStep } from '@yellow-pin/kernel';
import { plateStep } from './plate-step.ts';
import { blind, box, cutAll, prepare, straight, sunk, turned } from './solids.ts';
import { UP } from './stored-parts.ts';
import { encode, modelOf } from './model-of.ts';

beforeAll(prepare);

describe('mesh', () => {
  it('has no cracks and the right volume', async () => {
    const model = await readStep(encode(plateStep({ holes: 9 })));
    const mesh = meshModel(model);
    expect(mesh.failed).toEqual([]);
    expect(openEdges(mesh)).toBe(0);
    const exact = 30 * 30 * 20 - (5 * 20 + 4 * 10) * Math.PI * 6.25;
    expect(Math.abs(meshVolume(mesh) / exact - 1)).toBeLessThan(0.005);
  });

  it('has no cracks on cones, steps and crossing bores', async () => {
    const body = cutAll(box([0, 0, -40], [60, 60, 0]), [
      turned(sunk(blind(10, 24), 14), [30, 30, 0], UP),
      turned(straight(8, 70), [0, 30, -15], [-1, 0, 0]),
    ]);
    const mesh = meshModel(await modelOf([body]));
    expect(mesh.failed).toEqual([]);
    expect(openEdges(mesh)).toBe(0);
  });
});

/** Sides of triangles that no other triangle shares, corners joined by place. */
function openEdges(mesh: PartMesh): number {
  const ids = new Map<string, number>();
  const id = (i: number): number => {
    const key = [0, 1, 2].map((k) => Math.round(mesh.positions[3 * i + k]! * 1e4)).join();
    if (!ids.has(key)) ids.set(key, ids.size);
    return ids.get(key)!;
  };
  const uses = new Map<string, number>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const c = [0, 1, 2].map((k) => id(mesh.triangles[t + k]!));
    if (new Set(c).size < 3) continue;
    for (let k = 0; k < 3; k++) {
      const [a, b] = [c[k]!, c[(k + 1) % 3]!];
      const key = a < b ? `${a}/${b}` : `${b}/${a}`;
      uses.set(key, (uses.get(key) ?? 0) + (a < b ? 1 : -1));
    }
  }
  return [...uses.values()].filter((n) => n !== 0).length;
}
