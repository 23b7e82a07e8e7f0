import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { at } from '../lists.ts';
import { insideTest, signedArea, triangulateOutline, type Flat } from './triangulate.ts';

const flat = (u: number, v: number): Flat => ({ u, v, point: [u, v, 0] });
const circle = (u: number, v: number, r: number, n: number, start = 0): Flat[] =>
  Array.from({ length: n }, (_, i) => {
    const a = start + (2 * Math.PI * i) / n;
    return flat(u + r * Math.cos(a), v + r * Math.sin(a));
  });
const rectangle = (u: number, v: number, w: number, h: number): Flat[] => [
  flat(u, v),
  flat(u + w, v),
  flat(u + w, v + h),
  flat(u, v + h),
];
const areaOf = (corners: readonly Flat[], triangles: readonly number[]): number => {
  let area = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const t = [0, 1, 2].map((k) => at(corners, at(triangles, i + k)));
    area += Math.abs(signedArea(t)) / 2;
  }
  return area;
};
/** The least area of a triangle, negative where one is clockwise. */
const leastArea = (corners: readonly Flat[], triangles: readonly number[]): number => {
  let least = Infinity;
  for (let i = 0; i < triangles.length; i += 3)
    least = Math.min(least, signedArea([0, 1, 2].map((k) => at(corners, at(triangles, i + k)))) / 2);
  return least;
};
/** How many triangles have each side, by its corners. */
function sides(triangles: readonly number[]): Map<string, number> {
  const out = new Map<string, number>();
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at(triangles, i + k), at(triangles, i + ((k + 1) % 3))];
      const key = `${Math.min(a, b)}/${Math.max(a, b)}`;
      out.set(key, (out.get(key) ?? 0) + 1);
    }
  return out;
}

describe('triangles of an outline', () => {
  const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  /** A star about a middle, with a few round holes in its inner disc, set apart on a grid. */
  const star = fc
    .tuple(
      fc.array(real(10, 30), { minLength: 5, maxLength: 40 }),
      fc.integer({ min: 0, max: 9 }),
      real(0.2, 0.9),
    )
    .map(([radii, holes, r]) => {
      const outline = radii.map((l, i) => {
        const a = (2 * Math.PI * i) / radii.length;
        return flat(l * Math.cos(a), l * Math.sin(a));
      });
      const round = Array.from({ length: holes }, (_, i) =>
        circle(-2 + 2 * (i % 3), -2 + 2 * Math.floor(i / 3), r, 12).reverse(),
      );
      return [outline, ...round];
    });

  test('fill what is inside it and not its holes, and have every side of it once', () => {
    fc.assert(
      fc.property(star, (loops) => {
        const made = triangulateOutline(loops, []);
        const { flat: corners, triangles } = made!;
        expect(corners).toEqual(loops.flat());
        const inside = loops.reduce((sum, l) => sum + signedArea(l) / 2, 0);
        expect(areaOf(corners, triangles)).toBeCloseTo(inside, 6);
        expect(leastArea(corners, triangles)).toBeGreaterThan(-1e-9);
        const count = sides(triangles);
        let start = 0;
        for (const loop of loops) {
          loop.forEach((_, i) => {
            const [a, b] = [start + i, start + ((i + 1) % loop.length)];
            expect(count.get(`${Math.min(a, b)}/${Math.max(a, b)}`)).toBe(1);
          });
          start += loop.length;
        }
        // Every other side is between two of them.
        expect([...count.values()].filter((n) => n > 2)).toEqual([]);
        expect([...count.values()].filter((n) => n === 1)).toHaveLength(start);
      }),
    );
  });

  test('have inner points as corners', () => {
    const inner = [flat(2, 2), flat(5, 3), flat(8, 7)];
    const { flat: corners, triangles } = triangulateOutline([rectangle(0, 0, 10, 10)], inner)!;
    expect(corners.slice(4)).toEqual(inner);
    expect(new Set(triangles)).toEqual(new Set([0, 1, 2, 3, 4, 5, 6]));
    expect(leastArea(corners, triangles)).toBeGreaterThan(0);
    expect(areaOf(corners, triangles)).toBeCloseTo(100, 9);
  });

  test('between two level lines are zipped together, as many as there are sides', () => {
    const lower = Array.from({ length: 13 }, (_, i) => flat(i, 0));
    const upper = Array.from({ length: 7 }, (_, i) => flat(12 - 2 * i, 5));
    const { flat: corners, triangles } = triangulateOutline([[...lower, ...upper]], [])!;
    expect(triangles).toHaveLength(3 * (12 + 6));
    expect(areaOf(corners, triangles)).toBeCloseTo(60, 9);
    expect(leastArea(corners, triangles)).toBeGreaterThan(0);
    // Run the other way round they are counter-clockwise all the same.
    const back = triangulateOutline([[...lower, ...upper].reverse()], [])!;
    expect(leastArea(back.flat, back.triangles)).toBeGreaterThan(0);
  });

  test('where an outline touches itself, or its side is no side of the nearest triangles', () => {
    // Two squares that share a corner, run as one outline.
    const bow = [
      flat(0, 0),
      flat(4, 0),
      flat(4, 4),
      flat(8, 4),
      flat(8, 8),
      flat(4, 8),
      flat(4, 4),
      flat(0, 4),
    ];
    const touching = triangulateOutline([bow], [])!;
    expect(areaOf(touching.flat, touching.triangles)).toBeCloseTo(32, 9);
    // A long side with corners of another outline close beside it.
    const holes = Array.from({ length: 9 }, (_, i) => rectangle(10 * i + 5, 0.01, 1, 1).reverse());
    const close = triangulateOutline([rectangle(0, 0, 100, 20), ...holes], [])!;
    expect(areaOf(close.flat, close.triangles)).toBeCloseTo(2000 - 9, 9);
    expect(leastArea(close.flat, close.triangles)).toBeGreaterThan(0);
  });

  test('that crosses another are none', () => {
    const crossed = [rectangle(0, 0, 10, 10), rectangle(5, 5, 10, 10)];
    expect(triangulateOutline(crossed, [])).toBeNull();
  });
});

test('a place is inside by the sides between it and infinity', () => {
  const inside = insideTest([rectangle(0, 0, 10, 10), rectangle(2, 2, 6, 6), rectangle(4, 4, 2, 2)]);
  expect([inside(1, 5), inside(3, 5), inside(5, 5), inside(11, 5), inside(5, -1)]).toEqual([
    true,
    false,
    true,
    false,
    false,
  ]);
});

test('areas are signed by the way round', () => {
  expect(signedArea(rectangle(1, 1, 3, 2))).toBe(12);
  expect(signedArea(rectangle(1, 1, 3, 2).reverse())).toBe(-12);
});
