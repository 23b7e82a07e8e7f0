import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arcSweep, chordStep } from './arc.ts';

const angle = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });

describe('arcSweep', () => {
  it('is a quarter one way and three quarters the other, with whole turns on top', () => {
    expect(arcSweep(0, Math.PI / 2, false, 0)).toBeCloseTo(Math.PI / 2, 12);
    expect(arcSweep(0, Math.PI / 2, true, 0)).toBeCloseTo(-1.5 * Math.PI, 12);
    expect(arcSweep(0, Math.PI / 2, false, 2)).toBeCloseTo(4.5 * Math.PI, 12);
  });

  it('of a full circle counts its turns once: one, and three', () => {
    expect(arcSweep(1, 1, false, 0)).toBeCloseTo(2 * Math.PI, 12);
    expect(arcSweep(1, 1, false, 1)).toBeCloseTo(2 * Math.PI, 12);
    expect(arcSweep(1, 1, true, 3)).toBeCloseTo(-6 * Math.PI, 12);
    // Pi and minus pi are one place.
    expect(arcSweep(Math.PI, -Math.PI, false, 0)).toBeCloseTo(2 * Math.PI, 12);
  });

  it('leads from the one angle to the other, never by nothing (property)', () => {
    fc.assert(
      fc.property(angle, angle, fc.boolean(), fc.integer({ min: 0, max: 9 }), (a, b, clockwise, turns) => {
        const sweep = arcSweep(a, b, clockwise, turns);
        expect(Math.sign(sweep)).toBe(clockwise ? -1 : 1);
        expect(Math.cos(a + sweep)).toBeCloseTo(Math.cos(b), 6);
        expect(Math.sin(a + sweep)).toBeCloseTo(Math.sin(b), 6);
      }),
    );
  });
});

describe('chordStep', () => {
  it('lies as far beside its arc as is allowed, and no farther (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 500, noNaN: true }),
        fc.double({ min: 0.001, max: 0.05, noNaN: true }),
        (radius, sagitta) => {
          expect(radius * (1 - Math.cos(chordStep(radius, sagitta) / 2))).toBeCloseTo(sagitta, 9);
        },
      ),
    );
  });
});
