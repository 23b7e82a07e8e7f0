import { beforeAll, describe, expect, it } from 'vitest';
import { makeSphere, type Shape3D } from 'replicad';
import { isHole } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { readStep } from '@yellow-pin/kernel';
import { asSplines } from './as-splines.ts';
import { withoutSeams } from './without-seams.ts';
import { blind, box, cutAll, prepare, stepText, straight, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];
beforeAll(prepare);

const holesOf = async (body: Shape3D, change: (text: string) => string = (t) => t) => {
  const model = await readStep(new TextEncoder().encode(change(await stepText([body], 'fixture'))));
  return { holes: recognise(model).features.filter(isHole), notes: model.notes };
};

describe('the end of a hole', () => {
  const drilled = () => cutAll(box([0, 0, -30], [60, 40, 0]), [turned(blind(8, 18), [20, 20, 0], UP)]);

  it('a drill point stored as a spline is a cone to its apex', async () => {
    const { holes } = await holesOf(drilled(), asSplines);
    expect(holes).toHaveLength(1);
    expect(holes[0]!.bottom.shape).toBe('cone');
    expect(holes[0]!.bottom).toMatchObject({ angle: expect.closeTo(118, 1) as number });
    expect(holes[0]!.depth).toBeCloseTo(18, 2);
  });

  it.each(['own', 'kernel'] as const)(
    'a ball end stored as a spline is a ball to its pole, by the reader %s',
    async (reader) => {
      const ended = cutAll(box([0, 0, -30], [60, 40, 0]), [
        turned(straight(8, 14), [20, 20, 0], UP),
        makeSphere(4).translate([20, 20, -14]) as unknown as Shape3D,
      ]);
      const text = await stepText([ended], 'fixture');
      const read = async (t: string) => {
        const model = await readStep(new TextEncoder().encode(t), { reader });
        const { features } = recognise(model);
        return features
          .filter(isHole)
          .map(({ bottom, depth, stack }) => ({ bottom, depth: depth.toFixed(3), stack: stack.length }));
      };
      const plain = await read(text);
      expect(plain.map((h) => h.bottom.shape)).toEqual(['ball']);
      expect(asSplines(text)).toContain('(3,2,3)');
      expect(await read(asSplines(text))).toEqual(plain);
      if (reader === 'own') expect(await read(withoutSeams(text))).toEqual(plain);
    },
  );

  it('is never called flat where its surface is not understood', async () => {
    // A dented floor: a large ball off the axis cut into the end.
    const dented = cutAll(box([0, 0, -30], [60, 40, 0]), [
      turned(straight(8, 18), [20, 20, 0], UP),
      makeSphere(9).translate([22, 21, -12]) as unknown as Shape3D,
    ]);
    const { holes } = await holesOf(dented);
    for (const h of holes) expect(h.bottom.shape).not.toBe('flat');
  });
});
