import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LEVEL_ORDERS, levelCount, levelTips } from './levels.ts';

describe('levels of a groove', () => {
  it('are as many as the handbook counts', () => {
    expect(levelCount(12, 5, 0)).toBe(3);
    expect(levelCount(12, 5, 0.5)).toBe(3);
    expect(levelCount(9, 4.5, 0)).toBe(2);
    expect(levelCount(9, 4, 1)).toBe(3);
    expect(levelCount(5, 5, 0.5)).toBe(1);
    expect(() => levelCount(9, 4, 4)).toThrow(/come to no end/);
  });

  it('leave nothing between them, from the ceiling to the floor, in whatever order', () => {
    const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        size(2, 40),
        size(0.05, 1),
        size(0, 0.8),
        fc.constantFrom(...LEVEL_ORDERS),
        (h, share, part, order) => {
          const cutter = h * share;
          const overlap = part * cutter;
          fc.pre((h - overlap) / (cutter - overlap) < 200);
          const tips = levelTips(0, -h, cutter, overlap, order);
          const sorted = [...tips].sort((a, b) => b - a);
          expect(sorted[0]! + cutter).toBeCloseTo(0, 9);
          expect(sorted.at(-1)).toBeCloseTo(-h, 9);
          sorted
            .slice(1)
            .forEach((z, i) => expect(sorted[i]! - z).toBeLessThanOrEqual(cutter - overlap + 1e-9));
        },
      ),
    );
  });

  it('begin where they are told to', () => {
    expect(levelTips(0, -12, 4, 0, 'downward')).toEqual([-4, -8, -12]);
    expect(levelTips(0, -12, 4, 0, 'upward')).toEqual([-12, -8, -4]);
    expect(levelTips(0, -12, 4, 0, 'from the middle')).toEqual([-8, -4, -12]);
  });
});
