import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cross, distance, dot, length, normalize, type Vec3 } from '../geometry/vec.ts';
import {
  attitudeFor,
  attitudeFrom,
  attitudeName,
  attitudeSchema,
  copySetup,
  freeSetupId,
  newSetup,
  quarterTurn,
  setupSchema,
  SIDES,
  sideDirection,
  sideOf,
  turnOver,
  upFromPoints,
  type Attitude,
} from './setup.ts';

const direction = fc
  .tuple(...([0, 1, 2] as const).map(() => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((v) => length(v as Vec3) > 0.1)
  .map((v) => normalize(v as Vec3));
const isAlike = (a: Attitude, b: Attitude): boolean =>
  distance(a.up, b.up) < 1e-9 && distance(a.x, b.x) < 1e-9;

describe('how a part stands', () => {
  test.each([...SIDES])('with side %s up its directions are square, and it is named', (side) => {
    const attitude = attitudeFor(sideDirection(side));
    expect(attitudeSchema.safeParse(attitude).success).toBe(true);
    expect(sideOf(attitude.up)).toBe(side);
    expect(attitudeName(attitude)).toMatch(/ up$/);
  });

  test('with any direction up it is square', () => {
    fc.assert(
      fc.property(direction, (up) => {
        const attitude = attitudeFor(up);
        expect(Math.abs(dot(attitude.up, attitude.x))).toBeLessThan(1e-9);
        expect(length(attitude.x)).toBeCloseTo(1, 9);
      }),
    );
  });

  test('four quarter turns, and two of turning over, are none', () => {
    fc.assert(
      fc.property(direction, (up) => {
        const a = attitudeFor(up);
        expect(isAlike(quarterTurn(quarterTurn(quarterTurn(quarterTurn(a)))), a)).toBe(true);
        for (const about of ['x', 'y'] as const) {
          expect(isAlike(turnOver(turnOver(a, about), about), a)).toBe(true);
          expect(distance(turnOver(a, about).up, a.up)).toBeCloseTo(2, 9);
        }
      }),
    );
  });

  test('a quarter turn is counter-clockwise from above: what was along X lies along Y', () => {
    const turned = quarterTurn({ up: [0, 0, 1], x: [1, 0, 0] });
    // The setup's Y is Z × X: the file's X.
    expect(distance(cross(turned.up, turned.x), [1, 0, 0])).toBeLessThan(1e-12);
  });

  test('turned over about X it keeps X, about Y it keeps Y', () => {
    const a: Attitude = { up: [0, 0, 1], x: [1, 0, 0] };
    expect(turnOver(a, 'x')).toEqual({ up: [0, 0, -1], x: [1, 0, 0] });
    const about = turnOver(a, 'y');
    expect(distance(cross(about.up, about.x), [0, 1, 0])).toBeLessThan(1e-12);
  });

  test('X follows a direction as far as it is square, and none that is up itself', () => {
    expect(attitudeFrom([0, 0, 2], [3, 0, 4])).toEqual({ up: [0, 0, 1], x: [1, 0, 0] });
    expect(attitudeFrom([0, 0, 1], [0, 0, -5])).toBeNull();
  });

  test('three points say what is up, on the side that is outside; three in a line say nothing', () => {
    const points: [Vec3, Vec3, Vec3] = [
      [0, 0, 5],
      [10, 0, 5],
      [0, 10, 5],
    ];
    expect(upFromPoints(points, [0, 0, 1])).toEqual([0, 0, 1]);
    expect(upFromPoints(points, [0.2, 0, -1])).toEqual([0, 0, -1]);
    expect(upFromPoints([points[0], points[1], [20, 0, 5]], [0, 0, 1])).toBeNull();
  });

  test('that is no attitude is refused', () => {
    expect(attitudeSchema.safeParse({ up: [0, 0, 1], x: [0, 0.6, 0.8] }).success).toBe(false);
    expect(attitudeSchema.safeParse({ up: [0, 0, 2], x: [1, 0, 0] }).success).toBe(false);
  });
});

describe('another setup', () => {
  const first = {
    ...newSetup('s1', 'top up', '+Z', 'G54'),
    holding: {
      vise: null,
      keepOuts: [
        { id: 'c', name: 'c', kind: 'clamp' as const, min: [0, 0, 0] as Vec3, max: [1, 1, 1] as Vec3 },
      ],
    },
  };

  test('takes what the one before leaves, on the next work offset; the last offset stays', () => {
    const next = copySetup(first, 's2');
    expect(next).toMatchObject({ name: 'top up again', workOffset: 'G55', stock: { kind: 'left-over' } });
    expect(copySetup({ ...first, workOffset: 'G59' }, 's9').workOffset).toBe('G59');
    expect(setupSchema.safeParse(next).success).toBe(true);
  });

  test('keeps clamps only while the part stands as it stood', () => {
    expect(copySetup(first, 's2').holding.keepOuts).toHaveLength(1);
    const over = copySetup(first, 's2', turnOver(first.attitude, 'x'));
    expect(over.holding.keepOuts).toEqual([]);
    expect(over.name).toBe('bottom up');
  });

  test('has an id that no other has', () => {
    expect(freeSetupId([])).toBe('s1');
    expect(freeSetupId([{ id: 's1' }, { id: 's3' }])).toBe('s2');
  });
});
