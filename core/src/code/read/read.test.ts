import { describe, expect, it } from 'vitest';
import type { MachineProfile } from '../profiles/schema.ts';
import { RIGID_TAP_BUILT_IN as PROFILE } from '../profiles/shipped.ts';
import { readProgram } from './read.ts';

const START = 'G21 G17 G90 G94 G54\nT1 M6\nS1000 M3\nG0 X0. Y0.\nG43 H1 Z25.\n';
const read = (text: string, profile: Partial<MachineProfile> = {}) =>
  readProgram(START + text, { ...PROFILE, ...profile });
const problems = (text: string, profile: Partial<MachineProfile> = {}) =>
  read(text, profile).problems.filter((p) => p.rule !== 'no-end');
const holes = (text: string) => read(text).calls.map((c) => `${c.x} ${c.y} ${c.z}`);

describe('repeats', () => {
  it('K and L step a cycle under G91', () => {
    const row = 'G98 G81 X0. Y0. Z-3. R2. F100.\nG91 X10. ';
    expect(holes(`${row}K3\nG90 G80`)).toEqual(['0 0 -3', '10 0 -3', '20 0 -3', '30 0 -3']);
    expect(holes(`${row}L2\nG90 G80`)).toHaveLength(3);
  });
  it('P adds whole turns to an arc, or counts them in the other reading', () => {
    const turns = (text: string, profile = {}) =>
      read(text, profile).motions.find((m) => m.kind === 'arc')?.turns;
    expect(turns('G3 X0. Y0. I5. P2 F100.')).toBe(3);
    expect(turns('G3 X0. Y0. I5. P2 F100.', { arcTurns: 'counted' })).toBe(2);
    expect(turns('G3 X10. Y0. I5. J0. P1 F100.')).toBe(1);
    expect(problems('G3 X0. Y0. I5. P1.5 F100.').map((p) => p.rule)).toEqual(['broken-arc']);
  });
});

describe('where a program ends', () => {
  it('reads nothing after M30, and says so where code stands there', () => {
    const { motions, problems } = read('M30\nG0 X5.\nG0 X6.\n');
    expect(motions.at(-1)!.to[0]).toBe(0);
    expect(problems).toEqual([expect.objectContaining({ rule: 'after-end', severity: 'error', line: 7 })]);
    expect(problems[0]!.message).toContain('2 lines');
  });
  it('reads nothing after the second %', () => {
    const text = (tail: string) => readProgram(`%\n${START}M30\n%\n${tail}`, PROFILE);
    expect(text('').problems).toEqual([]);
    expect(text('G1 X5. F1.').problems).toEqual([
      expect.objectContaining({ rule: 'after-percent', severity: 'warning' }),
    ]);
    expect(text('G1 X5. F1.').motions.at(-1)!.kind).toBe('rapid');
  });
});

describe('subprograms of the same file', () => {
  it('are run as often as they are called', () => {
    const text = 'G98 G81 X0. Y0. Z-3. R2. F100.\nM98 P2000 L2\nM30\nO2000\nG91 X10.\nG90\nM99\n';
    expect(holes(text)).toEqual(['0 0 -3', '10 0 -3', '20 0 -3']);
    expect(problems(text).filter((p) => p.severity === 'error')).toEqual([]);
  });
  it.each([
    ['M98 P77\nM30', 'subprogram'],
    ['M98\nM30', 'subprogram'],
    ['M98 P5\nM30\nO5\nM98 P5\nM99', 'subprogram'],
    ['M98 P5\nM30\nO5\nG0 X1.', 'subprogram'],
    ['M99', 'endless'],
  ])('%j is an error', (text, rule) => {
    expect(problems(text)).toContainEqual(expect.objectContaining({ rule, severity: 'error' }));
  });
  it('never run for ever', () => {
    const many = (n: number, next: number) => `O${n}\n${`M98 P${next} L5000\n`.repeat(3)}M99\n`;
    const text = `M98 P1\nM30\n${many(1, 2)}${many(2, 3)}${many(3, 4)}O4\nG0 X1.\nG0 X2.\nM99\n`;
    expect(problems(text)).toContainEqual(expect.objectContaining({ rule: 'too-long', severity: 'error' }));
  });
});

describe('what is left in force', () => {
  it('M6 stops the spindle and forgets the length offset', () => {
    const rules = problems('T2 M6\nG0 Z25.\nG1 X5. F100.').map((p) => p.rule);
    expect(rules).toEqual(['spindle-off', 'no-length-offset']);
  });
  it('G53 G0 leaves G0 in force and ends a cycle', () => {
    const after = (text: string) => read(text).motions.at(-1)!;
    expect(after('G1 X1. F100.\nG53 G0 Z0.\nX5.')).toMatchObject({ kind: 'rapid', to: [5, 0, null] });
    expect(holes('G98 G81 X0. Y0. Z-3. R2. F100.\nG53 G0 Z0.\nX5.')).toHaveLength(1);
  });
  it('G4 takes P, X or U', () => {
    const seconds = (text: string) => read(text).motions.find((m) => m.kind === 'dwell')?.seconds;
    expect([seconds('G4 X1.5'), seconds('G4 U2.'), seconds('G4 P500'), seconds('G4 P0.5')]).toEqual([
      1.5, 2, 0.5, 0.5,
    ]);
    expect(problems('G4').map((p) => p.rule)).toEqual(['dwell']);
    expect(read('G4 X1.5').motions.at(-1)!.to).toEqual([0, 0, 25]);
  });
});

describe('what is not understood is an error with its line, and says what was taken', () => {
  it.each([
    ['G1 X1O. F100.', 'unreadable'],
    ['T2.5', 'bad-number'],
    ['T-3', 'bad-number'],
    ['S-500', 'bad-number'],
    ['G98 G82 X0. Y0. Z-1. R1. P-5 F1.', 'bad-number'],
    ['G17 G18', 'two-of-a-group'],
    ['G90 G91', 'two-of-a-group'],
    ['G20 G21', 'two-of-a-group'],
    ['M3 M5', 'two-of-a-group'],
    ['G54 G55', 'two-of-a-group'],
    ['G81 G80 X1. Z-1. R1.', 'two-of-a-group'],
    ['G43 Z5.', 'length-offset'],
    ['G43 H0 Z5.', 'length-offset'],
    ['G43 H7 Z5.', 'length-offset'],
    ['M77', 'unknown-word'],
    ['G1 U5. F100.', 'unknown-word'],
    ['T0 M6', 'no-tool'],
    ['G1 X12 F100.', 'no-decimal-point'],
    ['(a (b) c)', 'bracket-in-comment'],
  ])('%s', (text, rule) => {
    const found = problems(text).find((p) => p.rule === rule);
    expect(
      found,
      problems(text)
        .map((p) => p.rule)
        .join(),
    ).toMatchObject({ severity: 'error', line: 6 });
  });

  it('another tool’s H where the profile allows it', () =>
    expect(problems('G43 H7 Z5.', { otherLengthOffsets: true })).toEqual([]));
  it('a length in whole units where the profile allows it', () =>
    expect(problems('G0 X12', { wholeUnitsWithoutPoint: true })).toEqual([]));

  it('an unknown word in a start line loses none of the others', () => {
    const text = 'G20 G17 G90 G187 F5.\nT1 M6\nS9 M3\nG54 G0 X1. Y0.\nG43 H1 Z1.\nG1 Z0.5\n';
    const { motions, units, problems } = readProgram(text, PROFILE);
    expect(units).toBe('inch');
    expect(motions.at(-1)).toMatchObject({ feed: 127, to: [25.4, 0, 12.7] });
    expect(problems[0]!.message).toMatch(/G187 is not known .* Of the line G20 G17 G90 F5 was taken/);
  });
  it('words for accuracy are harmless', () => expect(problems('G64 G61')).toEqual([]));

  it('says once that the start line is missing, and what it should be', () => {
    const { problems } = readProgram(START.replace('G21 G17 G90 ', '') + 'G1 X5. F100.\nX6.', PROFILE);
    const found = problems.filter((p) => p.rule === 'start-line');
    expect(found).toHaveLength(1);
    expect(found[0]!.message).toContain('G21 G17 G90');
  });
  it('names G91 that was left on', () =>
    expect(problems('G91 G28 Z0.\nG0 X5.\nX6.')).toContainEqual(
      expect.objectContaining({
        rule: 'incremental',
        line: 7,
        message: expect.stringContaining('since line 6') as string,
      }),
    ));

  it('a flood is one finding with a count', () => {
    const found = problems(Array.from({ length: 48 }, (_, i) => `G1 X${i}. A5. F100.`).join('\n'));
    expect(found).toHaveLength(1);
    expect(found[0]!.message).toContain('And 47 more like it, the last in line 53');
  });

  it('a program of a few kilobytes cannot make motion without bound', () => {
    const text = 'G91\n' + 'G83 X1. Z-1. R1. Q0.001 F100. L5000\n'.repeat(40);
    const { motions, problems } = read(text);
    expect(motions.length).toBeLessThan(2_100_000);
    expect(problems.map((p) => p.rule)).toContain('too-long');
  });
});

describe('pecked taps', () => {
  const text = 'G98 G84 X0. Y0. Z-10. R5. Q4. F1000.\nG80';
  const depths = (profile: Partial<MachineProfile>) =>
    read(text, profile)
      .motions.filter((m) => m.kind === 'tap')
      .map((m) => m.to[2]);

  it('go out to R in step after each peck where the machine does so', () => {
    expect(depths({ pecksTaps: true })).toEqual([1, 5, -3, 5, -7, 5, -10, 5]);
    expect(problems(text, { pecksTaps: true })).toEqual([]);
  });

  it('are read in one go elsewhere, and it is said', () => {
    expect(depths({})).toEqual([-10, 5]);
    expect(problems(text).map((p) => p.rule)).toEqual(['tap-peck']);
  });

  it('that would never end are left out', () => {
    const endless = read('G98 G84 X0. Y0. Z-10. R5. Q0.000001 F1000.\nG80', { pecksTaps: true });
    expect(endless.problems.map((p) => p.rule)).toContain('too-many-pecks');
    expect(endless.calls).toEqual([]);
  });
});
