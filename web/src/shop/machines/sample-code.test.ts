import { describe, expect, it } from 'vitest';
import { NO_CYCLES, PROFILES, RIGID_TAP_BUILT_IN } from '@yellow-pin/core/code/profiles/shipped';
import { changedLines, sampleCode } from './sample-code.ts';

describe('the sample program beside the form', () => {
  it('is read back without a problem, and takes time', () => {
    for (const profile of PROFILES) {
      const { problems, holes, seconds } = sampleCode(profile, profile);
      expect(problems).toEqual([]);
      expect(holes).toBe(16);
      expect(seconds).toBeGreaterThan(60);
    }
  });
  it('shows which lines a change changes', () => {
    expect(sampleCode(NO_CYCLES, NO_CYCLES).changed.size).toBe(0);
    const changed = { ...RIGID_TAP_BUILT_IN, endWord: 'M2' as const };
    const { lines, changed: at } = sampleCode(changed, RIGID_TAP_BUILT_IN);
    expect([...at].map((i) => lines[i])).toEqual(['M2']);
  });
  it('counts lines that are put in and taken out before', () => {
    expect([...changedLines(['a', 'b', 'c'], ['b', 'x', 'c', 'y'])]).toEqual([1, 3]);
  });
  it('says what a start line of the shop would do', () => {
    const { problems } = sampleCode({ ...RIGID_TAP_BUILT_IN, startLines: ['G187 P1'] }, null);
    expect(problems[0]).toContain('G187 is not known');
  });
});
