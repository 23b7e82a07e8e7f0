import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nearestPairs, PlaceIndex } from './place-index.ts';
import { distance, type Vec3 } from './vec.ts';

const place = fc
  .tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 3 }))
  .map((p): Vec3 => [p[0] / 10, p[1] / 10, p[2] / 10]);

describe('places', () => {
  it('near is what a look at all of them finds', () => {
    fc.assert(
      fc.property(fc.array(place, { maxLength: 40 }), place, (points, at) => {
        const index = new PlaceIndex<number>(0.5);
        points.forEach((p, i) => index.add(i, p));
        points.forEach((p, i) => i % 5 === 0 && index.remove(i, p));
        const all = points.flatMap((p, i) => (i % 5 !== 0 && distance(p, at) < 0.45 ? [i] : []));
        expect(index.near(at, 0.45).sort((a, b) => a - b)).toEqual(all);
      }),
    );
  });

  it('pairs everyone once, the very nearest pair among them', () => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 1, maxLength: 25 }),
        fc.array(place, { minLength: 1, maxLength: 25 }),
        (a, b) => {
          const pairs = nearestPairs(
            a.map((at, item) => ({ item, at })),
            b.map((at, item) => ({ item, at })),
          );
          expect(pairs).toHaveLength(Math.min(a.length, b.length));
          expect(new Set(pairs.map((p) => p[0])).size).toBe(pairs.length);
          expect(new Set(pairs.map((p) => p[1])).size).toBe(pairs.length);
          const least = Math.min(...a.flatMap((p) => b.map((q) => distance(p, q))));
          expect(Math.min(...pairs.map(([i, k]) => distance(a[i]!, b[k]!)))).toBeCloseTo(least, 9);
        },
      ),
    );
  });
});
