import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circle } from '../testing/ways.ts';
import { segmentLength, type Segment, type Vec2 } from './path.ts';
import {
  areaOf,
  bordersOf,
  bordersWithin,
  boxRegion,
  grown,
  isIn,
  piecesOf,
  regionOf,
  regionOfSection,
  within,
  without,
} from './region.ts';

const length = (chain: readonly Segment[]): number => chain.reduce((n, s) => n + segmentLength(s), 0);

describe('regions of the plane', () => {
  it('a grown box has round corners, as lines and arcs again', () => {
    const [border] = bordersOf(grown(boxRegion([0, 0], [40, 20]), 3));
    expect(border!.filter((s) => s.kind === 'arc')).toHaveLength(4);
    expect(border!.filter((s) => s.kind === 'line')).toHaveLength(4);
    for (const s of border!) if (s.kind === 'arc') expect(s.radius).toBeCloseTo(3, 2);
    expect(length(border!)).toBeCloseTo(2 * 60 + 2 * Math.PI * 3, 2);
  });

  it('a shrunk circle is a circle, within 0.005 mm, wherever it lies', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(-500, 500), number(-500, 500), number(3, 80), number(0.1, 2.5), (x, y, r, by) => {
        const borders = bordersOf(grown(regionOf([circle([x, y], r)]), -by));
        expect(borders).toHaveLength(1);
        for (const s of borders[0]!) {
          expect(s.kind).toBe('arc');
          if (s.kind !== 'arc') continue;
          expect(Math.abs(s.radius - (r - by))).toBeLessThan(0.005);
          expect(Math.hypot(s.centre[0] - x, s.centre[1] - y)).toBeLessThan(0.005);
        }
        expect(Math.abs(length(borders[0]!) - 2 * Math.PI * (r - by))).toBeLessThan(0.03);
      }),
    );
  });

  it("a mesh's section has its round walls back, though triangles cut its chords", () => {
    // A quarter of R8 by 12 chords; where a triangle's side crosses the cut there is one more point on a chord.
    const chords = 12;
    const corner = Array.from({ length: chords + 1 }, (_, i): Vec2 => {
      const a = -Math.PI / 2 + (i * Math.PI) / (2 * chords);
      return [32 + 8 * Math.cos(a), 8 + 8 * Math.sin(a)];
    });
    const cut = corner.flatMap((p, i): Vec2[] => {
      const q = corner[i + 1];
      return q ? [p, [p[0] + 0.9 * (q[0] - p[0]), p[1] + 0.9 * (q[1] - p[1])]] : [p];
    });
    const [border] = bordersOf(grown(regionOfSection([[[0, 0], ...cut, [40, 30], [0, 30]]]), 5));
    expect(border!.filter((s) => s.kind === 'line')).toHaveLength(4);
    const radii = border!.flatMap((s) => (s.kind === 'arc' ? [s.radius] : [])).sort((a, b) => a - b);
    expect(radii).toHaveLength(4);
    expect(radii.map((r) => Number(r.toFixed(2)))).toEqual([5, 5, 5, 13]);
  });

  it('a region with an island has a hole, and falls into pieces where it is narrow', () => {
    const ring = without(boxRegion([0, 0], [60, 60]), regionOf([circle([30, 30], 10)]));
    expect(areaOf(ring)).toBeCloseTo(3600 - Math.PI * 100, 0);
    expect(isIn(ring, [30, 30])).toBe(false);
    expect(isIn(ring, [5, 5])).toBe(true);
    expect(piecesOf(ring)).toHaveLength(1);
    expect(piecesOf(within(ring, boxRegion([0, 25], [60, 35])))).toHaveLength(2);
  });

  it('the stretches of a border in a room keep their sense, and are not cut where the border begins', () => {
    const box = boxRegion([0, 0], [40, 20]);
    const runs = bordersWithin(box, boxRegion([-5, -5], [20, 25]));
    expect(runs).toHaveLength(1);
    expect(length(runs[0]!.path)).toBeCloseTo(20 + 20 + 20, 3);
    // Counter-clockwise round the box: down its left side.
    expect(runs[0]!.path.map((s) => s.to[1] - s.from[1]).reduce((a, b) => Math.min(a, b))).toBeCloseTo(
      -20,
      3,
    );
    expect(bordersWithin(box, boxRegion([-5, -5], [50, 50]))).toMatchObject([{ closed: true }]);
  });
});
