import { describe, expect, it } from 'vitest';
import { drill, endMill, hole, reamer, rowOf } from '../testing/fixtures.ts';

const plain = (diameter: number, depth = 25) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });

describe('a method that is chosen', () => {
  it('is refused where it would leave out what the print asks for: no thread is lost without a word', () => {
    const row = rowOf(plain(6.8), { callout: 'M8x1.25 ↧16', method: 'drilled' });
    expect(row).toMatchObject({ state: 'open', notMade: 'to decide' });
    expect(row.operations).toEqual([]);
    expect(row.reasons.join()).toContain('it is for holes without a thread');
    expect(row.methods.map((m) => m.id)).toContain('tapped');
  });

  it('is obeyed with a warning where it only makes the hole otherwise than usual', () => {
    const more = [reamer(42, 8), drill(43, 7.8)];
    const row = rowOf(plain(8, 20), { callout: '⌀8 H7 ↧20', method: 'drilled', more });
    expect(row.state).toBe('planned');
    expect(row.remarks.map((r) => r.rule)).toEqual(
      expect.arrayContaining(['method-unfit', 'print-and-model']),
    );
  });

  it('that is gone from the list is said, and the best is taken', () => {
    const row = rowOf(plain(8.5, 20), { method: 'of-last-year' });
    expect(row).toMatchObject({ state: 'planned', method: { id: 'drilled' } });
    expect(row.remarks.map((r) => r.rule)).toContain('method-gone');
  });

  it('says what is missing for it, and takes no other', () => {
    const row = rowOf(plain(11, 20), { method: 'milled-small', more: [endMill(50, 20)] });
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    expect(row.wants[0]?.kind).toBe('end-mill');
  });
});
