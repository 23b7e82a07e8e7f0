import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOST_PLAN_BYTES, newPlan, PLAN_FORMAT, planSchema } from './plan.ts';

const plan = newPlan('mm', 'steel', 'mill');

describe('plans', () => {
  it('are read back as they were', () => {
    expect(planSchema.parse(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
  });

  it('of before are brought up to date', () => {
    const { attitude: _a, zero: _z, stock, ...rest } = plan.setups[0]!;
    const first = {
      ...plan,
      format: 'yellow-pin/plan@1',
      toolOrder: ['t1'],
      setups: [
        {
          ...rest,
          up: '-X',
          zero: { of: 'stock', x: 0, y: 0, z: 1 },
          stock: { ...stock, state: 'prepared', kind: undefined },
        },
      ],
    };
    const read = planSchema.parse(first);
    expect(read.format).toBe(PLAN_FORMAT);
    expect(read.setups[0]!.attitude.up).toEqual([-1, 0, 0]);
    expect(read.setups[0]!.stock.kind).toBe('prepared');
    expect(read.toolOrders).toEqual({ [rest.id]: ['t1'] });
  });

  it('that are anything else are refused, never fallen over', () => {
    const anything = fc.anything({ maxDepth: 3, withNullPrototype: false });
    fc.assert(
      fc.property(
        fc.constantFrom('yellow-pin/plan@1', 'yellow-pin/plan@2', PLAN_FORMAT),
        fc.constantFrom('setups', 'sizes', 'toolOrder', 'toolOrders', 'drawing', 'corrections', 'units'),
        fc.oneof(anything, fc.array(anything), fc.dictionary(fc.string(), anything)),
        (format, key, value) => {
          const { success } = planSchema.safeParse({ ...plan, format, [key]: value });
          expect(typeof success).toBe('boolean');
        },
      ),
      { numRuns: 500 },
    );
  });

  it('may be large, and not without end', () => {
    const entries = (n: number) =>
      Object.fromEntries(
        Array.from({ length: n }, (_, i) => [`hole ${i}`, { overrides: { drill: { depth: i } } }]),
      );
    expect(planSchema.safeParse({ ...plan, sizes: entries(5000) }).success).toBe(true);
    expect(planSchema.safeParse({ ...plan, sizes: entries(5001) }).success).toBe(false);
    expect(JSON.stringify({ ...plan, sizes: entries(5000) }).length).toBeLessThan(MOST_PLAN_BYTES);
  });
});
