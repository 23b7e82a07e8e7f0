import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blockSide, PaintBlocks } from './paint.ts';

describe('blocks of a difference', () => {
  it('gather the columns in them, as high as the highest and as low as the lowest', () => {
    const blocks = new PaintBlocks(0.5);
    blocks.add(0.1, 0.1, -3, -2);
    blocks.add(0.4, 0.4, -5, -4);
    blocks.add(-0.1, 0.1, -1, 0);
    expect([...blocks.blocks()]).toEqual([0.25, 0.25, -5, -2, -0.25, 0.25, -1, 0]);
  });
  it('hold every column that was added (property)', () => {
    const v = fc.double({ min: -900, max: 900, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(v, v, v), { minLength: 1, maxLength: 40 }), (columns) => {
        const side = blockSide(0.1);
        const blocks = new PaintBlocks(side);
        for (const [x, y, z] of columns) blocks.add(x, y, z - 1, z);
        const b = blocks.blocks();
        for (const [x, y, z] of columns) {
          let isIn = false;
          for (let n = 0; n < b.length; n += 4)
            isIn ||=
              Math.abs(b[n]! - x) <= side / 2 + 1e-3 &&
              Math.abs(b[n + 1]! - y) <= side / 2 + 1e-3 &&
              b[n + 2]! <= z - 1 + 1e-3 &&
              b[n + 3]! >= z - 1e-3;
          expect(isIn).toBe(true);
        }
      }),
    );
  });
});
