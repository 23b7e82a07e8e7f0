import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { distance, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import { pieceAt, piecesOf, reversed, type Chain } from './chain.ts';
import { curvePoint } from './evaluate.ts';
import type { BrepCurve, Placement } from './geometry.ts';

const place: Placement = { origin: [1, 2, 3], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] };
const CURVES: BrepCurve[] = [
  { kind: 'line', origin: [1, 2, 3], direction: [2, -1, 0.5] },
  { kind: 'circle', at: place, radius: 3 },
  { kind: 'ellipse', at: place, major: 4, minor: 1.5 },
  { kind: 'parabola', at: place, focal: 0.7 },
  { kind: 'hyperbola', at: place, major: 2, minor: 1 },
  {
    kind: 'nurbs',
    nurbs: {
      degree: 2,
      poles: [
        [0, 0, 0],
        [1, 2, 0],
        [3, 2, 1],
        [4, 0, 2],
      ],
      weights: [1, 2, 1, 0.5],
      knots: [0, 0, 0, 0.3, 1, 1, 1],
    },
  },
];
const chain: Chain = {
  kind: 'chain',
  closed: false,
  pieces: CURVES.map((curve) => ({ curve, first: 0.1, last: 0.9 })),
};

describe('a curve run the other way', () => {
  test.each([...CURVES, chain].map((c) => [c.kind, c] as const))('a %s has the same places', (_, c) => {
    const back = reversed(c)!;
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), (u) => {
        expect(distance(curvePoint(back.curve, back.parameter(u)), curvePoint(c, u))).toBeLessThan(1e-9);
      }),
    );
    // Toward larger parameters it goes the other way.
    expect(back.parameter(0.2)).toBeGreaterThan(back.parameter(0.8));
  });

  test('an offset one has none: it lies on a side of its way', () => {
    expect(reversed({ kind: 'offset', distance: 1, direction: [0, 0, 1], basis: at(CURVES, 0) })).toBeNull();
  });
});

describe('a chain', () => {
  const ends = (c: Chain, from: number, to: number): Vec3[][] =>
    piecesOf(c, from, to).map((p) => [curvePoint(p.curve, p.first), curvePoint(p.curve, p.last)]);

  test('counts its pieces', () => {
    expect(pieceAt(chain, 2.5)).toMatchObject({ curve: { kind: 'ellipse' }, u: 0.5 });
    expect(pieceAt(chain, 6)).toMatchObject({ curve: { kind: 'nurbs' }, u: 0.9 });
  });

  test('a stretch of it is made of what it runs through, and of nothing where it ends at a joint', () => {
    expect(piecesOf(chain, 1, 3).map((p) => p.curve.kind)).toEqual(['circle', 'ellipse']);
    expect(piecesOf(chain, 1 - 1e-12, 2 + 1e-12).map((p) => p.curve.kind)).toEqual(['circle']);
    const [only] = piecesOf(chain, 0.25, 0.75);
    expect(only?.first).toBeCloseTo(0.3, 12);
    expect(only?.last).toBeCloseTo(0.7, 12);
  });

  test('a closed one goes on where it began', () => {
    const line = (a: Vec3, b: Vec3): BrepCurve => ({
      kind: 'line',
      origin: a,
      direction: [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
    });
    const corners: Vec3[] = [
      [0, 0, 0],
      [3, 0, 0],
      [0, 4, 0],
    ];
    const round: Chain = {
      kind: 'chain',
      closed: true,
      pieces: corners.map((p, i) => ({ curve: line(p, at(corners, (i + 1) % 3)), first: 0, last: 1 })),
    };
    expect(ends(round, 2.5, 3.5)).toEqual([
      [
        [0, 2, 0],
        [0, 0, 0],
      ],
      [
        [0, 0, 0],
        [1.5, 0, 0],
      ],
    ]);
  });
});
