import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findEdits, hunksOf } from './find-edits.ts';
import type { Section } from './schema.ts';
import { takeEdits } from './take-edits.ts';

const SECTIONS: Section[] = [
  { name: 'spot', firstLine: 3, lastLine: 5 },
  { name: 'drill', firstLine: 7, lastLine: 9 },
];
const POSTED = [
  '%',
  'T1 M6',
  'S900 M3',
  'G81 Z-2. F90.',
  'G80',
  'T2 M6',
  'S700 M3',
  'G83 Z-20. F120.',
  'G80',
];
const swap = (line: number, text: string): string[] => POSTED.map((l, i) => (i === line ? text : l));
/** What becomes of an edit when other lines are posted. */
const along = (typed: readonly string[], now: readonly string[], sections = SECTIONS) =>
  takeEdits(now, sections, findEdits(POSTED, typed, SECTIONS));

describe('edits of a posted text', () => {
  it('are known by the operation they stand in', () => {
    const [edit] = findEdits(POSTED, swap(7, 'G83 Z-22. F120.'), SECTIONS);
    expect(edit).toEqual({
      section: 'drill',
      base: POSTED.slice(6, 9),
      hunks: [{ from: 1, count: 1, after: ['G83 Z-22. F120.'] }],
    });
    expect(findEdits(POSTED, POSTED, SECTIONS)).toEqual([]);
  });

  it('give what was typed when they are laid over the same text again (property)', () => {
    const line = fc.constantFrom('G80', 'X1.', 'X2.', '', 'M5');
    const text = fc.array(line, { minLength: 9, maxLength: 9 });
    const typed = fc.array(line, { maxLength: 14 });
    fc.assert(
      fc.property(text, typed, (a, b) => {
        const laid = takeEdits(a, SECTIONS, findEdits(a, b, SECTIONS));
        expect(laid.lines).toEqual(b);
        expect(laid.unfit).toEqual([]);
      }),
    );
  });

  it('never change a line that nobody touched (property)', () => {
    const line = fc.constantFrom('G80', 'X1.', 'X2.', 'X3.', 'M5');
    const nine = fc.array(line, { minLength: 9, maxLength: 9 });
    fc.assert(
      fc.property(nine, fc.array(line, { maxLength: 12 }), nine, (posted, typed, now) => {
        const edits = findEdits(posted, typed, SECTIONS);
        const { lines, taken, unfit } = takeEdits(now, SECTIONS, edits);
        const all = edits.reduce((n, e) => n + e.hunks.length, 0);
        expect(taken.length + unfit.length).toBe(all);
        // Taken back one by one, the posted text is there again.
        let back = [...lines];
        for (const t of [...taken].reverse())
          back = [...back.slice(0, t.firstLine - 1), ...t.before, ...back.slice(t.lastLine)];
        expect(back).toEqual(now);
      }),
    );
  });
});

describe('edits on another posted text', () => {
  it('are taken along where their own lines are as they were', () => {
    const now = [...POSTED.slice(0, 2), 'S950 M3', ...POSTED.slice(3)];
    const { lines, unfit } = along(swap(7, 'G83 Z-22. F120.'), now);
    expect(lines[7]).toBe('G83 Z-22. F120.');
    expect(unfit).toEqual([]);
  });

  it('go with their operation when it is moved', () => {
    const now = ['%', 'T2 M6', ...POSTED.slice(6, 9), 'T1 M6', ...POSTED.slice(2, 5)];
    const sections = [
      { name: 'drill', firstLine: 3, lastLine: 5 },
      { name: 'spot', firstLine: 7, lastLine: 9 },
    ];
    const { lines, unfit, taken } = along(swap(7, 'G83 Z-22. F120.'), now, sections);
    expect(unfit).toEqual([]);
    expect(lines[3]).toBe('G83 Z-22. F120.');
    expect(taken[0]).toMatchObject({ firstLine: 4, lastLine: 4, before: ['G83 Z-20. F120.'] });
  });

  it('are unfit where the plan posts other lines: those stand', () => {
    const now = swap(7, 'G83 Z-25. F120.');
    const { lines, unfit, taken } = along(swap(7, 'G83 Z-22. F120.'), now);
    expect(lines).toEqual(now);
    expect(taken).toEqual([]);
    expect(unfit).toEqual([
      { at: [0, 0], why: 'lines changed', before: ['G83 Z-20. F120.'], after: ['G83 Z-22. F120.'], near: 8 },
    ]);
  });

  it('are unfit where their operation is gone', () => {
    const { unfit } = along(swap(3, 'G81 Z-3. F90.'), POSTED.slice(5), [
      { name: 'drill', firstLine: 2, lastLine: 4 },
    ]);
    expect(unfit[0]).toMatchObject({ why: 'section gone', near: 1 });
  });

  it('put lines in only where both neighbours are still neighbours', () => {
    const typed = [...POSTED.slice(0, 4), 'M1', ...POSTED.slice(4)];
    expect(along(typed, POSTED).lines).toEqual(typed);
    const between = [...POSTED.slice(0, 4), 'X10. Y10.', ...POSTED.slice(4)];
    const sections = [
      { name: 'spot', firstLine: 3, lastLine: 6 },
      { name: 'drill', firstLine: 8, lastLine: 10 },
    ];
    expect(along(typed, between, sections)).toMatchObject({ lines: between, unfit: [{ after: ['M1'] }] });
  });

  it('do not mistake one of several lines that read alike for another', () => {
    // The first G80 is edited; the plan then posts other lines for its operation: the G80 of the other is not touched.
    const now = ['%', 'T1 M6', 'S900 M3', 'X1. Y1.', 'M0', 'T2 M6', 'S700 M3', 'G83 Z-20. F120.', 'G80'];
    expect(along(swap(4, 'G80 M9'), now)).toMatchObject({ lines: now, unfit: [{ before: ['G80'] }] });
  });

  it('know where posted lines went', () => {
    const typed = [...POSTED.slice(0, 3), 'M8', 'M0', ...POSTED.slice(3, 7), ...POSTED.slice(8)];
    const { startOf, lineOf } = along(typed, POSTED);
    expect([startOf(2), startOf(3), lineOf(3)]).toEqual([2, 5, 5]);
    expect([startOf(7), lineOf(7), startOf(9)]).toEqual([9, null, 10]);
  });
});

describe('differences of two texts', () => {
  it('are as few lines as do', () => {
    expect(hunksOf(['a', 'b', 'c'], ['a', 'x', 'c', 'd'])).toEqual([
      { from: 1, count: 1, after: ['x'] },
      { from: 3, count: 0, after: ['d'] },
    ]);
  });
});
