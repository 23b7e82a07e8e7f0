import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { helixAngleDeg, helixDown, insideShare, outsideShare, roundAt } from './circles.ts';

const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('circles of a cutter', () => {
  it('has the handbook’s numbers', () => {
    // Hole 20, cutter 12, 1.5 a turn; work 24, cutter 16, 300 at the edge.
    expect(helixAngleDeg(1.5, (20 - 12) / 2)).toBeCloseTo(3.416, 3);
    expect(300 * insideShare(24, 16)).toBeCloseTo(100, 9);
    expect(300 * outsideShare(24, 16)).toBeCloseTo(500, 9);
  });

  it('a helix comes down to its floor in whole turns, none steeper than said, and clears the floor', () => {
    fc.assert(
      fc.property(size(0.5, 30), size(0.05, 4), size(0.5, 80), (radius, perTurn, fall) => {
        const pass = helixDown({ x: 3, y: -2, radius, from: 1, to: 1 - fall }, perTurn, 5, 'ramp', 0.4);
        const [lead, helix, round, back] = pass.moves;
        expect(pass.start).toEqual([3, -2, 5]);
        expect(lead).toMatchObject({ kind: 'line', to: [3 + radius, -2, 1] });
        if (helix?.kind !== 'arc' || round?.kind !== 'arc') throw new Error('no arcs');
        expect(fall / helix.turns).toBeLessThanOrEqual(perTurn + 1e-9);
        expect(fall / Math.max(1, helix.turns - 1)).toBeGreaterThan(helix.turns > 1 ? perTurn - 1e-6 : 0);
        expect(round).toMatchObject({ turns: 1, to: [3 + radius, -2, 1 - fall], clockwise: false });
        expect(back).toMatchObject({ kind: 'line', to: [3, -2, 1 - fall] });
      }),
    );
  });

  it('a finishing round is joined to the wall tangentially, from the axis and back', () => {
    const { moves } = roundAt({ x: 0, y: 0, radius: 5, from: 1, to: -8 }, 2, 2, 'finish', 0.5);
    const [down, on, round, off] = moves;
    expect(down).toMatchObject({ kind: 'line', to: [0, 0, -8] });
    // The half circle's centre lies between axis and wall: where it meets the wall both run the same way.
    expect(on).toMatchObject({ to: [5, 0, -8], centre: [2.5, 0], turns: 0 });
    expect(round).toMatchObject({ to: [5, 0, -8], centre: [0, 0], turns: 2 });
    expect(off).toMatchObject({ to: [0, 0, -8], centre: [2.5, 0] });
  });
});
