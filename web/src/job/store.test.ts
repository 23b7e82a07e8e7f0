import { beforeEach, describe, expect, it } from 'vitest';
import { plan } from '@yellow-pin/core/testing/fixtures';
import {
  beginGesture,
  changeSetup,
  decide,
  endGesture,
  loadPlan,
  override,
  redo,
  undo,
  usePlan,
} from './store.ts';

const now = () => usePlan.getState().plan!;
beforeEach(() => loadPlan(plan()));

describe('the plan on the bench', () => {
  it('undoes and redoes each change singly, and not past the start', () => {
    changeSetup('s1', { clearance: 40 });
    override('k', 'drill', 'depth', 12);
    undo();
    expect(now().sizes).toEqual({});
    expect(now().setups[0]!.clearance).toBe(40);
    undo();
    undo();
    expect(now().setups[0]!.clearance).toBe(25);
    redo();
    redo();
    expect(now().sizes['k']!.overrides).toEqual({ drill: { depth: 12 } });
  });

  it('lets a typed number go again and keeps the others', () => {
    override('k', 'drill', 'depth', 12);
    override('k', 'drill', 'peck', 3);
    override('k', 'drill', 'depth', null);
    expect(now().sizes['k']!.overrides).toEqual({ drill: { peck: 3 } });
  });

  it('keeps typed numbers when the callout changes', () => {
    override('k', 'drill', 'peck', 3);
    decide('k', { callout: 'M6' });
    expect(now().sizes['k']).toMatchObject({ callout: 'M6', overrides: { drill: { peck: 3 } } });
  });

  it('a drag is one step, however many changes it makes', () => {
    beginGesture();
    for (const v of [1, 2, 3]) override('k', 'drill', 'depth', v);
    endGesture();
    override('k', 'drill', 'depth', 9);
    undo();
    expect(usePlan.getState().plan!.sizes['k']!.overrides['drill']).toEqual({ depth: 3 });
    undo();
    expect(usePlan.getState().plan!.sizes['k']).toBeUndefined();
  });
});
