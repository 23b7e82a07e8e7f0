import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BoxGrid, type Box2 } from './box-grid.ts';

describe('boxes in a grid', () => {
  const number = fc.oneof(
    fc.double({ min: -100, max: 100, noNaN: true }),
    fc.constantFrom(0, 1e7, -1e7, 4e40, -4e40, 1e308, Infinity, -Infinity),
  );

  it('finds every box that holds a point, at any distance from the origin', () => {
    const box = fc.tuple(number, number, number, number);
    fc.assert(
      fc.property(fc.array(box, { maxLength: 20 }), number, number, (boxes, x, y) => {
        const grid = new BoxGrid<Box2>(3);
        const sorted = boxes.map(([a, b, c, d]): Box2 => [
          Math.min(a, c),
          Math.min(b, d),
          Math.max(a, c),
          Math.max(b, d),
        ]);
        for (const b of sorted) grid.add(b, b);
        const near = grid.near(x, y, 0);
        for (const b of sorted)
          if (x >= b[0] && x <= b[2] && y >= b[1] && y <= b[3]) expect(near).toContain(b);
        expect(new Set(near).size).toBe(near.length);
      }),
    );
  });

  it('ends, and holds nothing that is no place', () => {
    const grid = new BoxGrid<string>(1e-6);
    grid.add('nowhere', [NaN, NaN, NaN, NaN]);
    grid.add('far', [4e40, 0, 4e40, 0]);
    expect(grid.near(NaN, 0, 0)).toEqual(['nowhere']);
    expect(grid.near(4e40, 0, 0)).toContain('far');
  });
});
