import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coneBands } from './bands.ts';

const M16 = { top: 0, wide: 31, narrow: 17, slope: 1 };

describe('the circles that cut a cone', () => {
  it('are one where the flank reaches the whole of it: tip v + c deep, centre rt + c off the wall (90°)', () => {
    const small = { ...M16, wide: 20 };
    expect(coneBands(small, 2, 7, 0.4, 9)).toEqual([{ tip: 1.5 + 0.4, radius: 8.5 - 1.4 }]);
  });

  it('never leave the cone, reach its rim, and overlap', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 20, noNaN: true }),
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 1, max: 8, noNaN: true }),
        fc.constantFrom(60, 82, 90, 120),
        (narrow, more, flank, angle) => {
          const slope = Math.tan((angle * Math.PI) / 360);
          const cone = { top: 1, wide: narrow + 2 * more, narrow, slope };
          const bands = coneBands(cone, 0.5, flank, 0.3, 1.5);
          const height = more / slope;
          // Where a flank of each circle is at a depth: centre + tip/2 + height above the tip × slope.
          const wallAt = (b: (typeof bands)[number], depth: number) =>
            b.radius + 0.25 + (b.tip - depth) * slope;
          for (const [i, b] of bands.entries()) {
            for (const depth of [1, 1 + height / 2, 1 + height])
              expect(wallAt(b, depth)).toBeCloseTo(narrow / 2 + (1 + height - depth) * slope, 6);
            const next = bands[i + 1];
            if (next) expect(b.tip - next.tip).toBeLessThanOrEqual(flank - 0.3 + 1e-9);
          }
          const last = bands[bands.length - 1]!;
          expect(last.tip - flank).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
    );
  });

  it('are none where no flank is left above the tip', () =>
    expect(coneBands(M16, 2, 0.3, 0.4, 2)).toEqual([]));
});
