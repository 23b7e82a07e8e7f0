import { describe, expect, it } from 'vitest';
import { made, usual } from '../../testing/fixtures.ts';
import { grooveRow, movesOf, wallGroove } from '../../testing/grooves.ts';

describe('a groove in a wall', () => {
  it('is cut from the air before it, past both ends, ever deeper at each level', () => {
    const o = made(grooveRow(wallGroove()), 'wall-groove');
    expect(o.tool.diameter).toBe(25);
    const { x, y } = o.work[0]!;
    // The wall lies at Y −40 of the zero in the part's middle: the whole cutter stands before it where it comes down.
    expect(y).toBeLessThan(-40 - 12.5);
    expect(Math.abs(x)).toBeGreaterThan(50 + 12.5);
    const cutting = movesOf(o).filter((m) => m.feed !== 'lead');
    expect(Math.max(...cutting.map((m) => m.to[1]))).toBeCloseTo(-40 - 12.5 + 4, 9);
    expect([...new Set(movesOf(o).map((m) => m.to[2]))]).toEqual([-16.5, -17.5]);
    // With the wall on its right it climbs: from high X to low.
    expect(cutting[0]!.to[0]).toBeLessThan(0);
  });

  it('is refused to a cutter that is too high, does not reach beside its neck, or is not of the arc it runs out in', () => {
    const reason = (part: object, groove: Parameters<typeof wallGroove>[0] = {}) =>
      grooveRow(wallGroove(groove), {
        tools: [usual('t-cutter', 60, 25, { fluteLength: 4, neckDiameter: 12, neckLength: 45, ...part })],
      }).reasons.join(' ');
    expect(reason({ fluteLength: 6 })).toMatch(/6 mm high, and the groove 5 mm/);
    expect(reason({ neckDiameter: 18 })).toMatch(/reaches 3\.5 mm beside its neck/);
    expect(reason({}, { runOut: 10 })).toMatch(/a cutter of ⌀20 mm makes it/);
    expect(reason({})).toBe('');
  });

  it('does not go into a bend that is tighter than its cutter', () => {
    const bend = (radius: number) =>
      grooveRow(
        wallGroove({
          mouth: [
            { kind: 'line', from: [100, 20, -15], to: [40, 20, -15] },
            {
              kind: 'arc',
              from: [40, 20, -15],
              to: [40 - radius, 20 - radius, -15],
              centre: [40, 20 - radius, -15],
              radius,
              turn: Math.PI / 2,
            },
            { kind: 'line', from: [40 - radius, 20 - radius, -15], to: [40 - radius, -20, -15] },
          ],
        }),
      ).reasons.join(' ');
    expect(bend(6)).toMatch(/a bend in the wall is tighter/);
    expect(bend(12)).toBe('');
  });
});
