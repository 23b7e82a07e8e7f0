import type { Shape3D } from 'replicad';
import { describe, expect, it } from 'vitest';
import { isBoss } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { readStep } from '@yellow-pin/kernel';
import { asSplines } from './as-splines.ts';
import { box, cutAll, prepare, stepText, straight, turned, type Point } from './solids.ts';

await prepare();

const UP: Point = [0, 0, 1];
const peg = (diameter: number, height: number, at: Point, axis: Point = UP): Shape3D =>
  turned(
    [
      [0, diameter / 2],
      [height, diameter / 2],
    ],
    at,
    axis,
    0,
  );
const fused = (...bodies: Shape3D[]): Shape3D => bodies.reduce((a, b) => a.fuse(b) as Shape3D);

async function bossesOf(body: Shape3D, unit: 'MM' | 'INCH' = 'MM', change = (t: string) => t) {
  const text = change(await stepText([body], 'bosses', unit));
  return recognise(await readStep(new TextEncoder().encode(text))).features.filter(isBoss);
}

/** A plate with a plain boss ⌀20 × 15 and one ⌀30 × 12 with a bore through it. */
const plate = (): Shape3D =>
  cutAll(fused(box([0, 0, -20], [120, 60, 0]), peg(20, 16, [30, 30, 15]), peg(30, 13, [80, 30, 12])), [
    turned(straight(12, 40), [80, 30, 12], UP),
  ]);

describe('bosses', () => {
  it.each([
    ['as modelled', 'MM', (t: string) => t],
    ['in inches', 'INCH', (t: string) => t],
    ['as splines', 'MM', asSplines],
  ] as const)('are convex cylinders with a free end: %s', async (_, unit, change) => {
    const found = await bossesOf(plate(), unit, change);
    expect(found.map((b) => [b.diameter, b.height, b.bottom, b.chamfer])).toEqual([
      [expect.closeTo(20, 3), expect.closeTo(15, 3), 'shoulder', null],
      [expect.closeTo(30, 3), expect.closeTo(12, 3), 'shoulder', null],
    ]);
    for (const b of found) expect(b.axis.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 0, 1]);
  });

  it('are found in any attitude, with their chamfer', async () => {
    const chamfered = fused(
      box([0, 0, -20], [60, 60, 0]),
      turned(
        [
          [0, 9],
          [1, 10],
          [16, 10],
        ],
        [30, 30, 15],
        UP,
        0,
      ),
    );
    const [b] = await bossesOf(chamfered.rotate(37, [0, 0, 0], [1, 2, 0.5]) as Shape3D);
    expect(b).toMatchObject({ height: expect.closeTo(15, 3), bottom: 'shoulder' });
    expect(b!.chamfer).toEqual({ length: expect.closeTo(1, 3), diameter: expect.closeTo(18, 3) });
  });

  it('are reached from where nothing stands over them; a pin is free at both ends', async () => {
    const bridged = fused(
      box([0, 0, -20], [60, 60, 0]),
      peg(20, 16, [30, 30, 15]),
      box([0, 0, 15], [60, 60, 20]),
    );
    expect(await bossesOf(bridged)).toEqual([]);
    const [pin] = await bossesOf(peg(20, 50, [0, 0, 50]));
    expect(pin).toMatchObject({ bottom: 'open', height: 50 });
    expect(pin!.reachableFrom).toHaveLength(2);
  });

  it('are no islands of grooves, and no corners of blocks', async () => {
    const ring = turned(straight(40, 5), [30, 30, 0], UP).cut(peg(24, 20, [30, 30, 1])) as Shape3D;
    expect(await bossesOf(cutAll(box([0, 0, -20], [60, 60, 0]), [ring]))).toEqual([]);
  });
});
