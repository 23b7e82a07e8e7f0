import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { union, without } from './cavities.ts';
import { Crossings } from './crossings.ts';
import { MetalGrid } from './grid.ts';
import { PlaceList } from './place-list.ts';
import { squareToTriangle } from './triangle.ts';

/** Intervals from any numbers: sorted, so that each is low and high. */
const pairs = fc
  .array(fc.integer({ min: -50, max: 50 }), { maxLength: 12 })
  .map((v) => v.slice(0, v.length - (v.length % 2)))
  .map((v) =>
    union(v.flatMap((_, n) => (n % 2 === 0 ? [Math.min(v[n]!, v[n + 1]!), Math.max(v[n]!, v[n + 1]!)] : []))),
  )
  .map((v) => v.filter((_, n) => v[n - (n % 2)] !== v[n - (n % 2) + 1]));
const holds = (p: readonly number[], z: number): boolean =>
  p.some((_, n) => n % 2 === 0 && z > p[n]! && z < p[n + 1]!);
const between = Array.from({ length: 101 }, (_, k) => k - 50.5);

describe('intervals', () => {
  it('put together and taken apart hold what each point says (property)', () => {
    fc.assert(
      fc.property(pairs, pairs, (a, b) => {
        const [both, rest] = [union([...a, ...b]), without(a, b)];
        for (const z of between) {
          expect(holds(both, z)).toBe(holds(a, z) || holds(b, z));
          expect(holds(rest, z)).toBe(holds(a, z) && !holds(b, z));
        }
        for (const list of [both, rest])
          for (let n = 1; n < list.length; n++) expect(list[n]!).toBeGreaterThan(list[n - 1]!);
      }),
    );
  });

  it('of a grid’s column are what cuts leave of it, whatever their order (property)', () => {
    const cuts = fc.array(fc.tuple(fc.integer({ min: -40, max: 5 }), fc.integer({ min: 1, max: 15 })), {
      maxLength: 25,
    });
    fc.assert(
      fc.property(cuts, (list) => {
        const grid = new MetalGrid({ x0: 0, y0: 0, cell: 1, nx: 1, ny: 1 }, () => [-30, 0], 0);
        let left: number[] = [-30, 0];
        let length = 0;
        for (const [n, [low, height]] of list.entries()) {
          if (n % 5 === 4) grid.settle();
          if (grid.take(0, 0, low, low + height, n + 1)) length += grid.taken.length;
          left = without(left, [low, low + height]);
        }
        expect(grid.column(0, 0)).toEqual(left);
        const kept = left.reduce((s, z, n) => s + (n % 2 === 0 ? -z : z), 0);
        expect(length).toBeCloseTo(30 - kept, 6);
        expect(grid.makers(0, 0)).toHaveLength(left.length);
        expect(grid.lost).toBe(0);
      }),
    );
  });

  it('that are only looked at stay', () => {
    const grid = new MetalGrid({ x0: 0, y0: 0, cell: 1, nx: 1, ny: 1 }, () => [-30, 0], 0);
    expect(grid.take(0, 0, -20, -10, 1, false)).toBe(true);
    expect(grid.taken).toEqual({ length: 10, low: -20, high: -10 });
    expect(grid.column(0, 0)).toEqual([-30, 0]);
  });
});

describe('crossings of a column', () => {
  const packed = (...list: [z: number, face: number, up: number][]) => {
    const c = new Crossings();
    c.clear();
    for (const [z, face, up] of list) c.add(5, z, face, up);
    const { start, z, face, open } = c.pack();
    return {
      z: [...z.slice(start[5], start[6])],
      face: [...face.slice(start[5], start[6])],
      isOpen: open[5] === 1,
    };
  };

  it('become what lies between them, in any order', () => {
    expect(packed([0, 1, 1], [-30, 2, -1])).toEqual({ z: [-30, 0], face: [2, 1], isOpen: false });
    expect(packed([-10, 3, 1], [0, 1, 1], [-30, 2, -1], [-5, 4, -1]).z).toEqual([-30, -10, -5, 0]);
  });

  it('of bodies that touch or overlap are one', () => {
    expect(packed([-30, 1, -1], [-10, 2, 1], [-10, 3, -1], [0, 4, 1]).z).toEqual([-30, 0]);
    expect(packed([-30, 1, -1], [-20, 2, -1], [-10, 3, 1], [0, 4, 1]).z).toEqual([-30, 0]);
  });

  it('that do not close say nothing, and say so', () => {
    expect(packed([0, 1, 1], [-30, 2, -1], [-5, 3, -1])).toEqual({ z: [], face: [], isOpen: true });
  });
});

describe('places', () => {
  it('are found at every point of their box (property)', () => {
    const number = fc.double({ min: -200, max: 200, noNaN: true });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        number,
        number,
        fc.double({ min: 0, max: 40, noNaN: true }),
        share,
        share,
        (x, y, size, u, v) => {
          const list = new PlaceList<string>(4);
          list.add('it', [x, y, x + size, y + size]);
          expect(list.at(x + u * size, y + v * size)).toEqual(['it']);
          expect(list.at(x + size + 9, y)).toEqual([]);
        },
      ),
    );
  });
});

describe('a run of columns', () => {
  it('loses what each of them would lose alone (property)', () => {
    const height = fc.integer({ min: -30, max: 4 });
    const cut = fc.tuple(height, height, fc.integer({ min: 0, max: 7 }), fc.integer({ min: 0, max: 7 }));
    const place = { x0: 0, y0: 0, cell: 1, nx: 8, ny: 1 };
    fc.assert(
      fc.property(fc.array(cut, { maxLength: 12 }), (cuts) => {
        const [one, other] = [0, 1].map(() => new MetalGrid(place, () => [-30, 0], 0)) as [
          MetalGrid,
          MetalGrid,
        ];
        for (const [n, [a, b, i, k]] of cuts.entries()) {
          const [low, high, first, last] = [Math.min(a, b), Math.max(a, b), Math.min(i, k), Math.max(i, k)];
          let sum = 0;
          for (let c = first; c <= last; c++) if (one.take(c, 0, low, high, n + 1)) sum += one.taken.length;
          expect(other.takeRun(first, last, 0, low, high, n + 1)).toBeCloseTo(sum, 9);
        }
        for (let c = 0; c < 8; c++) {
          expect(other.column(c, 0)).toEqual(one.column(c, 0));
          expect(other.makers(c, 0)).toEqual(one.makers(c, 0));
        }
        expect(other.takeChanged()).toEqual(one.takeChanged());
      }),
    );
  });
});

describe('a triangle', () => {
  it('is as far from a point as its nearest place: no place of it is nearer (property)', () => {
    const number = fc.double({ min: -10, max: 10, noNaN: true });
    fc.assert(
      fc.property(fc.array(number, { minLength: 9, maxLength: 9 }), number, number, number, (t, x, y, z) => {
        const square = squareToTriangle(Float64Array.from(t), 0, 3, 6, x, y, z, Infinity);
        for (let i = 0; i <= 8; i++)
          for (let j = 0; j <= 8 - i; j++) {
            const p = [0, 1, 2].map(
              (k) => t[k]! + (i / 8) * (t[3 + k]! - t[k]!) + (j / 8) * (t[6 + k]! - t[k]!),
            );
            const here = (p[0]! - x) ** 2 + (p[1]! - y) ** 2 + (p[2]! - z) ** 2;
            expect(square).toBeLessThanOrEqual(here + 1e-7 * (1 + here));
          }
      }),
    );
  });

  it('that has shrunk to a line or a point still has a distance', () => {
    const to = (t: number[]) => squareToTriangle(Float64Array.from(t), 0, 3, 6, 3, 4, 0, Infinity);
    expect(to([0, 0, 0, 0, 0, 0, 0, 0, 0])).toBe(25);
    expect(to([0, 0, 0, 0, 0, 0, 6, 0, 0])).toBeCloseTo(16);
    expect(to([0, 0, 0, 6, 0, 0, 6, 0, 0])).toBeCloseTo(16);
    expect(to([3, 0, 0, 3, 4, 0, 3, 8, 0])).toBeCloseTo(0);
    expect(to([0, 0, 0, 1e-200, 0, 0, 0, 1e-200, 0])).toBe(25);
    // A needle: two of its corners lie on the line through the first, but for roundings.
    expect(to([3, 4, -6e-41, 3, 4, 9.998, 3, 4, 9.99999])).toBeCloseTo(0);
  });
});
