import { beforeAll, describe, expect, it } from 'vitest';
import type { Shape3D } from 'replicad';
import { isHole } from '@yellow-pin/core/features/family';
import type { HoleFeature } from '@yellow-pin/core/features/hole/schema';
import { recognise } from '@yellow-pin/core/features/recognise';
import { readStep } from '@yellow-pin/kernel';
import { blind, box, cutAll, prepare, stepText, straight, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];
const FRONT: Point = [0, -1, 0];
beforeAll(prepare);

async function holesOf(body: Shape3D): Promise<HoleFeature[]> {
  const model = await readStep(new TextEncoder().encode(await stepText([body], 'fixture')));
  return recognise(model).features.filter(isHole);
}
const block = () => box([0, 0, -60], [80, 60, 0]);
const along = (holes: HoleFeature[], axis: Point) =>
  holes.filter((h) => h.axis.every((v, i) => Math.abs(v - axis[i]!) < 1e-6));

describe('bores crossed by bores', () => {
  it.each([
    ['through its middle, smaller', 0, 6],
    ['through its middle, as wide', 0, 10],
    ['through its middle, wider', 0, 16],
    ['off its middle, smaller', 3, 6],
    ['off its middle, as wide', 3, 10],
    ['off its middle, wider', 4, 16],
    ['off its middle, grazing', 9, 10],
  ])('%s: one cylinder over its whole depth', async (_, off, width) => {
    const body = cutAll(block(), [
      turned(blind(10, 40), [40, 30, 0], UP),
      turned(straight(width, 61), [40 + off, 0, -20], FRONT, 1),
    ]);
    const [bore, ...rest] = along(await holesOf(body), UP);
    expect(rest).toEqual([]);
    expect(bore!.stack).toEqual([{ shape: 'cylinder', diameter: 10, length: 40 }]);
    expect(bore!.depth).toBeCloseTo(40, 2);
    expect(bore!.bottom.shape).toBe('cone');
    expect(bore!.interrupted).toBe(true);
  });

  it.each([
    ['at its middle', 0],
    ['off its middle', 4],
  ])('a hole that ends inside a crossing bore is entered from outside, %s', async (_, off) => {
    // The ⌀6 hole from the top ends in the ⌀16 bore from the front.
    const body = cutAll(block(), [
      turned(straight(16, 61), [40, 0, -30], FRONT, 1),
      turned(straight(6, 30), [40 + off, 30, 0], UP),
    ]);
    const holes = await holesOf(body);
    const [small] = holes.filter((h) => h.stack.some((s) => s.shape === 'cylinder' && s.diameter === 6));
    expect(small).toBeDefined();
    expect(small!.axis).toEqual([0, 0, 1]);
    expect(small!.entry[2]).toBeCloseTo(0, 6);
    expect(small!.reachableFrom).toContainEqual([0, 0, 1]);
    expect(small!.kind).toBe('through');
  });

  it('from below too: the side that can be drilled is the entry', async () => {
    const body = cutAll(block(), [
      turned(straight(16, 61), [40, 0, -30], FRONT, 1),
      turned(straight(6, 30), [40, 30, -60], [0, 0, -1]),
    ]);
    const [small] = (await holesOf(body)).filter((h) =>
      h.stack.some((s) => s.shape === 'cylinder' && s.diameter === 6),
    );
    expect(small!.axis).toEqual([0, 0, -1]);
    expect(small!.entry[2]).toBeCloseTo(-60, 6);
    expect(small!.reachableFrom).toEqual([[0, 0, -1]]);
  });

  it('a drilled point that breaks into a bore keeps its depth', async () => {
    const body = cutAll(block(), [
      turned(straight(16, 61), [40, 0, -30], FRONT, 1),
      turned(blind(6, 24), [40, 30, 0], UP),
    ]);
    const [small] = (await holesOf(body)).filter((h) =>
      h.stack.some((s) => s.shape === 'cylinder' && s.diameter === 6),
    );
    expect(small!.axis).toEqual([0, 0, 1]);
    expect(small!.reachableFrom).toContainEqual([0, 0, 1]);
  });

  it('a drilled point that only grazes a bore is a blind hole with its point', async () => {
    const body = cutAll(box([0, 0, -60], [80, 60, 0]), [
      turned(straight(25, 80), [50, 30, 0], UP, 1),
      turned(blind(6, 23), [80, 20, -20], [1, 0, 0]),
    ]);
    const [small] = (await holesOf(body)).filter((h) => h.axis[0] === 1);
    expect(small!.kind).toBe('blind');
    expect(small!.bottom).toMatchObject({ shape: 'cone', angle: expect.closeTo(118, 3) as number });
    expect(small!.depth).toBeCloseTo(23, 2);
    expect(small!.interrupted).toBe(true);
  });
});
