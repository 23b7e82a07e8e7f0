import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besidePath } from './parallel.ts';
import { boxOfSegment, PathIndex } from './path-index.ts';
import { segmentPoint, type Segment, type Vec2 } from './path.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const arcs = fc
  .record({
    r: number(0.5, 20),
    start: number(0, 6.28),
    turn: fc.oneof(number(0.1, 6.2), number(-6.2, -0.1)),
  })
  .map(({ r, start, turn }): Segment => {
    const at = (a: number): Vec2 => [r * Math.cos(a), r * Math.sin(a)];
    return { kind: 'arc', from: at(start), to: at(start + turn), centre: [0, 0], radius: r, turn };
  });

describe('a chain that is looked up', () => {
  it('lies within the boxes of its pieces', () => {
    fc.assert(
      fc.property(arcs, number(0, 1), (s, share) => {
        const [x0, y0, x1, y1] = boxOfSegment(s);
        const [x, y] = segmentPoint(s, share);
        expect(x).toBeGreaterThanOrEqual(x0 - 1e-9);
        expect(x).toBeLessThanOrEqual(x1 + 1e-9);
        expect(y).toBeGreaterThanOrEqual(y0 - 1e-9);
        expect(y).toBeLessThanOrEqual(y1 + 1e-9);
      }),
    );
  });

  it('is as far away as it is, up to how far is asked', () => {
    fc.assert(
      fc.property(
        fc.array(arcs, { minLength: 1, maxLength: 6 }),
        number(-30, 30),
        number(-30, 30),
        number(0.5, 9),
        (path, x, y, within) => {
          const off = Math.abs(besidePath(path, [x, y]).off);
          const found = new PathIndex(path, 4).distance([x, y], within);
          if (off <= within) expect(found).toBeCloseTo(off, 9);
          else expect(found).toBe(Infinity);
        },
      ),
    );
  });
});
