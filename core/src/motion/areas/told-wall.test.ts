import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parallelPath } from '../../geometry/parallel.ts';
import type { Segment, Vec2 } from '../../geometry/path.ts';
import { boxRegion, grown, without } from '../../geometry/region.ts';
import { pastMetal } from './past-metal.ts';
import { toldWall } from './told-wall.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A wall that goes straight, round a corner to the left, and straight on. */
function wallOf(length: number, radius: number): Segment[] {
  const turn = Math.PI / 2;
  const [a, b]: Vec2[] = [
    [length, 0],
    [length + radius, radius],
  ];
  return [
    { kind: 'line', from: [0, 0], to: a! },
    { kind: 'arc', from: a!, to: b!, centre: [length, radius], radius, turn },
    { kind: 'line', from: b!, to: [length + radius, radius + length] },
  ];
}

describe('a wall that the control is told', () => {
  it('is the wall itself, the centre a radius beside it, taken up and given up on more than the radius', () => {
    fc.assert(
      fc.property(number(10, 60), number(7, 30), number(4, 12), fc.boolean(), (length, radius, d, isLeft) => {
        const wall = wallOf(length, radius);
        // With the wall on its right the cutter's centre lies to its left, and the other way round.
        const side = isLeft ? 'right' : 'left';
        const way = parallelPath(wall, isLeft ? d / 2 : -d / 2, false)!;
        const approach = d / 2 + 1;
        const pass = toldWall(way, { r: 2, z: -5, approach }, { feed: 'finish', cutter: d, side })!;
        expect(pass.control).toBe(isLeft ? 'left' : 'right');
        const moves = pass.moves.flatMap((m) => (m.kind === 'dwell' ? [] : [m]));
        // Down, onto the wall, along its three pieces, and away.
        expect(moves.map((m) => m.wall !== undefined)).toEqual([false, true, true, true, true, false]);
        const [down, on] = moves;
        expect(Math.hypot(on!.to[0] - down!.to[0], on!.to[1] - down!.to[1])).toBeCloseTo(approach, 9);
        const told = moves.slice(1, -1).map((m) => m.wall!.to);
        const corners = [wall[0]!.from, ...wall.map((s) => s.to)];
        told.forEach((p, i) => {
          expect(p[0]).toBeCloseTo(corners[i]![0], 9);
          expect(p[1]).toBeCloseTo(corners[i]![1], 9);
        });
        for (const m of moves.slice(1, -1))
          expect(Math.hypot(m.to[0] - m.wall!.to[0], m.to[1] - m.wall!.to[1])).toBeCloseTo(d / 2, 9);
      }),
    );
  });

  it('is none where the wall has no piece beside one of the way', () => {
    // Round a radius smaller than the cutter's there is no such wall.
    const way = wallOf(20, 3);
    expect(
      toldWall(way, { r: 2, z: 0, approach: 6 }, { feed: 'finish', cutter: 10, side: 'left' }),
    ).toBeNull();
  });
});

describe('past all metal', () => {
  it('a cutter stands clear of it, and not much farther', () => {
    fc.assert(
      fc.property(number(20, 80), number(2, 12), number(-8, 8), (w, radius, y) => {
        const metal = boxRegion([0, -10], [w, 10]);
        const by = pastMetal(metal, radius)([w / 2, y], [1, 0]);
        const x = w / 2 + by;
        expect(x - w).toBeGreaterThanOrEqual(radius);
        expect(x - w).toBeLessThan(radius + 2 + Math.max(0.5, radius / 4));
      }),
    );
  });

  it('is here where there is none about', () => {
    const frame = without(boxRegion([-60, -60], [60, 60]), grown(boxRegion([-20, -20], [20, 20]), 5));
    expect(pastMetal(frame, 4)([0, 0], [1, 0])).toBe(0);
  });
});
