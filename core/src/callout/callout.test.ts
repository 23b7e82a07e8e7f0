import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NAMED_THREADS } from '../threads/more.ts';
import { CalloutError, formatCallout, parseCallout } from './callout.ts';

describe('parseCallout', () => {
  it('reads a metric thread with class and depth', () => {
    const c = parseCallout('M6x1 - 6H ↧12', 'mm');
    expect(c.thread).toMatchObject({
      designation: 'M6x1',
      majorDiameter: 6,
      pitch: 1,
      tapDrill: 5,
      toleranceClass: '6H',
      hand: 'right',
    });
    expect(c).toMatchObject({ threadDepth: 12, through: false });
    expect(c.depth).toBeUndefined();
  });

  it('reads a unified thread through', () => {
    const c = parseCallout('1/4-20 UNC-2B THRU', 'inch');
    expect(c.thread).toMatchObject({ designation: '1/4-20 UNC', toleranceClass: '2B' });
    expect(c.thread!.pitch).toBeCloseTo(1.27);
    expect(c.through).toBe(true);
  });

  it('reads a counterbore with its own depth', () => {
    expect(parseCallout('⌀6.6 THRU ⌴ ⌀11 ↧6.8', 'mm')).toEqual({
      diameter: 6.6,
      through: true,
      counterbore: { diameter: 11, depth: 6.8 },
    });
  });

  it('reads a countersink', () => {
    expect(parseCallout('⌵ ⌀12.4 X 90°', 'mm')).toMatchObject({
      countersink: { diameter: 12.4, angleDeg: 90 },
    });
    expect(parseCallout('⌀5.5 THRU ⌵ ⌀10.4', 'mm').countersink).toEqual({ diameter: 10.4, angleDeg: 90 });
  });

  it('takes coarse pitch, typed words, counts and left hand', () => {
    expect(parseCallout('M10', 'mm').thread!.pitch).toBe(1.5);
    expect(parseCallout('4x M5 deep 10', 'mm')).toMatchObject({ count: 4, threadDepth: 10 });
    expect(parseCallout('M8x1.25 LH ↧12', 'mm').thread!.hand).toBe('left');
    expect(parseCallout('dia 6.6 thru cbore 11 deep 6.8', 'mm')).toMatchObject({
      diameter: 6.6,
      counterbore: { diameter: 11, depth: 6.8 },
    });
    expect(parseCallout('#10-32 UNF ↧0.4', 'inch').thread!.designation).toBe('10-32 UNF');
  });

  it('gives each depth to what was named before it', () => {
    const both = parseCallout('⌀6.8 ↧22 M8x1.25 - 6H ↧16', 'mm');
    expect(both).toMatchObject({ diameter: 6.8, depth: 22, threadDepth: 16 });
    expect(parseCallout('M8x1.25 ↧16 ⌀6.8 ↧22', 'mm')).toMatchObject({ depth: 22, threadDepth: 16 });
    expect(parseCallout('⌀6.6 ↧20 ⌴ ⌀11 ↧6.8', 'mm')).toMatchObject({
      depth: 20,
      counterbore: { depth: 6.8 },
    });
  });

  it('reads left hand before the thread too', () => {
    expect(parseCallout('LH M8 ↧12', 'mm').thread).toMatchObject({ designation: 'M8x1.25', hand: 'left' });
    expect(parseCallout('M8 left hand', 'mm').thread!.hand).toBe('left');
  });

  it('reads back what it prints, whatever it says', () => {
    const size = fc.integer({ min: 10, max: 900 }).map((v) => v / 10);
    const any = fc.record(
      {
        count: fc.integer({ min: 1, max: 60 }),
        depth: size,
        counterbore: fc.record({ diameter: size, depth: size }),
        countersink: fc.record({ diameter: size, angleDeg: fc.constantFrom(82, 90, 100, 120) }),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(any, size, fc.boolean(), (part, diameter, through) => {
        const c = { ...part, diameter, through };
        if (through) delete c.depth;
        expect(parseCallout(formatCallout(c, 'mm'), 'mm')).toEqual(c);
      }),
    );
  });

  it('takes either unit', () => expect(parseCallout('⌀1/4in THRU', 'mm').diameter).toBeCloseTo(6.35));

  it.each([
    '',
    'M',
    'hello',
    'M6x9',
    'M11',
    '1/4-21 UNC',
    '⌀6 nonsense',
    'THRU',
    'M8 ↧0',
    '⌀0',
    '⌀6 ↧5 ↧8',
    'M8 ↧5 ↧8',
    'LH ⌀5',
    '⌀6 THRU ↧5',
    'M8 M10',
  ])('refuses %j', (text) => {
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
    for (const one of NAMED_THREADS)
      for (const starts of [undefined, 2]) {
        const thread = { ...one, ...(starts ? { starts } : {}) };
        const text = formatCallout({ thread, through: true }, 'mm');
        expect(parseCallout(text, 'mm').thread, text).toEqual(thread);
      }
  });
});
