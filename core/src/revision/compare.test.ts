import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyCorrections, targetOf } from '../corrections/apply.ts';
import { familyOf } from '../features/registry.ts';
import { hole, plan } from '../testing/fixtures.ts';
import { carryPlan, compareFeatures } from './compare.ts';

const drilled = (x: number, diameter = 8, depth = 20) =>
  hole({ entry: [x, 20, 0], depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });
const counts = (c: ReturnType<typeof compareFeatures>) =>
  [c.stayed, c.moved, c.resized, c.gone, c.added].map((l) => l.length);

describe('two revisions of a part', () => {
  it('tell what stayed, moved, was resized, is gone and is new', () => {
    const before = [drilled(0), drilled(20), drilled(40, 6), drilled(60, 5)];
    const after = [drilled(0), drilled(23), drilled(40, 6.6), drilled(90, 10)];
    const c = compareFeatures(before, after);
    expect(counts(c)).toEqual([1, 1, 1, 1, 1]);
    expect(c.moved[0]).toEqual({ before: before[1], after: after[1] });
    expect(c.resized[0]).toEqual({ before: before[2], after: after[2] });
    expect([c.gone[0], c.added[0]]).toEqual([before[3], after[3]]);
  });
  it('pair the nearest of equal holes', () => {
    const c = compareFeatures([drilled(0), drilled(50)], [drilled(49), drilled(1)]);
    expect(
      c.moved.map((p) =>
        Math.abs(
          p.before.family === 'hole' && p.after.family === 'hole' ? p.before.entry[0] - p.after.entry[0] : 99,
        ),
      ),
    ).toEqual([1, 1]);
  });
  it('lose nothing and invent nothing', () => {
    const any = fc
      .array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.constantFrom(5, 6, 8)), { maxLength: 14 })
      .map((l) => l.map(([x, d]) => drilled(10 * x, d)));
    fc.assert(
      fc.property(any, any, (a, b) => {
        const c = compareFeatures(a, b);
        const paired = [...c.stayed, ...c.moved, ...c.resized];
        expect(new Set([...paired.map((p) => p.before), ...c.gone]).size).toBe(a.length);
        expect(new Set([...paired.map((p) => p.after), ...c.added]).size).toBe(b.length);
        expect(paired.length + c.gone.length).toBe(a.length);
      }),
    );
  });
  it('of themselves are all stayed', () => {
    const list = [drilled(0), drilled(20), drilled(20, 6)];
    expect(
      counts(
        compareFeatures(
          list,
          list.map((f) => ({ ...f, id: `${f.id}x` })),
        ),
      ),
    ).toEqual([3, 0, 0, 0, 0]);
  });
});

describe('the plan on a new revision', () => {
  const [still, moving, growing, going] = [drilled(0), drilled(20), drilled(40, 6), drilled(60, 5)];
  const before = [still, moving, growing, going];
  const after = [drilled(0), drilled(25), drilled(40, 6.6)];
  const comparison = compareFeatures(before, after);
  const key = (f: (typeof before)[number]) => familyOf(f).sizeKey(f, false);

  it('takes corrections along to where their features are now, and asks about the lost', () => {
    const p = plan();
    p.corrections = [
      { id: 'a', kind: 'levels', targets: [targetOf(moving)], raiseTop: 0, lowerBottom: 0, depth: 12 },
      { id: 'b', kind: 'dismiss', targets: [targetOf(going)] },
      { id: 'c', kind: 'approach', targets: [still, going].map(targetOf), from: [0, 0, 1] },
    ];
    const carried = carryPlan(p, before, comparison, new Set());
    expect(carried.plan.corrections.map((c) => c.id)).toEqual(['a', 'c']);
    const done = applyCorrections(after, carried.plan.corrections);
    expect(done.lost).toEqual([]);
    expect(done.features.map((f) => (f.family === 'hole' ? f.depth : 0))).toEqual([20, 12, 20]);
    expect(carried.asks).toHaveLength(2);
  });
  it('keeps decisions of sizes that stayed and takes over a resized one’s only when asked', () => {
    const p = plan();
    p.sizes = {
      [key(still)]: { overrides: {}, leftOut: 'stays' },
      [key(growing)]: { overrides: {}, leftOut: 'was 6' },
    };
    const left = carryPlan(p, before, comparison, new Set());
    expect(left.plan.sizes[key(after[0]!)]?.leftOut).toBe('stays');
    expect(left.plan.sizes[key(after[2]!)]).toBeUndefined();
    expect(left.asks.join()).toContain('new size');
    expect(
      carryPlan(p, before, comparison, new Set([after[2]!.id])).plan.sizes[key(after[2]!)]?.leftOut,
    ).toBe('was 6');
  });
});
