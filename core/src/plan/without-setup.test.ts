import { describe, expect, it } from 'vitest';
import { freeSetupId, newSetup } from '../setup/setup.ts';
import { plan } from '../testing/fixtures.ts';
import { withoutSetup } from './without-setup.ts';

describe('a setup that is taken away', () => {
  it('takes with it what was decided for it alone: its id is given again', () => {
    const accepted = (setupId: string | null) => ({
      rule: 'r',
      setupId,
      message: `m ${setupId}`,
      reason: 'seen',
    });
    const two = {
      ...plan(),
      setups: [newSetup('s1', 'top up', '+Z'), newSetup('s2', 'bottom up', '-Z')],
      toolOrders: { s1: ['a'], s2: ['b'] },
      handEdits: { s2: [{ section: null, base: ['%'], hunks: [{ from: 0, count: 1, after: [] }] }] },
      accepted: [accepted('s1'), accepted('s2'), accepted(null)],
    };
    const left = withoutSetup(two, 's2');
    expect(left).toMatchObject({ toolOrders: { s1: ['a'] }, handEdits: {} });
    expect(left.accepted.map((a) => a.setupId)).toEqual(['s1', null]);
    expect(left.setups.map((s) => s.id)).toEqual(['s1']);
    expect(Object.keys(left.toolOrders)).toEqual(['s1']);
    expect(freeSetupId(left.setups)).toBe('s2');
  });
});
