import { describe, expect, it } from 'vitest';
import type { DerivedJob, Row } from '@yellow-pin/core/job/derive';
import type { Setup } from '@yellow-pin/core/setup/setup';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { askedBefore } from '../code/asked-before.ts';
import { setupToShow } from '../job/setup-to-show.ts';
import type { ScreenProgram } from '../workers/produce-steps.ts';
import type { MetalWord } from './use-metal.ts';
import { verdict } from './verdict.ts';

const job = (...notMade: (Row['notMade'] | null)[]) =>
  ({
    rows: notMade.map((n) => ({ notMade: n, state: 'open', setupId: 's2' })),
    setups: [],
  }) as unknown as DerivedJob;
const program = (id = 's1') => ({ setup: { setup: { id } } }) as unknown as ScreenProgram;
const check = (severity: Check['severity'], setupId?: string): Check =>
  ({ rule: 'r', severity, message: 'm', tag: 'A', ...(setupId ? { setupId } : {}) }) as Check;

describe('may it be sent', () => {
  const of = (checks: Check[] | null, programs = [program()], rows = job(null), metal: MetalWord = 'known') =>
    verdict({ job: rows, programs, checks }, metal)?.state ?? null;
  it('is not known before the code is read back', () => expect(of(null)).toBeNull());
  it('is no where anything is wrong, and proved only where every row is made or left out', () => {
    expect(of([check('error')])).toBe('wrong');
    expect(of([], [])).toBe('nothing');
    expect(of([], [program()], job('no tool', null))).toBe('open');
    expect(of([check('warning')])).toBe('proved');
  });
  it('is not said before the metal is known; what is wrong is said at once', () => {
    for (const metal of ['under way', 'unknown'] as const) {
      expect(of([], [program()], job(null), metal)).toBeNull();
      expect(of([check('error')], [program()], job(null), metal)).toBe('wrong');
    }
  });
  it('is asked for the errors of just those programs that are given out', () => {
    const checks = [check('error', 's1'), check('error', 's2'), check('warning', 's1'), check('error')];
    expect(askedBefore([program('s1')], checks, 'known')).toEqual(['A: m', 'A: m']);
    expect(askedBefore([program('s1')], [], 'under way')).toHaveLength(1);
    expect(askedBefore([program('s3')], [check('error', 's1')], 'known')).toEqual([]);
  });
});

describe('the setup that is shown', () => {
  const setups = ['s1', 's2'].map((id) => ({ id }) as Setup);
  it('is the one asked for, else the first with something to make, else the first that waits', () => {
    const made = { rows: [], setups: [{ setup: setups[1], operations: [{}] }] } as unknown as DerivedJob;
    expect(setupToShow(setups, 's1', made)?.id).toBe('s1');
    expect(setupToShow(setups, 'gone', made)?.id).toBe('s2');
    expect(setupToShow(setups, null, job('no tool'))?.id).toBe('s2');
    expect(setupToShow(setups, null, null)?.id).toBe('s1');
  });
});
