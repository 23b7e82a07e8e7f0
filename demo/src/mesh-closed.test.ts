import { beforeAll, describe, expect, it } from 'vitest';
import { meshModel, meshVolume } from '@yellow-pin/core/model/mesh';
import { readStep } from '@yellow-pin/kernel';
import { openSides } from './open-sides.ts';
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
    expect(openSides(mesh)).toBe(0);
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
    expect(openSides(mesh)).toBe(0);
  });
});
