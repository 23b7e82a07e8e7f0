import { describe, expect, it } from 'vitest';
import { cycleWord } from '../cycles.ts';
import { readProgram } from '../read/read.ts';
import { writeProgram } from '../write/write.ts';
import { sampleProgram } from './sample-program.ts';
import { PROFILES } from './shipped.ts';

const radiusOf = (d: number): number => (d === 6 ? 4 : 5);
const makesHoles = (n: number): boolean => n < 5;

describe.each(PROFILES)('the sample program for $name', (profile) => {
  it.each(['mm', 'inch'] as const)('is read back as it was meant, in %s', (units) => {
    const program = sampleProgram(units);
    const { text } = writeProgram(program, profile);
    const read = readProgram(text, profile, { radiusOf, makesHoles });
    expect(read.problems).toEqual([]);
    const meant = program.visits.flatMap((v) =>
      v.operations.flatMap((o) => o.work.flatMap((w) => (w.motion.kind === 'cycle' ? [w.motion.how] : []))),
    );
    expect(read.calls.map((c) => c.how)).toEqual(meant.map((m) => m.how));
    for (const how of meant)
      expect(text.includes(cycleWord(how))).toBe(
        profile.cycles.includes(cycleWord(how)) || text.includes(`NO ${cycleWord(how)}`),
      );
  });
});
