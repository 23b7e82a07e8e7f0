import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, first, last } from '../lists.ts';
import { besidePath, extendedPath, parallelPath } from './parallel.ts';
import { distance2, pathLength, segmentPoint, type Segment, type Vec2 } from './path.ts';

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A chain without corners: lines and arcs by turns, each as long as said. */
function chain(pieces: readonly { length: number; turn: number }[]): Segment[] {
  const out: Segment[] = [];
  let [p, a]: [Vec2, number] = [[0, 0], 0];
  for (const { length, turn } of pieces) {
    const line: Segment = {
      kind: 'line',
      from: p,
      to: [p[0] + length * Math.cos(a), p[1] + length * Math.sin(a)],
    };
    const radius = 12;
    const sense = Math.sign(turn);
    const centre: Vec2 = [
      line.to[0] - sense * radius * Math.sin(a),
      line.to[1] + sense * radius * Math.cos(a),
    ];
    a += turn;
    const to: Vec2 = [centre[0] + sense * radius * Math.sin(a), centre[1] - sense * radius * Math.cos(a)];
    out.push(line, { kind: 'arc', from: line.to, to, centre, radius, turn });
    p = to;
  }
  return out;
}
const chains = fc
  .array(fc.record({ length: num(3, 30), turn: fc.oneof(num(0.2, 0.9), num(-0.9, -0.2)) }), {
    minLength: 1,
    maxLength: 4,
  })
  .map(chain);

describe('a parallel curve', () => {
  it('keeps its distance all along, to the side that is asked for', () => {
    fc.assert(
      fc.property(chains, num(-10, 10), num(0, 1), (path, off, share) => {
        fc.pre(Math.abs(off) > 0.01);
        const moved = parallelPath(path, off, false)!;
        expect(moved).toHaveLength(path.length);
        moved.forEach((s, i) => {
          const own = besidePath([at(path, i)], segmentPoint(s, share));
          expect(own.off).toBeCloseTo(off, 6);
          if (i > 0) expect(distance2(s.from, at(moved, i - 1).to)).toBeLessThan(1e-6);
        });
      }),
    );
  });

  it('has a sharp corner where the inside of a bend leaves no arc', () => {
    const bend = chain([
      { length: 20, turn: Math.PI / 2 },
      { length: 20, turn: 0.3 },
    ]).slice(0, 3);
    const inside = parallelPath(bend, 15, false)!;
    expect(inside.map((s) => s.kind)).toEqual(['line', 'line']);
    // 12 of radius before the corner, 15 beside each line: both lines are 3 shorter than to the arc's ends.
    expect(inside[0]!.to[0]).toBeCloseTo(17, 9);
    expect(inside[0]!.to[1]).toBeCloseTo(15, 9);
    expect(inside[1]!.from).toEqual(inside[0]!.to);
  });

  it('says nothing where there is none', () => {
    const ring: Segment[] = [
      { kind: 'arc', from: [10, 0], to: [10, 0], centre: [0, 0], radius: 10, turn: 2 * Math.PI },
    ];
    expect(parallelPath(ring, 10, true)).toBeNull();
    expect(parallelPath(ring, -4, true)).toMatchObject([{ radius: 14, from: [14, 0], to: [14, 0] }]);
  });
});

describe('a place beside a chain', () => {
  it('is beyond an end only past the first or last piece', () => {
    const path = chain([{ length: 20, turn: 0.5 }]);
    expect(besidePath(path, [-3, 0])).toEqual({ off: 3, beyond: 'start' });
    expect(besidePath(path, [10, -2])).toEqual({ off: -2, beyond: null });
    const end = last(extendedPath(path, 0, 5)).to;
    expect(besidePath(path, end)).toMatchObject({ beyond: 'end' });
    expect(Math.abs(besidePath(path, end).off)).toBeCloseTo(5, 9);
  });

  it('is lengthened on its tangents', () => {
    fc.assert(
      fc.property(chains, num(0.1, 9), num(0.1, 9), (path, a, b) => {
        const long = extendedPath(path, a, b);
        expect(pathLength(long)).toBeCloseTo(pathLength(path) + a + b, 6);
        expect(Math.abs(besidePath(path, first(long).from).off)).toBeCloseTo(a, 6);
      }),
    );
  });
});
