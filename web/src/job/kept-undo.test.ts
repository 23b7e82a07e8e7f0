import { describe, expect, it } from 'vitest';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { keepSteps, keptSteps, samePlan } from './kept-undo.ts';

function storeOf() {
  const map = new Map<string, string>();
  return {
    map,
    getItem: (k: string) => map.get(k) ?? null,
    setItem: (k: string, v: string) => void map.set(k, v),
    removeItem: (k: string) => void map.delete(k),
  };
}
const plan = (solid: number): Plan => ({ ...newPlan('mm', 'alu', 'mill'), solid });

describe('undo over a reload', () => {
  it('comes back where the plan is the one that was left', () => {
    const store = storeOf();
    keepSteps(store, 'j', plan(2), { past: [plan(0), plan(1)], future: [plan(3)] });
    expect(keptSteps(store, 'j', plan(2))).toEqual({ past: [plan(0), plan(1)], future: [plan(3)] });
    expect(keptSteps(store, 'other', plan(2))).toBeNull();
  });
  it('knows the plan in whatever order it was put together', () => {
    const store = storeOf();
    keepSteps(store, 'j', plan(2), { past: [plan(0)], future: [] });
    const turned = Object.fromEntries(Object.entries(plan(2)).reverse()) as unknown as Plan;
    expect(keptSteps(store, 'j', turned)?.past).toEqual([plan(0)]);
    const sizes = { b: { overrides: {} }, a: { overrides: {} } };
    const other = { a: { overrides: {} }, b: { overrides: {} } };
    expect(samePlan({ ...plan(1), sizes }, { ...plan(1), sizes: other })).toBe(true);
    expect(samePlan({ ...plan(1), sizes }, plan(1))).toBe(false);
  });
  it('is gone where the plan was changed elsewhere, or the storage holds nonsense', () => {
    const store = storeOf();
    keepSteps(store, 'j', plan(2), { past: [plan(0)], future: [] });
    expect(keptSteps(store, 'j', plan(5))).toBeNull();
    store.map.set('yellow-pin/undo/j', '{"current":');
    expect(keptSteps(store, 'j', plan(2))).toBeNull();
  });
  it('lets the oldest steps go where there is no room, and never fails', () => {
    const store = storeOf();
    const large = (n: number): Plan => ({
      ...plan(n),
      sizes: Object.fromEntries(
        Array.from({ length: 900 }, (_, i) => [`hole/${i}`, { callout: 'x'.repeat(120), overrides: {} }]),
      ),
    });
    keepSteps(store, 'j', large(99), { past: Array.from({ length: 60 }, (_, i) => large(i)), future: [] });
    const { past } = keptSteps(store, 'j', large(99))!;
    expect(past.length).toBeGreaterThan(3);
    expect(past.length).toBeLessThan(40);
    expect(past[past.length - 1]!.solid).toBe(59);
    const full = {
      ...storeOf(),
      setItem: () => {
        throw new Error('full');
      },
    };
    expect(() => keepSteps(full, 'j', plan(1), { past: [], future: [] })).not.toThrow();
  });
});
