import { describe, expect, it } from 'vitest';
import { drill, endMill, hole, howOf, made, reamer, rowOf, tap, usual } from '../testing/fixtures.ts';

describe('what the print wishes and allows', () => {
  const plain = (diameter: number) => hole({ stack: [{ shape: 'cylinder', diameter, length: 20 }] });
  const said = (feature: ReturnType<typeof hole>, callout: string) =>
    rowOf(feature, { callout })
      .remarks.map((r) => r.message)
      .join(' ');

  it('says limits that a drill does not hold, and makes no more of them', () => {
    expect(said(plain(8), '⌀8 H11 ↧20')).toBe('');
    expect(said(plain(8), '⌀8 ±0.2 ↧20')).toBe('');
    expect(said(plain(8), '⌀8 +0.3/+0.1 ↧20')).toContain('⌀8 mm lies outside');
    expect(said(plain(8), '⌀8 R7 ↧20')).toContain('R7 has limits that are not in the table here');
  });
  it('reams what a reamer makes, with a drill that leaves enough for it, and asks for the reamer it lacks', () => {
    for (const callout of ['⌀8 H7 ↧20', '⌀8 REAM ↧20', '⌀8 H8 ↧20']) {
      const lacking = rowOf(plain(8), { callout });
      expect(lacking).toMatchObject({ state: 'open', notMade: 'no tool' });
      expect(lacking.wants.map((w) => w.kind)).toContain('reamer');
      const row = rowOf(plain(8), { callout, more: [reamer(42, 8), drill(43, 7.8)] });
      expect(row.reasons).toEqual([]);
      expect(row.method?.id).toBe('reamed');
      expect(made(row, 'drill').tool.diameter).toBe(7.8);
      expect(howOf(made(row, 'ream')).how).toBe('feed-out');
      expect(row.remarks.filter((r) => r.rule === 'print-and-model')).toEqual([]);
    }
  });
  it('leaves a reamer 0.2 to 0.3, as the handbook has it: never the nearest drill', () => {
    const more = [reamer(42, 8), drill(43, 7.7), drill(44, 7.85), drill(45, 7.6)];
    expect(made(rowOf(plain(8), { callout: '⌀8 H7 ↧20', more }), 'drill').tool.diameter).toBe(7.7);
  });
  it('bores what is finer than a reamer, set to the middle of the limits', () => {
    const wide = plain(24);
    const mills = [endMill(50, 16), endMill(51, 12)];
    const bar = {
      ...drill(52, 24),
      id: 'bar',
      kind: 'boring-bar' as const,
      fluteLength: 3,
      neckDiameter: 18,
      neckLength: 60,
    };
    const row = rowOf(wide, { callout: '⌀24 F7 ↧20', more: [...mills, { ...bar, diameter: 24.0305 }] });
    expect(row.reasons).toEqual([]);
    expect(row.method?.id).toBe('milled-and-bored');
    const bored = made(row, 'bore');
    expect(bored.parameters.find((p) => p.key === 'diameter')?.value).toBeCloseTo(24.0305, 4);
    const mill = made(row, 'helical-bore');
    expect(mill.parameters.find((p) => p.key === 'diameter')?.value).toBeCloseTo(23.6, 6);
  });
  it('keeps the row open for a thread that is to hold an insert', () => {
    const row = rowOf(plain(6.8), { callout: 'M8 STI ↧10' });
    expect(row).toMatchObject({ state: 'open', notMade: 'to decide' });
    expect(row.reasons.join()).toContain('thread insert');
  });
  it('mills a thread that is to be milled, though there is a tap; without a cutter it says which', () => {
    const cutter = usual('thread-mill', 60, 4, {
      fluteLength: 1.6,
      neckDiameter: 2.4,
      neckLength: 20,
      threadForm: { pitch: 1, pitchTo: 1.5, angleDeg: 60, rows: 1, tapered: false },
    });
    const callout = 'M8 THREAD MILL ↧10';
    const row = rowOf(plain(6.8), { callout, more: [cutter] });
    expect(row.operations.map((o) => o.kind)).toContain('thread-mill');
    expect(row.operations.map((o) => o.kind)).not.toContain('tap');
    expect(rowOf(plain(6.8), { callout }).reasons.join()).toMatch(/^No thread mill P1\.25/);
    const tapped = rowOf(plain(6.8), { callout, more: [cutter], method: 'tapped' });
    expect(tapped.remarks.map((r) => r.message)).toContain(
      '"drill and tap" was chosen, though the print wants its thread milled.',
    );
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
