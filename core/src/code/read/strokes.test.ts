import { describe, expect, it } from 'vitest';
import { NO_CYCLES, RIGID_TAP_ANNOUNCED, RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';
import { readProgram } from './read.ts';

const START = 'G21 G17 G90 G94\nT1 M6\nS500 M3\nG54 G0 X10. Y5.\nG43 H1 Z25. M8\n';
const read = (text: string, profile = NO_CYCLES) => readProgram(`${START}${text}\nM5\nM30`, profile);
const calls = (text: string) => read(text).calls.map(({ how, r, z, q }) => ({ how, r, z, q }));

describe('holes that are written out', () => {
  it('are read as what their cycle would be', () => {
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nG0 Z25.')).toEqual([{ how: 'straight', r: 2, z: -8, q: undefined }]);
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nG4 P200\nG0 Z2.')[0]).toMatchObject({ how: 'dwell' });
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nG1 Z2.')[0]).toMatchObject({ how: 'feed-out' });
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nM5\nG0 Z2.\nM3')[0]).toMatchObject({ how: 'stop-out' });
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nM19\nG0 X10.2\nZ2.\nX10.\nM3')[0]).toMatchObject({
      how: 'shift-out',
    });
  });

  it('in pecks: all the way out, or a little', () => {
    expect(calls('G0 Z1.\nG1 Z-3. F100.\nG0 Z1.\nZ-2.5\nG1 Z-7.\nG0 Z25.')).toEqual([
      { how: 'full-retract', r: 1, z: -7, q: 4 },
    ]);
    expect(calls('G0 Z1.\nG1 Z-3. F100.\nG0 Z-2.75\nG1 Z-7.\nG0 Z25.')).toEqual([
      { how: 'chip-break', r: 1, z: -7, q: 4 },
    ]);
  });

  it('end where the tool rises above where it began: what follows is another hole', () => {
    const twice = 'G0 Z2.\nG1 Z-4. F100.\nG0 Z25.\nZ-3.5\nG1 Z-9. F50.\nG0 Z25.';
    expect(calls(twice).map((c) => [c.r, c.z])).toEqual([
      [2, -4],
      [-3.5, -9],
    ]);
  });

  it('with the spindle turned back are tapped, by the hand that it turned', () => {
    const tapped = (first: string, back: string) =>
      read(`S500 ${first}\nG0 Z4.\nG1 Z-10. F500.\nM5\n${back}\nG1 Z4.\nM5\n${first}`).calls[0];
    expect(tapped('M3', 'M4')).toMatchObject({ how: 'tap', hand: 'right', feed: 500, spindle: 'clockwise' });
    expect(tapped('M4', 'M3')).toMatchObject({ how: 'tap', hand: 'left' });
    expect(tapped('M3', 'M3')).toMatchObject({ how: 'feed-out' });
  });

  it('are none where the tool goes aside below its start, or is one that is led aside', () => {
    expect(calls('G0 Z2.\nG1 Z-3. F100.\nX30.\nG0 Z25.')).toEqual([]);
    // Shifted off a wall with the spindle still turning, it cuts.
    expect(calls('G0 Z2.\nG1 Z-8. F100.\nG0 X10.2\nZ2.')).toEqual([]);
    const text = `${START}G0 Z2.\nG1 Z-3. F100.\nG0 Z25.\nM30`;
    expect(readProgram(text, NO_CYCLES, { makesHoles: () => false }).calls).toEqual([]);
  });

  it('name the lines that make them, and the deepest', () => {
    expect(read('G0 Z2.\nG1 Z-4. F100.\nZ-9. F50.\nG0 Z25.').calls[0]).toMatchObject({
      line: 8,
      lines: [6, 9],
      cycle: 'G1',
      initial: 25,
    });
  });
});

describe('what a profile does not have', () => {
  const rules = (text: string, profile: typeof NO_CYCLES) => read(text, profile).problems.map((p) => p.rule);
  it('a cycle is not known, and moves nothing', () => {
    const { problems, motions } = read('G98 G81 Z-5. R2. F100.', NO_CYCLES);
    expect(problems[0]).toMatchObject({ rule: 'unknown-word', line: 6 });
    expect(motions.some((m) => m.kind === 'feed')).toBe(false);
  });
  it('a tap that is not announced would run out of step', () => {
    const tap = 'G98 G84 Z-8. R4. F500.';
    expect(rules(tap, RIGID_TAP_ANNOUNCED)).toContain('tap-not-announced');
    expect(rules(`M29 S500\n${tap}`, RIGID_TAP_ANNOUNCED)).toEqual([]);
    expect(rules(`M29 S500\n${tap}\nG80\n${tap}`, RIGID_TAP_ANNOUNCED)).toContain('tap-not-announced');
    expect(rules(tap, RIGID_TAP_BUILT_IN)).toEqual([]);
  });
  it('more still blocks than it looks ahead, where it compensates', () => {
    const around = (still: string) =>
      readProgram(
        `${START}Z-1.\nG41 G1 X20. D1 F200.\nX40.\n${still}Y40.\nG40 G1 X60.\nG0 Z25.\nM30`,
        { ...RIGID_TAP_BUILT_IN, lookAhead: 2 },
        { radiusOf: () => 3 },
      ).problems.map((p) => p.rule);
    expect(around('M8\n')).toEqual([]);
    expect(around('M8\nM9\n')).toEqual(['look-ahead']);
    expect(around('(A)\n\n(B)\n')).toEqual([]);
  });
});

describe('arcs in pieces', () => {
  const arcs = (text: string) =>
    read(`G0 Z2.\nG1 Z-1. F100.\n${text}\nG0 Z25.`).motions.filter((m) => m.kind === 'arc');
  it('are known to go round together', () => {
    expect(arcs('G3 X6. R2.\nX10. R2.').map((m) => m.round)).toEqual([true, true]);
    expect(arcs('G3 X6. R2.\nG2 X10. R2.').map((m) => m.round)).toEqual([undefined, undefined]);
    expect(arcs('G3 X6. R2.').map((m) => m.round)).toEqual([undefined]);
  });
  it('by centres from the zero, where the profile or a word says so', () => {
    const centre = (text: string, profile = RIGID_TAP_BUILT_IN) =>
      read(`Z-1.\n${text}`, profile).motions.find((m) => m.kind === 'arc')?.centre;
    expect(centre('G2 X14. I12. J5. F100.', { ...RIGID_TAP_BUILT_IN, arcs: 'centre-from-zero' })).toEqual([
      12, 5, -1,
    ]);
    expect(centre('G90.1\nG2 X14. I12. J5. F100.')).toEqual([12, 5, -1]);
    expect(centre('G2 X14. I2. J0. F100.')).toEqual([12, 5, -1]);
  });
});

describe('lines of subprograms', () => {
  it('are called after what else their line says', () => {
    const { motions } = read('G0 X50. M98 P7001\nM30\nO7001\nY60.\nM99', RIGID_TAP_BUILT_IN);
    expect(motions.slice(-2).map((m) => m.to.slice(0, 2))).toEqual([
      [50, 5],
      [50, 60],
    ]);
  });
  it('know who called them, so that what runs first comes first', () => {
    const { calls } = read(
      'G98 G81 Z-3. R2. F100.\nM98 P7001\nG80\nM30\nO7001\nX20.\nX30.\nM99',
      RIGID_TAP_BUILT_IN,
    );
    expect(calls.map((c) => [c.line, c.caller, c.dwellSeconds])).toEqual([
      [6, undefined, undefined],
      [11, 7, undefined],
      [12, 7, undefined],
    ]);
  });
});
