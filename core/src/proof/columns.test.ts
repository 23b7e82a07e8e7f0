import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Disc } from '../tools/profile.ts';
import { Columns } from './columns.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const cutting = (r: number, z = 0): Disc => ({ part: 'cutting', r, z });

describe('what was drilled so far', () => {
  it('holds a disc that is no wider, no lower and far enough inside, and no other', () => {
    fc.assert(
      fc.property(
        number(-40, 40),
        number(-40, 40),
        number(1, 12),
        number(-30, -1),
        number(0.2, 14),
        number(0, 12),
        number(0, 6.28),
        number(-32, 4),
        (x, y, r, tip, disc, off, angle, z) => {
          const columns = new Columns();
          columns.cut([cutting(r)], x, y, tip);
          const free = columns.isFree(x + off * Math.cos(angle), y + off * Math.sin(angle), disc, z);
          // Within a hundredth of the border either answer will do.
          const room = Math.min(r - disc - off, z - tip);
          if (room > 0.01) expect(free).toBe(true);
          if (room < -0.06) expect(free).toBe(false);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('is as wide as each part of a tool was at its height: a counterbore is no hole below', () => {
    const columns = new Columns();
    columns.cut([cutting(4)], 0, 0, -20);
    columns.cut([cutting(9)], 0, 0, -6);
    expect(columns.isFree(0, 0, 9, -5)).toBe(true);
    expect(columns.isFree(0, 0, 9, -7)).toBe(false);
    expect(columns.isFree(0, 0, 4, -19)).toBe(true);
    expect(columns.isFree(3, 0, 4, -5)).toBe(true);
    expect(columns.isFree(3, 0, 4, -19)).toBe(false);
  });

  it('is not cut by a shank, and keeps what a shallower cut after it does not change', () => {
    const columns = new Columns();
    columns.cut([cutting(3), { part: 'shank', r: 8, z: 20 }], 0, 0, -30);
    expect(columns.isFree(0, 0, 8, -5)).toBe(false);
    columns.cut([cutting(3)], 0, 0, -4);
    expect(columns.isFree(0, 0, 3, -29)).toBe(true);
  });

  it('is found from the cells about it, however they lie', () => {
    for (const [x, y] of [
      [9.99, 9.99],
      [-0.01, 20.01],
      [10, -10],
    ] as const) {
      const columns = new Columns();
      columns.cut([cutting(12)], x, y, -5);
      expect(columns.isFree(x + 7, y - 7, 2, -4)).toBe(true);
      expect(columns.isFree(x + 12, y, 2, -4)).toBe(false);
    }
  });
});
