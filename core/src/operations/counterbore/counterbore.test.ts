import { describe, expect, it } from 'vitest';
import { counterbored, made, rowOf, howOf } from '../../testing/fixtures.ts';

describe('a counterbore', () => {
  it('goes to its floor, after the drill, and stays there for a moment', () => {
    const row = rowOf(counterbored());
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'drill', 'counterbore']);
    expect(howOf(made(row, 'counterbore'))).toEqual({ how: 'dwell', seconds: 0.3 });
    expect(made(row, 'counterbore').work[0]!.z).toBeCloseTo(-6.8, 9);
  });

  it('follows the print before the model, and what is typed before the print', () => {
    const callout = '⌀6.6 THRU ⌴⌀11 ↧7';
    expect(made(rowOf(counterbored(), { callout }), 'counterbore').work[0]!.z).toBeCloseTo(-7, 9);
    const both = rowOf(counterbored(), { callout, typed: { counterbore: { depth: 7.2 } } });
    expect(made(both, 'counterbore').work[0]!.z).toBeCloseTo(-7.2, 9);
  });

  it('is made by a cutter of exactly its size, or not at all', () => {
    const reasons = ['No counterbore ⌀11.5 mm in the tool list.'];
    expect(rowOf(counterbored({ diameter: 11.5 }))).toMatchObject({ state: 'open', operations: [], reasons });
  });
});
