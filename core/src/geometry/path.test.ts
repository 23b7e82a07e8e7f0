import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  centreLine,
  distance2,
  isSameCarrier,
  joinSegments,
  pathLength,
  pathMiddle,
  reversePath,
  segmentLength,
  segmentPoint,
  tangentAt,
  turnBetween,
  widthBetween,
  type Segment,
  type Vec2,
} from './path.ts';

/** A chain that flows on: each step goes straight, or round by an angle with a radius. */
function chain(
  steps: { length: number; radius: number; turn: number }[],
  start: Vec2 = [0, 0],
  heading = 0.3,
): Segment[] {
  let [p, a] = [start, heading];
  return steps.map(({ length, radius, turn }): Segment => {
    const from = p;
    if (turn === 0) {
      p = [p[0] + length * Math.cos(a), p[1] + length * Math.sin(a)];
      return { kind: 'line', from, to: p };
    }
    const sense = Math.sign(turn);
    const centre: Vec2 = [p[0] - sense * radius * Math.sin(a), p[1] + sense * radius * Math.cos(a)];
    a += turn;
    p = [centre[0] + sense * radius * Math.sin(a), centre[1] - sense * radius * Math.cos(a)];
    return { kind: 'arc', from, to: p, centre, radius, turn };
  });
}

/** Its parallel curve at `offset` to the left. */
function parallel(path: Segment[], offset: number): Segment[] {
  const moved = (s: Segment, end: 'from' | 'to'): Vec2 => {
    const [tx, ty] = tangentAt(s, end);
    return [s[end][0] - offset * ty, s[end][1] + offset * tx];
  };
  return path.map((s): Segment => {
    if (s.kind === 'line') return { kind: 'line', from: moved(s, 'from'), to: moved(s, 'to') };
    return {
      ...s,
      from: moved(s, 'from'),
      to: moved(s, 'to'),
      radius: s.radius - Math.sign(s.turn) * offset,
    };
  });
}

const step = fc.record({
  length: fc.double({ min: 5, max: 40, noNaN: true }),
  radius: fc.double({ min: 8, max: 30, noNaN: true }),
  turn: fc.constantFrom(0, 0.7, -0.7, 1.5, -1.2),
});
const steps = fc
  .array(step, { minLength: 1, maxLength: 7 })
  .map((list) => list.filter((s, i) => i === 0 || s.turn !== 0 || list[i - 1]!.turn !== 0));
const width = fc.double({ min: 2, max: 12, noNaN: true });

describe('the line half-way between two parallel walls', () => {
  it('is the path that the walls are parallel to, line for line and arc for arc', () => {
    fc.assert(
      fc.property(steps, width, (list, w) => {
        const path = chain(list);
        const found = centreLine(parallel(path, w / 2), parallel(path, -w / 2), w);
        expect(found).not.toBeNull();
        expect(found!.map((s) => s.kind)).toEqual(path.map((s) => s.kind));
        expect(pathLength(found!)).toBeCloseTo(pathLength(path), 6);
        found!.forEach((s, i) => expect(distance2(s.from, path[i]!.from)).toBeLessThan(1e-6));
      }),
    );
  });
  it('is none where the walls are nearer at one place', () => {
    fc.assert(
      fc.property(steps, width, (list, w) => {
        const path = chain(list);
        const right = parallel(path, -w / 2);
        const bent = right.map((s, i): Segment =>
          i === 0
            ? s.kind === 'line'
              ? { ...s, to: [s.to[0] + 0.3, s.to[1] - 0.3] }
              : { ...s, radius: s.radius + 0.2 }
            : s,
        );
        expect(centreLine(parallel(path, w / 2), bent, w)).toBeNull();
      }),
    );
  });
  it('turns on the spot where a cutter did: outer corner of half the width, sharp inner corner', () => {
    // A right angle to the left, 4 wide: the outer wall is on the right.
    const left: Segment[] = [
      { kind: 'line', from: [0, 2], to: [18, 2] },
      { kind: 'line', from: [18, 2], to: [18, 20] },
    ];
    const right: Segment[] = [
      { kind: 'line', from: [0, -2], to: [20, -2] },
      { kind: 'arc', from: [20, -2], to: [22, 0], centre: [20, 0], radius: 2, turn: Math.PI / 2 },
      { kind: 'line', from: [22, 0], to: [22, 20] },
    ];
    const found = centreLine(left, right, 4)!;
    expect(pathLength(found)).toBeCloseTo(40, 6);
    expect(found.map((s) => s.kind)).toEqual(['line', 'line']);
  });
  it('does not take square outer corners for a constant width', () => {
    const left: Segment[] = [
      { kind: 'line', from: [0, 2], to: [18, 2] },
      { kind: 'line', from: [18, 2], to: [18, 20] },
    ];
    const right: Segment[] = [
      { kind: 'line', from: [0, -2], to: [22, -2] },
      { kind: 'line', from: [22, -2], to: [22, 20] },
    ];
    expect(centreLine(left, right, 4)).toBeNull();
  });
});

describe('segments', () => {
  it('keep their length and middle when run the other way', () => {
    fc.assert(
      fc.property(steps, (list) => {
        const path = chain(list);
        expect(pathLength(reversePath(path))).toBeCloseTo(pathLength(path), 9);
        expect(distance2(pathMiddle(reversePath(path)), pathMiddle(path))).toBeLessThan(1e-6);
        for (const s of path) expect(distance2(segmentPoint(s, 1), s.to)).toBeLessThan(1e-6);
      }),
    );
  });
  it('on one carrier join to one of the whole length', () => {
    const [a, b]: Segment[] = [
      { kind: 'line', from: [0, 0], to: [10, 0] },
      { kind: 'line', from: [14, 0], to: [20, 0] },
    ] as Segment[];
    expect(isSameCarrier(a!, b!)).toBe(true);
    expect(segmentLength(joinSegments(a!, b!))).toBe(20);
    const arc = (from: number, to: number): Segment => ({
      kind: 'arc',
      from: [5 * Math.cos(from), 5 * Math.sin(from)],
      to: [5 * Math.cos(to), 5 * Math.sin(to)],
      centre: [0, 0],
      radius: 5,
      turn: to - from,
    });
    const joined = joinSegments(arc(0, 1), arc(1.5, 3));
    expect(joined.kind === 'arc' && joined.turn).toBeCloseTo(3, 9);
    expect(isSameCarrier(arc(0, 1), reversePath([arc(1, 2)])[0]!)).toBe(false);
  });
  it('measure the width between walls and the angle between places', () => {
    expect(
      widthBetween({ kind: 'line', from: [0, 3], to: [10, 3] }, { kind: 'line', from: [2, -1], to: [9, -1] }),
    ).toBeCloseTo(4, 12);
    // The left wall must lie on the left.
    expect(
      widthBetween(
        { kind: 'line', from: [0, -1], to: [10, -1] },
        { kind: 'line', from: [0, 3], to: [10, 3] },
      ),
    ).toBeNull();
    expect(turnBetween([0, 0], [1, 0], [0, 1], true)).toBeCloseTo(Math.PI / 2, 12);
    expect(turnBetween([0, 0], [1, 0], [0, 1], false)).toBeCloseTo(-1.5 * Math.PI, 12);
  });
});
