import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shortestTour, tourLength, type Point } from './tour.ts';

const points = fc.array(fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 200 })), {
  minLength: 1,
  maxLength: 60,
});

function bestByTrying(list: readonly Point[]): number {
  const rest = list.map((_, i) => i).slice(1);
  let best = Infinity;
  const go = (path: number[], left: number[]): void => {
    if (left.length === 0) best = Math.min(best, tourLength(list, path));
    for (const i of left)
      go(
        [...path, i],
        left.filter((k) => k !== i),
      );
  };
  go([0], rest);
  return best;
}

describe('shortestTour', () => {
  it('visits every point once, the first one first', () => {
    fc.assert(
      fc.property(points, (list) => {
        const { order, length } = shortestTour(list);
        expect(order[0]).toBe(0);
        expect([...order].sort((a, b) => a - b)).toEqual(list.map((_, i) => i));
        expect(length).toBeCloseTo(tourLength(list, order), 6);
      }),
    );
  });

  it('finds the shortest of few points', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 50 })), {
          minLength: 3,
          maxLength: 7,
        }),
        (list) => {
          expect(shortestTour(list, 400).length).toBeLessThanOrEqual(bestByTrying(list) + 1e-6);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('goes along a grid without crossing back', () => {
    const grid: Point[] = Array.from(
      { length: 100 },
      (_, i) => [(i * 7) % 10, Math.floor(((i * 37) % 100) / 10)] as const,
    );
    const unique = [...new Map(grid.map((p) => [p.join(), p])).values()];
    expect(shortestTour(unique).length).toBeLessThan((unique.length - 1) * 1.15);
  });

  it('gives the same answer twice, and takes heights', () => {
    const list: Point[] = Array.from(
      { length: 40 },
      (_, i) => [(i * 17) % 23, (i * 29) % 31, (i * 3) % 5] as const,
    );
    expect(shortestTour(list)).toEqual(shortestTour(list));
  });

  it('takes none, one and equal points', () => {
    expect(shortestTour([])).toEqual({ order: [], length: 0 });
    expect(shortestTour([[1, 2]]).order).toEqual([0]);
    expect(
      shortestTour([
        [1, 1],
        [1, 1],
        [1, 1],
        [1, 1],
      ]).length,
    ).toBe(0);
  });
});
