import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import { readProgram } from '../code/read/read.ts';
import { moveTime, programTime, timeShares, TIME_PARTS } from './time.ts';

describe('programTime', () => {
  const read = (text: string) => programTime(readProgram(text, RIGID_TAP_BUILT_IN), RIGID_TAP_BUILT_IN);
  it('counts a change for each tool, and none before the first', () => {
    const start = 'G21 G17 G90\nG0 X0. Y0. Z5.\nX0. Y0. Z6.\n';
    const one = read(`${start}T1 M6\nG0 Z5.\n`);
    expect(one.byTool.get(0)).toBeLessThan(1);
    expect(one.byTool.get(1)).toBeGreaterThanOrEqual(6.5);
  });
  it('takes as long for an arc as its turns are long', () => {
    const arc = (p: string) =>
      read(
        `G21 G17 G90 G94 G54\nT1 M6\nS500 M3\nG0 X0. Y0.\nG43 H1 Z5.\nG3 X0. Y0. I5. ${p} F600.\n`,
      ).byLine.get(6)!;
    expect(arc('')).toBeCloseTo((2 * Math.PI * 5) / 10, 1);
    expect(arc('P2') / arc('')).toBeCloseTo(3, 1);
  });
});

describe('where the time goes', () => {
  const text =
    'G21 G17 G90 G94 G54\nT1 M6\nS1000 M3\nG0 X0. Y0.\nG43 H1 Z25.\nG98 G83 X0. Y0. Z-20. R2. Q5. F300.\nX40.\nG80\nG4 P1000\nT2 M6\nS500 M3\nG0 X0. Y0.\nG43 H2 Z25.\nG98 G81 X0. Y0. Z-1. R2. F200.\nX20.\nG80\nM30';
  const read = readProgram(text, RIGID_TAP_BUILT_IN);
  const shares = timeShares(read, RIGID_TAP_BUILT_IN);

  it('adds up to the whole program, tool by tool', () => {
    const { total, byTool } = programTime(read, RIGID_TAP_BUILT_IN);
    const sum = (t: (typeof shares)[number]): number => TIME_PARTS.reduce((n, p) => n + t.parts[p], 0);
    expect(shares.reduce((n, t) => n + sum(t), 0)).toBeCloseTo(total, 6);
    for (const t of shares) expect(sum(t)).toBeCloseTo(byTool.get(t.tool)!, 6);
  });

  it('tells pecks from ways, and a dwell and a change from both', () => {
    const drill = shares.find((t) => t.tool === 1)!.parts;
    // Two holes of 22 mm fed at 300 mm/min, and little more where pecks begin above what is drilled.
    expect(drill.cutting).toBeGreaterThanOrEqual(2 * (22 / 5));
    expect(drill.cutting).toBeLessThan(2 * (22 / 5) + 1);
    expect(drill.pecks).toBeGreaterThan(0);
    expect(drill.dwell).toBe(1);
    expect(drill['tool change']).toBe(
      RIGID_TAP_BUILT_IN.toolChangeSeconds + RIGID_TAP_BUILT_IN.spindleStartSeconds,
    );
    // A drilling cycle without pecks has none.
    const plain = shares.find((t) => t.tool === 2)!.parts;
    expect(plain.pecks).toBe(0);
    expect(plain.rapid).toBeGreaterThan(0);
  });
});

describe('moveTime (handbook numbers)', () => {
  it('long and short moves', () => {
    expect(moveTime(100, 250, 3000)).toBeCloseTo(0.4833, 4);
    expect(moveTime(10, 250, 3000)).toBeCloseTo(0.1155, 4);
  });
  it('joins without a jump where the full speed is just reached', () => {
    const s = (250 * 250) / 3000;
    expect(moveTime(s - 1e-9, 250, 3000)).toBeCloseTo(moveTime(s, 250, 3000), 6);
  });
  it('takes no time for no way', () => expect(moveTime(0, 250, 3000)).toBe(0));
});
