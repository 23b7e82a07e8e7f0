import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { THREADS } from '../threads/standards.ts';
import { CalloutError, formatCallout, parseCallout } from './callout.ts';

describe('parseCallout', () => {
  it('reads a metric thread with class and depth', () => {
    const c = parseCallout('M6x1 - 6H ↧12', 'mm');
    expect(c.thread).toMatchObject({ designation: 'M6x1', majorDiameter: 6, pitch: 1, tapDrill: 5, toleranceClass: '6H', hand: 'right' });
    expect(c).toMatchObject({ depth: 12, through: false });
  });

  it('reads a unified thread through', () => {
    const c = parseCallout('1/4-20 UNC-2B THRU', 'inch');
    expect(c.thread).toMatchObject({ designation: '1/4-20 UNC', toleranceClass: '2B' });
    expect(c.thread!.pitch).toBeCloseTo(1.27);
    expect(c.through).toBe(true);
  });

  it('reads a counterbore with its own depth', () => {
    expect(parseCallout('⌀6.6 THRU ⌴ ⌀11 ↧6.8', 'mm')).toEqual({ diameter: 6.6, through: true, counterbore: { diameter: 11, depth: 6.8 } });
  });

  it('reads a countersink', () => {
    expect(parseCallout('⌵ ⌀12.4 X 90°', 'mm')).toMatchObject({ countersink: { diameter: 12.4, angleDeg: 90 } });
    expect(parseCallout('⌀5.5 THRU ⌵ ⌀10.4', 'mm').countersink).toEqual({ diameter: 10.4, angleDeg: 90 });
  });

  it('takes coarse pitch, typed words, counts and left hand', () => {
    expect(parseCallout('M10', 'mm').thread!.pitch).toBe(1.5);
    expect(parseCallout('4x M5 deep 10', 'mm')).toMatchObject({ count: 4, depth: 10 });
    expect(parseCallout('M8x1.25 LH ↧12', 'mm').thread!.hand).toBe('left');
    expect(parseCallout('dia 6.6 thru cbore 11 deep 6.8', 'mm')).toMatchObject({ diameter: 6.6, counterbore: { diameter: 11, depth: 6.8 } });
    expect(parseCallout('#10-32 UNF ↧0.4', 'inch').thread!.designation).toBe('10-32 UNF');
  });

  it('takes either unit', () => expect(parseCallout('⌀1/4in THRU', 'mm').diameter).toBeCloseTo(6.35));

  it.each(['', 'M', 'hello', 'M6x9', 'M11', '1/4-21 UNC', '⌀6 nonsense', 'THRU'])('refuses %j', (text) => {
    expect(() => parseCallout(text, 'mm')).toThrow(CalloutError);
  });

  it('never fails with anything but its own error', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        try {
          parseCallout(text, 'mm');
        } catch (e) {
          expect((e as Error).message.length).toBeGreaterThan(5);
        }
      }),
    );
  });

  it('reads back every thread it prints', () => {
    for (const thread of THREADS) {
      const text = formatCallout({ thread, through: true }, 'mm');
      expect(parseCallout(text, 'mm').thread, text).toMatchObject({ designation: thread.designation });
    }
  });
});
