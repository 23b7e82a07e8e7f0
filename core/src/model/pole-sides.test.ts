import { expect, test } from 'vitest';
import type { Vec3 } from '../geometry/vec.ts';
import { modelFromCone } from '../testing/cone-model.ts';
import { meshArea, meshModel } from './mesh.ts';
import { stretchPoles, withoutFlat } from './pole-sides.ts';
import type { Flat } from './triangulate.ts';

const flat = (u: number, v: number): Flat => ({ u, v, point: [u, v, 0] });
const tip: Vec3 = [0, 0, -5];
const at = (u: number): Flat => ({ u, v: -5, point: tip });

test('a pole’s side is stretched where the border beside it rises and falls, and not where it is level', () => {
  const wavy = [[flat(0, 0), flat(6, 3), flat(12, 0), at(12), at(0)]];
  expect(stretchPoles(wavy, 1)).toBe(true);
  const [loop] = wavy;
  expect(loop!.filter((f) => f.point === tip).map((f) => f.u)).toEqual([
    12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0,
  ]);
  const level = [[flat(0, 0), flat(6, 0), flat(12, 0), at(12), at(0)]];
  expect(stretchPoles(level, 1)).toBe(false);
  expect(level[0]).toHaveLength(5);
  const none = [[flat(0, 0), flat(6, 3), flat(12, 0)]];
  expect(stretchPoles(none, 1)).toBe(false);
});

test('triangles with two corners in the pole are none', () => {
  const corners = [at(0), at(1), flat(0, 0), flat(1, 0)];
  expect(withoutFlat([0, 1, 2, 1, 2, 3], corners)).toEqual([1, 2, 3]);
});

test('a cone’s tip has its area where the cut across it leaves hardly any of one side', () => {
  // Cut square to a line that leans: an ellipse round the axis, near to the tip on one side and far from it on the other.
  for (const lean of [0, 0.3, 0.6, 0.8]) {
    const { model, area } = modelFromCone(lean);
    const mesh = meshModel(model);
    expect(mesh.failed).toEqual([]);
    expect(Math.abs(meshArea(mesh) / area - 1)).toBeLessThan(0.01);
  }
});
