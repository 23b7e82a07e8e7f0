import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/schema.ts';
import { readProgram } from '../code/read/read.ts';
import { moveTime, programTime } from './time.ts';

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
