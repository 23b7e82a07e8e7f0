import { describe, expect, it } from 'vitest';
import { hole } from '../testing/fixtures.ts';
import { crossing } from './crossing.ts';

const down = hole({ depth: 40, entry: [0, 0, 0], stack: [{ shape: 'cylinder', diameter: 6, length: 40 }] });
const side = (z: number, y = 0, depth = 50, diameter = 10) =>
  hole({
    axis: [1, 0, 0],
    entry: [25, y, z],
    depth,
    stack: [{ shape: 'cylinder', diameter, length: depth }],
  });

describe('crossing', () => {
  it('is as long as the other hole is wide, about where the axes meet', () => {
    expect(crossing(down, side(-20))).toEqual({ top: 15, end: 25 });
    expect(crossing(side(-20), down)).toEqual({ top: 22, end: 28 });
  });
  it('is cut at the hole’s own end, and grows where the other leans', () => {
    expect(crossing(down, side(-38))).toEqual({ top: 33, end: 40 });
    const leaning = hole({ ...side(-20), axis: [Math.SQRT1_2, 0, Math.SQRT1_2], entry: [20, 0, 0] });
    const found = crossing(down, leaning)!;
    expect(found.end - found.top).toBeCloseTo(2 * (5 + 3 * Math.SQRT1_2) * Math.SQRT2, 6);
  });
  it('is none beside, beyond its end or along the same direction', () => {
    expect(crossing(down, side(-20, 8.1))).toBeNull();
    expect(crossing(down, side(-20, 7.9))).not.toBeNull();
    expect(crossing(down, side(-20, 0, 20))).toBeNull();
    expect(crossing(down, hole({ entry: [2, 0, 0] }))).toBeNull();
  });
});
