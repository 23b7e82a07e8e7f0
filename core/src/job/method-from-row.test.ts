import { describe, expect, it } from 'vitest';
import { counterbored, hole, made, rowOf } from '../testing/fixtures.ts';
import { methodFaults } from '../methods/faults.ts';
import { matchedRows, methodFromRow } from './method-from-row.ts';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import type { Method } from '../methods/schema.ts';

const NAMED = { id: 'own', name: 'our way' };
const drilled = SHIPPED_METHODS.find((m) => m.id === 'drilled')!;
const blind = hole({ depth: 20, stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }] });
const own = (typed: Record<string, Record<string, number | string>>): Method =>
  methodFromRow(rowOf(blind, { typed }), drilled, { overrides: typed }, NAMED)!;

describe('a row as a method', () => {
  it('takes along what was typed about the way, and never a depth: that is the feature’s', () => {
    const method = own({ spot: { rim: 9.5 }, drill: { depth: 22, peck: 2, cycle: 'full-retract' } });
    expect(methodFaults(method)).toEqual([]);
    const set = Object.fromEntries(
      method.operations.filter((o) => o.part === 'hole').map((o) => [o.kind, o.set]),
    );
    expect(set['spot']).toEqual({ rim: 9.5 });
    expect(set['drill']).toEqual({ peck: 2, cycle: 'full-retract' });
  });

  it('applies to sizes like it, and to no other', () => {
    const method = own({});
    const rows = [rowOf(blind), rowOf(counterbored()), rowOf(blind, { callout: 'M10x1.5' })];
    expect(matchedRows(method, rows, 'alu')).toEqual([rows[0]]);
    const wider = {
      ...method,
      when: { ...method.when, diameter: { from: 4, to: 12 }, stepped: undefined, through: undefined },
    };
    expect(matchedRows(wider, rows, 'alu').length).toBe(2);
  });

  it('is taken for the next hole like it, with its numbers', () => {
    const typed = { drill: { cycle: 'full-retract', peck: 3 } };
    const row = rowOf(hole({ depth: 30, stack: [{ shape: 'cylinder', diameter: 8.5, length: 30 }] }), {
      methods: [own(typed)],
    });
    expect(row.method).toEqual(NAMED);
    expect(made(row, 'drill').work[0]!.motion).toMatchObject({ how: { how: 'full-retract', peck: 3 } });
  });
});
