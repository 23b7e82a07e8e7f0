import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  acrossOf,
  clearances,
  contactOf,
  dropOf,
  LEAST_CLEARANCE,
  mostClearance,
  slopeOf,
  type Flank,
} from './flank.ts';

const flank = (tipDiameter: number, angleDeg: number, height = 10): Flank => ({
  tip: tipDiameter / 2,
  slope: slopeOf(angleDeg),
  height,
  angleDeg,
});
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('a flank on an edge', () => {
  it('of 90°, tip ⌀2, for 0.5 with 0.4 below stands at −0.9, 1.4 beside the wall (handbook)', () => {
    const f = flank(2, 90);
    const drop = dropOf(0.5, f.slope);
    const contact = contactOf(f, { inset: 0.5, drop }, 0.4);
    expect(-contact.deep).toBeCloseTo(-0.9, 9);
    expect(contact.offset).toBeCloseTo(1.4, 9);
  });

  it('of 60°, tip ⌀1, for 0.5 with 0.4 below stands at −1.2660, 0.7309 beside the wall (handbook)', () => {
    const f = flank(1, 60);
    const drop = dropOf(0.5, f.slope);
    const contact = contactOf(f, { inset: 0.5, drop }, 0.4);
    expect(drop).toBeCloseTo(0.866, 4);
    expect(-contact.deep).toBeCloseTo(-1.266, 4);
    expect(contact.offset).toBeCloseTo(0.7309, 4);
  });

  it('leaves a width along the slope of w/sin(a) (handbook)', () => {
    fc.assert(
      fc.property(number(0.05, 5), number(20, 140), (width, angle) => {
        const along = width / Math.sin((angle * Math.PI) / 360);
        expect(acrossOf(along, slopeOf(angle))).toBeCloseTo(width, 9);
      }),
    );
  });

  it('passes through both ends of the chamfer, however high it touches', () => {
    fc.assert(
      fc.property(
        number(0, 4),
        number(50, 120),
        number(0.05, 3),
        number(0, 2),
        number(-40, 20),
        (tip, angle, width, clearance, lean) => {
          const f = flank(tip, angle);
          const drop = dropOf(width, f.slope, lean);
          const { deep, offset } = contactOf(f, { inset: width, drop }, clearance);
          /** Where the flank is at a depth below the top, outward from the upper edge. */
          const flankAt = (depth: number): number => offset - (f.tip + (deep - depth) * f.slope);
          expect(flankAt(0)).toBeCloseTo(-width, 9);
          expect(flankAt(drop)).toBeCloseTo(drop * Math.tan((lean * Math.PI) / 180), 9);
        },
      ),
    );
  });

  it('meets no wall that leans as much as itself', () => {
    expect(dropOf(0.5, slopeOf(90), 45)).toBe(Infinity);
    expect(dropOf(0.5, slopeOf(60), 45)).toBe(Infinity);
    expect(dropOf(0.5, slopeOf(90), 44)).toBeGreaterThan(10);
  });
});

describe('tip clearance', () => {
  it('is tried from the usual one down, and never leaves less than the chamfer on the flank', () => {
    fc.assert(
      fc.property(number(0.2, 12), number(0.05, 6), (height, drop) => {
        const f = flank(1, 90, height);
        const tried = clearances(f, drop);
        expect(tried.length === 0).toBe(mostClearance(f, drop) < LEAST_CLEARANCE);
        for (const c of tried) expect(c + drop).toBeLessThan(height);
        expect([...tried].sort((a, b) => b - a)).toEqual(tried);
      }),
    );
  });
});
