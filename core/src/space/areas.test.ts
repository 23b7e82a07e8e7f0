import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AreaShape } from '../features/area/shape.ts';
import type { Segment, Vec2 } from '../geometry/path.ts';
import { areaOf, isIn } from '../geometry/region.ts';
import { boxRegion, ringsOf } from '../geometry/region.ts';
import { groundOf, metalAbout } from './areas.ts';

type Box = readonly [number, number, number, number];
const corners = ([x0, y0, x1, y1]: Box): Vec2[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const border = (box: Box, isWall: (side: number) => boolean): AreaShape['rings'][number] =>
  corners(box).map((from, i, all) => ({
    segment: { kind: 'line', from, to: all[(i + 1) % 4]! } as Segment,
    isWall: isWall(i),
  }));
const shapeOf = (
  box: Box,
  isWall: (side: number) => boolean,
  side: AreaShape['side'] = 'open',
): AreaShape => ({
  side,
  rings: [border(box, isWall)],
  top: 0,
  floor: -5,
  through: false,
  floorRadius: 0,
});

/** A part of 100 by 60, as stock stands round it: so much wider on every side. */
const PART: Box = [0, 0, 100, 60];
const seen = (by: number) => {
  const [x0, y0, x1, y1] = PART;
  const box = {
    min: [x0 - by, y0 - by, -30] as [number, number, number],
    max: [x1 + by, y1 + by, by] as [number, number, number],
  };
  const body = { box, shape: 'box' as const, along: 'x' as const, radius: 0, standsProud: by > 0 };
  return { setup: { body }, plan: boxRegion([0, 0], [100, 60]) };
};
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('how an area lies in the part', () => {
  /** A step along its right side: the part stands to x. */
  const step = (x: number) => ({
    shape: shapeOf([x, 0, 100, 60], (side) => side === 3),
    section: () => [corners([0, 0, x, 60])],
  });

  it('a step is come to from outside; prepared stock has nothing beyond it', () => {
    const { shape, section } = step(70);
    const ground = groundOf(seen(0), shape, section);
    expect(ground.enclosed).toBe(false);
    expect(areaOf(ground.walls)).toBeCloseTo(70 * 60, 3);
    expect(areaOf(ground.cleared)).toBeCloseTo(30 * 60, 3);
    expect(areaOf(metalAbout(seen(0), ground.cleared, ground.walls))).toBeCloseTo(30 * 60, 3);
  });

  it('what of the stock stands straight before its wall goes with it, and no other', () => {
    fc.assert(
      fc.property(number(20, 90), number(1, 8), (x, by) => {
        const { shape, section } = step(x);
        const ground = groundOf(seen(by), shape, section);
        // To the edge of the stock before the wall; beyond its ends the stock is the outline's.
        expect(areaOf(ground.cleared)).toBeCloseTo((100 - x) * 60 + by * 60, -1);
        expect(isIn(ground.cleared, [100 + by / 2, 30])).toBe(true);
        expect(isIn(ground.cleared, [x / 2, -by / 2])).toBe(false);
        const metal = metalAbout(seen(by), ground.cleared, ground.walls);
        expect(areaOf(metal)).toBeCloseTo((100 + 2 * by) * (60 + 2 * by) - x * 60, 1);
      }),
      { numRuns: 20 },
    );
  });

  it('a shelf in a pocket is gone into from above, with the pocket beside it that lies lower', () => {
    // A pocket from 10 to 90 by 10 to 50; the shelf is its left part.
    const shape = shapeOf([10, 10, 40, 50], (side) => side !== 1);
    const ground = groundOf(seen(3), shape, () => [corners(PART), corners([10, 10, 90, 50])]);
    expect(ground.enclosed).toBe(true);
    expect(areaOf(ground.cleared)).toBeCloseTo(80 * 40, 3);
    // A pocket that is another's stays out of it.
    const apart = groundOf(seen(3), shape, () => [
      corners(PART),
      corners([10, 10, 60, 50]),
      corners([70, 10, 90, 50]),
    ]);
    expect(areaOf(apart.cleared)).toBeCloseTo(50 * 40, 3);
  });

  it('lower steps that hang together with it go down with it, those behind a wall do not', () => {
    // The part stands in the middle only: right of it a step, left of it another.
    const shape = shapeOf([60, 0, 80, 60], (side) => side === 3);
    const ground = groundOf(seen(2), shape, () => [corners([40, 0, 60, 60])]);
    expect(isIn(ground.cleared, [95, 30])).toBe(true);
    expect(isIn(ground.cleared, [20, 30])).toBe(false);
    expect(isIn(ground.cleared, [-1, 30])).toBe(false);
  });

  it('a step all round takes all of the stock round it', () => {
    const outer = border(PART, () => false);
    const inner = border([30, 20, 70, 40], () => true).map(({ segment: s }) => ({
      segment: { ...s, from: s.to, to: s.from } as Segment,
      isWall: true,
    }));
    const shape: AreaShape = { ...shapeOf(PART, () => false), rings: [outer, [...inner].reverse()] };
    const ground = groundOf(seen(3), shape, () => [corners([30, 20, 70, 40])]);
    expect(ground.enclosed).toBe(false);
    expect(areaOf(ground.cleared)).toBeCloseTo(106 * 66 - 40 * 20, 0);
  });

  it('a pocket is itself, and a face has nothing about it', () => {
    const box: Box = [20, 20, 80, 40];
    const closed = groundOf(
      seen(3),
      shapeOf(box, () => true, 'closed'),
      () => [],
    );
    expect(closed.enclosed).toBe(true);
    expect(ringsOf(closed.cleared)).toHaveLength(1);
    expect(
      groundOf(
        seen(3),
        shapeOf(box, () => false, 'top'),
        () => [],
      ).enclosed,
    ).toBe(false);
  });
});
