import { describe, expect, it } from 'vitest';
import { drill, hole, made, rowOf, tap } from '../testing/fixtures.ts';

describe('what the print wishes and allows', () => {
  const plain = (diameter: number) => hole({ stack: [{ shape: 'cylinder', diameter, length: 20 }] });
  const said = (feature: ReturnType<typeof hole>, callout: string) =>
    rowOf(feature, { callout })
      .remarks.map((r) => r.message)
      .join(' ');

  it('says limits that a drill does not hold, and makes no more of them', () => {
    expect(said(plain(8), '⌀8 H7 ↧20')).toContain('H7: 8 mm to 8.015 mm, finer than a drill holds');
    expect(said(plain(8), '⌀8 H11 ↧20')).toBe('');
    expect(said(plain(8), '⌀8 ±0.2 ↧20')).toBe('');
    expect(said(plain(8), '⌀8 +0.3/+0.1 ↧20')).toContain('a drill of ⌀8 mm lies outside');
    expect(said(plain(8), '⌀8 R7 ↧20')).toContain('R7 has limits that are not in the table here');
    expect(said(plain(8), '⌀8 REAM ↧20')).toContain('wants ⌀8 mm reamed');
  });
  it('keeps the row open for a thread that is to be milled, or to hold an insert', () => {
    for (const [wish, words] of [
      ['STI', 'thread insert'],
      ['THREAD MILL', 'milled, which no method does yet'],
    ] as const) {
      const row = rowOf(plain(6.8), { callout: `M8 ${wish} ↧10` });
      expect(row).toMatchObject({ state: 'open', notMade: 'to decide' });
      expect(row.reasons.join()).toContain(words);
    }
  });
  it('drills for a forming tap, and taps with one, where the print asks for it', () => {
    const forming = { ...tap(40, 'M8x1.25', 8, 1.25, { style: 'forming' as const }), id: 'form-m8' };
    const more = [forming, drill(41, 7.45)];
    const row = rowOf(plain(7.4), { callout: 'M8 FORM TAP ↧8', more });
    expect(row.state).toBe('planned');
    expect(made(row, 'tap').tool.id).toBe('form-m8');
    expect(made(row, 'drill').tool.diameter).toBe(7.45);
  });
});
