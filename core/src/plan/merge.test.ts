import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newSetup } from '../setup/setup.ts';
import { mergePlans } from './merge.ts';
import { newPlan, type Plan } from './plan.ts';

const BASE: Plan = { ...newPlan('mm', 'alu', 'mill'), sizes: { a: { overrides: {} }, b: { overrides: {} } } };
const changed = (change: (p: Plan) => void): Plan => {
  const p = structuredClone(BASE);
  change(p);
  return p;
};
const left = (reason: string) => ({ overrides: {}, leftOut: reason });

describe('two plans changed from one', () => {
  it('keep both where they touch different rows', () => {
    const { plan, conflicts } = mergePlans(
      BASE,
      changed((p) => (p.sizes['a'] = left('mine'))),
      changed((p) => (p.sizes['b'] = left('theirs'))),
    );
    expect(conflicts).toEqual([]);
    expect(plan.sizes).toEqual({ a: left('mine'), b: left('theirs') });
  });
  it('name the row that both changed, and keep theirs there', () => {
    const { plan, conflicts } = mergePlans(
      BASE,
      changed((p) => (p.sizes['a'] = left('mine'))),
      changed((p) => (p.sizes['a'] = left('theirs'))),
    );
    expect(conflicts).toEqual([{ field: 'sizes', key: 'a' }]);
    expect(plan.sizes['a']).toEqual(left('theirs'));
  });
  it('the same change by both is no conflict', () => {
    const same = changed((p) => (p.edgeBreak = 0.3));
    expect(mergePlans(BASE, same, structuredClone(same))).toEqual({ plan: same, conflicts: [] });
  });
  it('setups are put in, changed and taken out one by one', () => {
    const { plan, conflicts } = mergePlans(
      BASE,
      changed((p) => p.setups.push(newSetup('mine', 'bottom', '-Z', 'G55'))),
      changed((p) => (p.setups[0]!.clearance = 40)),
    );
    expect(conflicts).toEqual([]);
    expect(plan.setups.map((s) => [s.id, s.clearance])).toEqual([
      ['s1', 40],
      ['mine', 25],
    ]);
    const gone = mergePlans(
      changed((p) => p.setups.push(newSetup('x', 'x', '-Z', 'G55'))),
      BASE,
      changed((p) => p.setups.push(newSetup('x', 'x', '-Z', 'G55'))),
    );
    expect(gone.plan.setups.map((s) => s.id)).toEqual(['s1']);
  });
  it('what only one changed is that one’s, whatever it is (property)', () => {
    const change = fc.record({
      units: fc.constantFrom<'mm' | 'inch'>('mm', 'inch'),
      edgeBreak: fc.option(fc.double({ min: 0.1, max: 2, noNaN: true })),
      sizes: fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.constantFrom(left('x'), left('y'))),
      loaded: fc.dictionary(fc.constantFrom('t1', 't2'), fc.integer({ min: 1, max: 9 })),
    });
    fc.assert(
      fc.property(change, (own) => {
        const mine = { ...BASE, ...own };
        expect(mergePlans(BASE, mine, BASE)).toEqual({ plan: mine, conflicts: [] });
        expect(mergePlans(BASE, BASE, mine)).toEqual({ plan: mine, conflicts: [] });
      }),
    );
  });
});
