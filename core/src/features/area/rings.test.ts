import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Segment, Vec2 } from '../../geometry/path.ts';
import { at } from '../../lists.ts';
import {
  boxAlongLongest,
  cornerRadius,
  insidePoint,
  isWithin,
  reachAlong,
  ringArea,
  ringPoints,
  wallCount,
  wallRuns,
} from './rings.ts';

const line = (from: Vec2, to: Vec2): Segment => ({ kind: 'line', from, to });
const polygon = (...points: Vec2[]): Segment[] =>
  points.map((p, i) => line(p, at(points, (i + 1) % points.length)));
const rectangle = (x: number, y: number, w: number, h: number): Segment[] =>
  polygon([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const arc = (centre: Vec2, radius: number, from: number, turn: number): Segment => {
  const on = (a: number): Vec2 => [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
  return { kind: 'arc', centre, radius, turn, from: on(from), to: on(from + turn) };
};
const QUARTER = Math.PI / 2;
/** A rectangle from the origin with round corners, counter-clockwise: the air is on the left, inside. */
const rounded = (w: number, h: number, r: number): Segment[] => [
  line([r, 0], [w - r, 0]),
  arc([w - r, r], r, -QUARTER, QUARTER),
  line([w, r], [w, h - r]),
  arc([w - r, h - r], r, 0, QUARTER),
  line([w - r, h], [r, h]),
  arc([r, h - r], r, QUARTER, QUARTER),
  line([0, h - r], [0, r]),
  arc([r, r], r, 2 * QUARTER, QUARTER),
];
const turned = (ring: readonly Segment[], angle: number): Segment[] => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const turn = ([x, y]: Vec2): Vec2 => [c * x - s * y, s * x + c * y];
  return ring.map((p) =>
    p.kind === 'line'
      ? line(turn(p.from), turn(p.to))
      : { ...p, from: turn(p.from), to: turn(p.to), centre: turn(p.centre) },
  );
};

describe('the corners of walls', () => {
  test('are as round as the smallest arc toward the air, and sharp where walls meet in a point', () => {
    expect(cornerRadius([{ walls: rounded(40, 30, 6), closed: true }])).toBe(6);
    expect(cornerRadius([{ walls: rectangle(0, 0, 40, 30), closed: true }])).toBe(0);
  });

  test('around an island are none: a cutter goes round them outside', () => {
    const island = rounded(40, 30, 6).map((s): Segment =>
      s.kind === 'line' ? line(s.to, s.from) : { ...s, from: s.to, to: s.from, turn: -s.turn },
    );
    expect(cornerRadius([{ walls: island.reverse(), closed: true }])).toBeNull();
    expect(cornerRadius([{ walls: rectangle(0, 0, 9, 9).slice(0, 1), closed: false }])).toBeNull();
  });

  test('are no walls of their own where they flow into both neighbours', () => {
    expect(wallCount({ walls: rounded(40, 30, 6), closed: true })).toBe(4);
    expect(wallCount({ walls: rectangle(0, 0, 40, 30), closed: true })).toBe(4);
    expect(wallCount({ walls: rounded(40, 30, 6).slice(0, 3), closed: false })).toBe(2);
    expect(wallCount({ walls: [arc([0, 0], 5, 0, 2 * Math.PI)], closed: true })).toBe(1);
  });
});

describe('the area of a ring', () => {
  test('counts what arcs add and take', () => {
    expect(ringArea(rectangle(3, -2, 40, 30))).toBeCloseTo(1200, 9);
    expect(ringArea(rounded(40, 30, 6))).toBeCloseTo(1200 - (4 - Math.PI) * 36, 9);
    expect(ringArea([arc([7, 1], 5, 0, 2 * Math.PI)])).toBeCloseTo(25 * Math.PI, 9);
    expect(ringArea([arc([7, 1], 5, 0, -2 * Math.PI)])).toBeCloseTo(-25 * Math.PI, 9);
  });

  test('is the same however it is turned and moved', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 12, max: 60, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        (w, r, angle) => {
          const ring = rounded(w, 20, r);
          expect(ringArea(turned(ring, angle))).toBeCloseTo(ringArea(ring), 6);
          const { length, width } = boxAlongLongest(turned(ring, angle));
          expect([length, width].sort((a, b) => b - a)[0]).toBeCloseTo(Math.max(w, 20), 6);
        },
      ),
    );
  });
});

test('a box lies along the longest straight piece', () => {
  const box = boxAlongLongest(turned(rectangle(0, 0, 40, 10), 0.3));
  expect(box.length).toBeCloseTo(40, 9);
  expect(box.width).toBeCloseTo(10, 9);
  // A circle has none: along X.
  expect(boxAlongLongest([arc([0, 0], 5, 1, 2 * Math.PI)]).length).toBeCloseTo(10, 9);
});

test('pieces reach as far as their arcs bulge, where they bulge that way', () => {
  const bulging = [arc([0, 0], 5, -QUARTER, 2 * QUARTER)];
  expect(reachAlong(bulging, [1, 0])[1]).toBeCloseTo(5, 12);
  expect(reachAlong(bulging, [1, 0])[0]).toBeCloseTo(0, 9);
  expect(reachAlong(bulging, [0, 1])).toEqual([expect.closeTo(-5, 9), expect.closeTo(5, 9)]);
  // A shallow arc that does not pass its circle's farthest place.
  expect(reachAlong([arc([0, 0], 5, 0.2, 0.3)], [1, 0])[1]).toBeCloseTo(5 * Math.cos(0.2), 9);
});

describe('a place inside', () => {
  test('is inside the outer ring and in no island, however all is turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 25, noNaN: true }),
        fc.double({ min: 2, max: 15, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        (x, y, angle) => {
          const [outer, island] = [rounded(40, 30, 4), rectangle(x, y, 12, 12)].map((r) => turned(r, angle));
          const p = insidePoint([outer!, island!]);
          expect(isWithin(ringPoints(outer!), p)).toBe(true);
          expect(isWithin(ringPoints(island!), p)).toBe(false);
        },
      ),
    );
  });

  test('of a horseshoe is in its metal and not in its mouth', () => {
    const shoe = polygon([0, 0], [30, 0], [30, 30], [20, 30], [20, 10], [10, 10], [10, 30], [0, 30]);
    expect(isWithin(ringPoints(shoe), insidePoint([shoe]))).toBe(true);
    expect(isWithin(ringPoints(shoe), [15, 20])).toBe(false);
  });
});

describe('runs of walls', () => {
  const [a, b, c, d] = rectangle(0, 0, 10, 10) as [Segment, Segment, Segment, Segment];
  const ring = (...walls: boolean[]) =>
    [a, b, c, d].map((segment, i) => ({ segment, isWall: walls[i] === true }));

  test('all round are closed, and none is none', () => {
    expect(wallRuns(ring(true, true, true, true))).toEqual([{ walls: [a, b, c, d], closed: true }]);
    expect(wallRuns(ring(false, false, false, false))).toEqual([]);
  });

  test('go on over where the ring begins', () => {
    expect(wallRuns(ring(true, false, true, true))).toEqual([{ walls: [c, d, a], closed: false }]);
  });

  test('are apart where the area is open between them', () => {
    expect(wallRuns(ring(false, true, false, true))).toEqual([
      { walls: [b], closed: false },
      { walls: [d], closed: false },
    ]);
  });
});
