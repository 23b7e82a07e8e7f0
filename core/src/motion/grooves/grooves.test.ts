import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besidePath } from '../../geometry/parallel.ts';
import type { Segment, Vec2 } from '../../geometry/path.ts';
import { alongChain, arcShare, type Fed } from './chain.ts';
import { circleAlong, growCircles, placesAlong } from './circling.ts';
import {
  begunOnLongest,
  overlapOf,
  ringsOut,
  roundFrom,
  roundMiddle,
  sidesOf,
  type Middle,
} from './loops.ts';
import { fallAt, rampAngleDeg, rampDown, stepsDown, wayOf, windDown } from './ramp.ts';
import { roundWall } from './walls.ts';
import { woundWall } from './wound-wall.ts';

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const line = (from: Vec2, to: Vec2): Segment => ({ kind: 'line', from, to });
const ring = (r: number): Segment[] => [
  { kind: 'arc', from: [r, 0], to: [r, 0], centre: [0, 0], radius: r, turn: 2 * Math.PI },
];
const straight: Segment[] = [line([0, 0], [52, 0])];
const fed: Fed = { feed: 'cut', cutter: 8, side: 'both' };
const middle = (past: Middle['past'] = [null, null]): Middle => ({ path: straight, closed: false, past });
const places = (moves: ReturnType<typeof alongChain>) =>
  moves.flatMap((m) => (m.kind === 'dwell' ? [] : [m.to]));

describe('feeds on arcs', () => {
  it('hold at the edge that cuts, as in the handbook', () => {
    // Dw 24, d 16, Fe 300: 100 inside; the centre runs on a radius of 4.
    const inside: Segment = {
      kind: 'arc',
      from: [4, 0],
      to: [-4, 0],
      centre: [0, 0],
      radius: 4,
      turn: Math.PI,
    };
    expect(300 * arcShare(inside, 16, 'right')).toBeCloseTo(100, 9);
    // Outside a boss of 24: (24 + 16) / 24; the centre runs on a radius of 20.
    const outside: Segment = { ...inside, from: [20, 0], to: [-20, 0], radius: 20, turn: -Math.PI };
    expect(arcShare(outside, 16, 'right')).toBeCloseTo(40 / 24, 9);
    expect(arcShare(line([0, 0], [1, 0]), 16, 'left')).toBe(1);
  });
});

describe('a ramp', () => {
  it('falls at the angle of the handbook', () => {
    expect(rampAngleDeg(0.8, 60 - 8)).toBeCloseTo(0.881, 3);
    expect(fallAt(0.881403, 52)).toBeCloseTo(0.8, 3);
    expect(fallAt(90, 1)).toBe(Infinity);
  });

  it('goes back and forth, never steeper than said, and leaves its floor flat', () => {
    fc.assert(
      fc.property(num(0.3, 20), num(0.1, 5), (deep, most) => {
        const { moves, isAtStart } = rampDown(straight, 0, -deep, most, fed, fed);
        const z = [0, ...places(moves).map((p) => p[2])];
        z.slice(1).forEach((v, i) => expect(z[i]! - v).toBeLessThanOrEqual(most + 1e-9));
        expect(z.at(-1)).toBe(-deep);
        expect(z.at(-2)).toBe(-deep);
        expect(stepsDown(0, -deep, most) + 1).toBe(moves.length);
        expect(places(moves).at(-1)![0]).toBeCloseTo(isAtStart ? 0 : 52, 9);
      }),
    );
  });

  it('winds down a closed chain with a flat last turn', () => {
    const moves = windDown(ring(10), 0.5, -3, 1, fed, fed);
    expect(moves).toHaveLength(5);
    expect(places(moves).map((p) => p[2])).toEqual([-0.375, -1.25, -2.125, -3, -3]);
    expect(moves[0]).toMatchObject({ kind: 'arc', turns: 1, centre: [0, 0], share: 20 / 28 });
  });
});

describe('a way round a middle line', () => {
  it('keeps its distance, wall on the right to climb and on the left against it, and closes', () => {
    fc.assert(
      fc.property(
        num(0.2, 6),
        fc.boolean(),
        fc.constantFrom<'start' | 'end'>('start', 'end'),
        (off, isClimb, from) => {
          const loop = roundFrom(roundMiddle(middle(), off, isClimb)!, from);
          loop.forEach((s, i) => {
            expect(Math.abs(besidePath(straight, s.to).off)).toBeCloseTo(off, 9);
            const next = loop[(i + 1) % loop.length]!;
            expect(Math.hypot(next.from[0] - s.to[0], next.from[1] - s.to[1])).toBeLessThan(1e-9);
            if (s.kind === 'arc') expect(Math.sign(s.turn)).toBe(isClimb ? 1 : -1);
          });
        },
      ),
    );
  });

  it('goes straight across past an open end', () => {
    const { there, ahead } = roundMiddle(middle([null, 5]), 2, true)!;
    expect(there.at(-1)!.to[0]).toBeCloseTo(57, 9);
    expect(ahead).toMatchObject({ kind: 'line', from: [57, -2], to: [57, 2] });
  });

  it('has two sides where the middle is closed, each with its wall on one hand', () => {
    const [outer, inner] = sidesOf({ path: ring(10), closed: true, past: [null, null] }, 2, true)!;
    expect(outer![0]).toMatchObject({ radius: 12, turn: 2 * Math.PI });
    expect(inner![0]).toMatchObject({ radius: 8, turn: -2 * Math.PI });
    expect(sidesOf({ path: ring(1), closed: true, past: [null, null] }, 2, true)).toBeNull();
  });

  it('widens in equal steps', () => {
    expect(ringsOut(5, 2)).toEqual([5 / 3, 10 / 3, 5]);
    expect(ringsOut(0, 2)).toEqual([]);
    expect(
      begunOnLongest([line([0, 0], [1, 0]), line([1, 0], [1, 9]), line([1, 9], [0, 0])])[0]!.from[1],
    ).not.toBe(0);
    expect(wayOf(overlapOf(straight, 7))).toBeCloseTo(7, 9);
  });
});

describe('a wall', () => {
  it('is come to and left by quarter circles on the side away from it, or straight where there is no room', () => {
    const loop = begunOnLongest(roundFrom(roundMiddle(middle(), 3, true)!, 'start'));
    const { moves } = roundWall(loop, [0, 0], -5, 3, 2, { ...fed, side: 'right' });
    const [to, on] = moves;
    expect(to).toMatchObject({ kind: 'line', feed: 'lead' });
    expect(on).toMatchObject({ kind: 'arc', clockwise: false });
    for (const p of places(moves))
      expect(Math.abs(besidePath(straight, [p[0], p[1]]).off)).toBeLessThanOrEqual(3 + 1e-9);
    const tight = roundWall(loop, [0, 0], -5, 0.05, 1, { ...fed, side: 'right' }).moves;
    expect(tight.filter((m) => m.kind === 'arc')).toHaveLength(2);
  });

  it('is told to the control with the radius taken up above the part, and no way out', () => {
    const at = (off: number) => begunOnLongest(roundFrom(roundMiddle(middle(), off, true)!, 'start'));
    const pass = woundWall(
      at(1),
      at(4),
      { r: 2, from: 0.5, floor: -6, perTurn: 3, rounds: 1, approach: 4 },
      { feed: 'finish', cutter: 6, side: 'right' },
    )!;
    expect(pass.control).toBe('left');
    const [away, up, ...rest] = pass.moves;
    expect(away).toMatchObject({ to: [expect.anything(), expect.anything(), 0.5] });
    expect(up).toMatchObject({ kind: 'line', wall: { to: [26, -4] } });
    for (const m of rest.slice(0, -1))
      if (m.kind !== 'dwell') expect(Math.abs(m.wall!.to[1])).toBeLessThanOrEqual(4 + 1e-9);
    expect(rest.at(-2)).toMatchObject({ to: [26, -1, 2] });
    expect(rest.at(-1)).not.toHaveProperty('wall');
  });
});

describe('circles along a middle line', () => {
  it('lie a step apart, and begin behind where metal is gone', () => {
    const all = placesAlong(straight, 0.7);
    all.slice(1).forEach((p, i) => expect(p.at[0] - all[i]!.at[0]).toBeLessThanOrEqual(0.7 + 1e-9));
    expect(all.at(-1)!.at).toEqual([52, 0]);
    const { moves, at } = circleAlong(all, 2, 8, -4);
    expect(at).toEqual([50, 0]);
    expect(moves.filter((m) => m.kind === 'arc')).toHaveLength(all.length);
    const grown = growCircles(all[0]!, [0.5, 1], 8, -4);
    expect(grown.flatMap((m) => (m.kind === 'arc' ? [m.to[0]] : []))).toEqual([-0.5, -1]);
  });
});
