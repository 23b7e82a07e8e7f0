import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance2, type Segment, type Vec2 } from '../../geometry/path.ts';
import { alongEdge, leadPlace, type EdgeRun, type Lead } from './run.ts';
import { placesAlong, reachOver, shortStretches } from './reach.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const line = (from: Vec2, to: Vec2): Segment => ({ kind: 'line', from, to });
/** A square way, clockwise: to climb round an outside edge with that on its right. */
const SQUARE: Segment[] = [
  line([0, 10], [20, 10]),
  line([20, 10], [20, -10]),
  line([20, -10], [-20, -10]),
  line([-20, -10], [-20, 10]),
  line([-20, 10], [0, 10]),
];
const ring = (r: number, turn: number): Segment => ({
  kind: 'arc',
  from: [r, 0],
  to: [r, 0],
  centre: [0, 0],
  radius: r,
  turn,
});

describe('places along an edge', () => {
  it('know how far along they are, and which way the air is', () => {
    const places = placesAlong(SQUARE);
    expect(places.at(-1)!.along).toBeCloseTo(120, 2);
    for (const { at, out } of places) {
      // The square is run clockwise: its right is inside.
      expect(Math.hypot(...out)).toBeCloseTo(1, 9);
      expect(Math.abs(at[0] + 0.1 * out[0])).toBeLessThanOrEqual(Math.abs(at[0]) + 1e-9);
    }
    for (const { at, out } of placesAlong([ring(5, -2 * Math.PI)]))
      expect(at[0] * out[0] + at[1] * out[1]).toBeCloseTo(-5, 6);
  });

  it('are reached by as much as a cutter beside them is wider than it is away', () => {
    fc.assert(
      fc.property(number(0.5, 8), number(0.1, 8), number(-9, 9), (radius, away, x) => {
        const place = { at: [x, 0] as Vec2, out: [0, -1] as Vec2 };
        const own = reachOver({ from: [-10, -away], to: [10, -away], radii: [radius, radius] }, place);
        expect(own).toBeCloseTo(radius - away, 9);
        // On the other side it is no cutter of this edge, nor is one that is ahead of it.
        expect(reachOver({ from: [-10, away], to: [10, away], radii: [radius, radius] }, place)).toBe(
          -Infinity,
        );
        const ahead: Vec2 = [x + 3, -0.01];
        expect(reachOver({ from: ahead, to: [x + 9, -0.01], radii: [radius, radius] }, place)).toBe(
          -Infinity,
        );
      }),
    );
  });

  it('are reached by arcs as exactly', () => {
    fc.assert(
      fc.property(number(2, 9), number(0.2, 1.5), number(0, 6.28), (r, away, a) => {
        const at: Vec2 = [r * Math.cos(a), r * Math.sin(a)];
        const out: Vec2 = [-Math.cos(a), -Math.sin(a)];
        const own: Vec2 = [r - away, 0];
        const round = {
          from: own,
          to: own,
          radii: [1, 1] as const,
          arc: { centre: [0, 0] as Vec2, turn: 2 * Math.PI },
        };
        expect(reachOver(round, { at, out })).toBeCloseTo(1 - away, 9);
      }),
    );
  });

  it('that are not reached are told as stretches', () => {
    const places = [0, 1, 2, 3, 4, 5].map((along) => ({
      at: [along, 0] as Vec2,
      out: [0, -1] as Vec2,
      along,
    }));
    expect(shortStretches(places, [0, 0.3, 0.3, 0.1, 0, 0.3], 0.2)).toEqual([
      [0, 0],
      [3, 4],
    ]);
    expect(
      shortStretches(
        places,
        places.map(() => 1),
        0.2,
      ),
    ).toEqual([]);
  });
});

const run = (part: Partial<EdgeRun>): EdgeRun => ({
  way: SQUARE,
  closed: true,
  z: -1,
  above: 0.3,
  r: 2,
  on: { kind: 'arc', radius: 2 },
  off: { kind: 'arc', radius: 2 },
  fed: { feed: 'cut', cutter: 2, side: 'right' },
  ...part,
});
const ends = (r: EdgeRun): [number, number, number][] => {
  const pass = alongEdge(r);
  return [pass.start, ...pass.moves.flatMap((m) => (m.kind === 'dwell' ? [] : [m.to]))];
};

describe('the way along an edge', () => {
  it('comes on and goes off by quarter circles on the side of the air, past where it began', () => {
    const all = ends(run({}));
    const [start, down, on] = all;
    expect(start).toEqual([-2, 12, 2]);
    expect(down).toEqual([-2, 12, -1]);
    expect(on![0]).toBeCloseTo(0, 9);
    expect(on![1]).toBeCloseTo(10, 9);
    // A millimetre of it is gone over twice, then it leaves into the air.
    expect(all.at(-2)![0]).toBeCloseTo(1, 9);
    expect(all.at(-1)![0]).toBeCloseTo(3, 9);
    expect(all.at(-1)![1]).toBeCloseTo(12, 9);
    expect(all.slice(1).every((p) => p[2] === -1)).toBe(true);
  });

  it('comes down along the edge where there is no room beside it, and goes up so, and all of it is cut', () => {
    const all = ends(run({ on: { kind: 'along' }, off: { kind: 'along' } }));
    expect(all[0]).toEqual([0, 10, 2]);
    expect(all[1]).toEqual([0, 10, 0.3]);
    expect(all.at(-1)![2]).toBeCloseTo(0.3, 9);
    const deep = all.filter((p) => p[2] === -1);
    // The stretch on which it came down is gone over once more.
    expect(deep.filter((p) => Math.abs(p[1] - 10) < 1e-9 && p[0] > 0).length).toBeGreaterThan(1);
  });

  it('of an open run begins past its end, or down along it against its way', () => {
    const way = [line([0, 0], [30, 0])];
    const past = ends(run({ way, closed: false, on: { kind: 'past' }, off: { kind: 'past' } }));
    expect(past).toEqual([
      [0, 0, 2],
      [0, 0, -1],
      [30, 0, -1],
    ]);
    const along = ends(run({ way, closed: false, on: { kind: 'along' }, off: { kind: 'along' } }));
    expect(along[0]![0]).toBeGreaterThan(0);
    expect(along.find((p) => p[2] === -1)![0]).toBeCloseTo(0, 9);
    expect(along.at(-1)![2]).toBeCloseTo(0.3, 9);
  });

  it('begins where its lead does', () => {
    const lead: Lead = { kind: 'arc', radius: 3 };
    const p = leadPlace([line([0, 0], [10, 0])], 'from', lead, 'right');
    expect(distance2(p, [-3, 3])).toBeLessThan(1e-9);
    expect(leadPlace([line([0, 0], [10, 0])], 'to', { kind: 'past' }, 'right')).toEqual([10, 0]);
  });
});
