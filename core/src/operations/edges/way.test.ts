import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { EdgeShape } from '../../features/edge/shape.ts';
import { besidePath } from '../../geometry/parallel.ts';
import {
  distance2,
  pathLength,
  segmentPoint,
  tangentAt,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';
import { endOf } from './ends.ts';
import { hasInsideCorners, placeAt, wayBeside, withEnds } from './way.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const line = (from: Vec2, to: Vec2): Segment => ({ kind: 'line', from, to });
const chain = (...points: Vec2[]): Segment[] => points.slice(1).map((p, i) => line(points[i]!, p));
const shape = (path: Segment[], part: Partial<EdgeShape> = {}): EdgeShape => ({
  path,
  closed: false,
  side: 'outside',
  top: 0,
  profile: { kind: 'sharp' },
  lean: 0,
  rolled: [],
  isBehind: false,
  ...part,
});
/** The rim of a plate, counter-clockwise: the plate on its left. */
const PLATE = chain([0, 0], [40, 0], [40, 30], [0, 30], [0, 0]);
/** The rim of a pocket: the plate on its left, the pocket on its right. */
const POCKET = chain([0, 0], [0, 30], [40, 30], [40, 0], [0, 0]);

describe('a way beside an edge', () => {
  it('keeps its distance in the air, to climb with the edge on its right', () => {
    fc.assert(
      fc.property(number(0.3, 6), fc.boolean(), fc.boolean(), (offset, isRolled, isClimb) => {
        const way = wayBeside(shape(PLATE, { closed: true }), offset, { isClimb, isRolled })!;
        for (const s of way)
          for (const t of [0.1, 0.5, 0.9]) {
            const p = segmentPoint(s, t);
            const off = Math.abs(besidePath(PLATE, p).off);
            expect(off).toBeGreaterThan(offset - 1e-6);
            expect(off).toBeLessThan(offset * Math.SQRT2 + 1e-6);
            // Outside the plate.
            expect(p[0] < 1e-9 || p[0] > 40 - 1e-9 || p[1] < 1e-9 || p[1] > 30 - 1e-9).toBe(true);
          }
        expect(way.filter((s) => s.kind === 'arc')).toHaveLength(isRolled ? 4 : 0);
        const s = way.find(
          (w) => w.kind === 'line' && Math.abs(w.from[1] - w.to[1]) < 1e-9 && w.from[1] < 0,
        )!;
        expect(tangentAt(s, 'from')[0]).toBeCloseTo(isClimb ? -1 : 1, 9);
      }),
    );
  });

  it('cuts across inside corners, where what it leaves is known', () => {
    expect(hasInsideCorners(shape(POCKET, { closed: true }))).toBe(true);
    expect(hasInsideCorners(shape(PLATE, { closed: true }))).toBe(false);
    const way = wayBeside(shape(POCKET, { closed: true }), 3, { isClimb: true, isRolled: true })!;
    expect(pathLength(way)).toBeCloseTo(2 * (34 + 24), 6);
  });

  it('is none where the edge is too tight for it', () => {
    expect(wayBeside(shape(POCKET, { closed: true }), 16, { isClimb: true, isRolled: true })).toBeNull();
  });

  it('goes round a corner by an arc where the model does', () => {
    const way = wayBeside(shape(PLATE, { closed: true, rolled: [1] }), 2, {
      isClimb: false,
      isRolled: false,
    })!;
    expect(way.filter((s) => s.kind === 'arc').map((s) => s.kind === 'arc' && s.centre)).toEqual([[40, 30]]);
  });
});

describe('the ends of an open run', () => {
  const way = chain([0, 0], [20, 0], [20, 10]);
  it('are moved past it along their tangents, or back along it', () => {
    fc.assert(
      fc.property(number(-8, 8), number(-8, 8), (start, end) => {
        const moved = withEnds(way, start, end)!;
        expect(pathLength(moved)).toBeCloseTo(30 + start + end, 6);
        if (start > 0) expect(distance2(moved[0]!.from, [-start, 0])).toBeLessThan(1e-9);
      }),
    );
    expect(withEnds(way, -20, -10)).toBeNull();
  });

  it('are found by what a cutter would meet there', () => {
    /** A wall stands from x 14 on. */
    const hit = { part: 'cutting' as const, diameter: 2, height: 5, depth: 5 };
    const meets = (a: readonly number[], b: readonly number[]) => (Math.max(a[0]!, b[0]!) > 14 ? hit : null);
    const straight = chain([0, 0], [20, 0]);
    const far = endOf(straight, { end: 'end', z: -1, past: 2, goesOn: false }, meets);
    expect(far.by).toBeLessThan(-6);
    expect(far.by).toBeGreaterThan(-6.2);
    expect(far.hit).toBe(hit);
    expect(endOf(straight, { end: 'start', z: -1, past: 2, goesOn: false }, meets)).toEqual({
      by: 2,
      hit: null,
    });
    expect(endOf(straight, { end: 'end', z: -1, past: 2, goesOn: false }, () => hit).by).toBeNull();
    // Where the face goes on nothing is cut past the end.
    expect(endOf(straight, { end: 'start', z: -1, past: 2, goesOn: true }, () => null).by).toBe(0);
  });

  it('are places along it', () => {
    expect(placeAt(way, 25).place[0]).toBeCloseTo(20, 9);
    expect(placeAt(way, 25).along[1]).toBeCloseTo(1, 9);
    expect(placeAt(way, 99).place).toEqual([20, 10]);
  });
});
