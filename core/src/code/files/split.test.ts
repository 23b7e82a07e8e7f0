import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sampleProgram } from '../profiles/sample-program.ts';
import { PROFILES, RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';
import { readProgram } from '../read/read.ts';
import { writeProgram } from '../write/write.ts';
import { firstDifference, programFiles } from './split.ts';

const tools = { radiusOf: () => 4, makesHoles: (n: number) => n < 5 };
const written = (profile = RIGID_TAP_BUILT_IN) => writeProgram(sampleProgram(), profile);

describe('a program in several files', () => {
  it('is itself where it is not cut', () => {
    const program = written();
    expect(programFiles(program, [0, 99], RIGID_TAP_BUILT_IN, 'a.nc')).toEqual([
      { fileName: 'a.nc', text: program.text },
    ]);
  });

  it('has names and numbers of its own, and begins at home', () => {
    const files = programFiles(written(), [4, 2], RIGID_TAP_BUILT_IN, 'plate.nc');
    expect(files.map((f) => f.fileName)).toEqual(['plate-part-1.nc', 'plate-part-2.nc', 'plate-part-3.nc']);
    expect(files.map((f) => /^O\d+/m.exec(f.text)![0])).toEqual(['O1001', 'O1101', 'O1201']);
    for (const [i, f] of files.entries()) {
      expect(f.text).toContain(`(PART ${i + 1} OF 3)`);
      expect(f.text.match(/M30/g)).toHaveLength(1);
      expect(f.text.indexOf('G53 G0 Z0.')).toBeLessThan(f.text.indexOf('M6'));
    }
  });

  it('takes the subprograms along that it calls, and no others', () => {
    const profile = { ...RIGID_TAP_BUILT_IN, holeSubprograms: true };
    const program = written(profile);
    expect(program.text.match(/^M98 P7001$/gm)!.length).toBeGreaterThan(1);
    const [holes, rest] = programFiles(program, [3], profile, 'a.nc');
    expect(holes!.text).toMatch(/M30\nO7001\n/);
    expect(rest!.text).not.toContain('O7001');
  });

  it('does what the whole does, wherever it is cut and for every machine (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PROFILES, { ...RIGID_TAP_BUILT_IN, holeSubprograms: true, wordSpaces: false }),
        fc.array(fc.nat(7), { maxLength: 5 }),
        (profile, cuts) => {
          const program = written(profile);
          const parts = programFiles(program, cuts, profile, 'a.nc').map((f) =>
            readProgram(f.text, profile, tools),
          );
          expect(parts.flatMap((p) => p.problems)).toEqual([]);
          expect(firstDifference(readProgram(program.text, profile, tools), parts)).toBeNull();
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is told from one that does something else', () => {
    const files = programFiles(written(), [2], RIGID_TAP_BUILT_IN, 'a.nc').map((f) => f.text);
    const whole = readProgram(written().text, RIGID_TAP_BUILT_IN, tools);
    const differs = (texts: string[]) =>
      firstDifference(
        whole,
        texts.map((t) => readProgram(t, RIGID_TAP_BUILT_IN, tools)),
      );
    expect(differs([files[0]!, files[1]!.replace('Z-18.', 'Z-18.1')])).toMatchObject({ part: 1 });
    expect(differs([files[0]!])).toMatchObject({ part: 0 });
    expect(differs([files[1]!, files[0]!])).toMatchObject({ part: 0 });
  });
});
