import { describe, expect, it } from 'vitest';
import { made, usual } from '../../testing/fixtures.ts';
import { dovetail, grooveRow, movesOf } from '../../testing/grooves.ts';

describe('a dovetail', () => {
  it('has its throat opened first, and its flanks cut in steps by a cutter of their angle', () => {
    const row = grooveRow(dovetail());
    expect(row.operations.map((o) => o.kind)).toEqual(['slot-mill', 'dovetail-mill']);
    const [throat] = row.operations;
    // The throat stays clear of the flanks' upper edges, and of the floor.
    expect(
      Math.max(...movesOf(throat!).map((m) => Math.abs(m.to[1]))) + throat!.tool.diameter / 2,
    ).toBeLessThan(9);
    const o = made(row, 'dovetail-mill');
    const aside = [...new Set(movesOf(o).map((m) => Math.abs(m.to[1]).toFixed(4)))]
      .map(Number)
      .sort((a, b) => a - b);
    expect(aside.at(-1)).toBeCloseTo(9 + 7 / Math.tan(Math.PI / 3) - 8, 3);
    aside.slice(1).forEach((v, i) => expect(v - aside[i]!).toBeLessThanOrEqual(0.06 * 16 + 1e-4));
    expect(movesOf(o).every((m) => m.kind === 'line')).toBe(true);
  });

  it('is refused to a cutter of another angle, or too low', () => {
    const reason = (angle: number, height: number) =>
      grooveRow(dovetail(), {
        tools: [
          usual('end-mill', 50, 12),
          usual('dovetail-cutter', 62, 16, {
            fluteLength: height,
            neckDiameter: 6,
            neckLength: 20,
            pointAngleDeg: angle,
          }),
        ],
      }).reasons.join(' ');
    expect(reason(60.3, 8)).toMatch(/the angle must be the flank's own/);
    expect(reason(45, 7)).toMatch(/No dovetail cutter/);
    expect(reason(60, 5)).toMatch(/reaches|5 mm high/);
  });
});
