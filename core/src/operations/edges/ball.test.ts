import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, type Vec3 } from '../../geometry/vec.ts';
import { ballAt, besideLine, hollowOf, thinned } from './ball.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** A level edge along X whose faces meet at an angle: the one above looks up, the wall is turned by it. */
const edge = (turn: number) => ({
  at: [0, 0, 0] as Vec3,
  up: [0, 0, 1] as Vec3,
  out: [0, Math.sin(turn), Math.cos(turn)] as Vec3,
});

describe('a ball on an edge', () => {
  it('passes through both ends of the break, and leaves a hollow as deep as the sagitta of their chord', () => {
    fc.assert(
      fc.property(number(0.8, 2.2), number(0.1, 1), number(1.5, 6), (turn, width, radius) => {
        const p = edge(turn);
        const middle = ballAt(p, width, radius)!;
        // Inward in the face above, and down the wall.
        expect(distance(middle, [0, -width, 0])).toBeCloseTo(radius, 9);
        const down: Vec3 = [0, width * Math.cos(turn), -width * Math.sin(turn)];
        expect(distance(middle, down)).toBeCloseTo(radius, 9);
        const s = distance([0, -width, 0], down);
        expect(hollowOf(p, width, radius)).toBeCloseTo(radius - Math.sqrt(radius * radius - (s * s) / 4), 9);
      }),
    );
  });

  it('of ⌀6 on a square edge of 0.5 leaves a hollow of 0.0209', () => {
    expect(hollowOf(edge(Math.PI / 2), 0.5, 3)).toBeCloseTo(3 - Math.sqrt(9 - 0.125), 9);
    expect(hollowOf(edge(Math.PI / 2), 0.5, 3)).toBeCloseTo(0.0209, 4);
  });

  it('that is too small for the width has no place', () => {
    expect(ballAt(edge(Math.PI / 2), 2, 1)).toBeNull();
    expect(hollowOf(edge(Math.PI / 2), 2, 1)).toBe(Infinity);
  });
});

describe('a thinned chain', () => {
  it('keeps its ends, and no point lies farther off it than is said', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(number(-9, 9), number(-9, 9), number(-9, 9)), { minLength: 2, maxLength: 40 }),
        number(0.01, 2),
        (points, tolerance) => {
          const chain = points as Vec3[];
          const kept = thinned(chain, tolerance);
          expect(kept[0]).toBe(chain[0]);
          expect(kept.at(-1)).toBe(chain.at(-1));
          for (const p of chain) {
            const off = Math.min(...kept.slice(1).map((q, i) => besideLine(p, kept[i]!, q)));
            expect(off).toBeLessThanOrEqual(tolerance + 1e-9);
          }
        },
      ),
    );
  });
});
