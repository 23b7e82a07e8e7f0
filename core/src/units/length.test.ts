import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatLength, LengthError, parseLength } from './length.ts';

describe('parseLength', () => {
  it.each([
    ['1/20', 'inch', 1.27],
    ['0.201/3', 'inch', 1.7018],
    ['6.5mm', 'inch', 6.5],
    ['3/8in', 'mm', 9.525],
    ['12.7-0.4', 'mm', 12.3],
    ['1 1/2in', 'mm', 38.1],
    ['.5"', 'mm', 12.7],
    ['2*(3+1)', 'mm', 8],
    ['3mm + 1/8in', 'inch', 6.175],
    ['1 1/4', 'inch', 31.75],
    ['12,5', 'mm', 12.5],
    ['0,125', 'inch', 3.175],
    ['1000', 'mm', 1000],
    ['½in', 'mm', 12.7],
    ['1½in', 'mm', 38.1],
    ['1 ½', 'inch', 38.1],
    ['5 thou', 'mm', 0.127],
    ['10thou', 'inch', 0.254],
    ['⌀6.5', 'mm', 6.5],
    ['1 - 1/2', 'inch', 12.7],
    ['3/8"', 'mm', 9.525],
    ['1in + 1/2in', 'mm', 38.1],
  ] as const)('%s in a %s job is %d mm', (text, unit, mm) =>
    expect(parseLength(text, unit)).toBeCloseTo(mm, 6),
  );

  it.each(['', 'abc', '1/0', '3 +', '2ft', 'cos(1)', 'a=3', '5;6'])('refuses %j with a reason', (text) => {
    expect(() => parseLength(text, 'mm')).toThrow(LengthError);
  });

  it.each([
    ['1,000', 'mm', '1000 or 1.000'],
    ['1,000', 'inch', '1000 or 1.000'],
    ['12,500', 'mm', '12500 or 12.500'],
    ['1-1/2', 'inch', '"1 1/2" or "1 - 1/2"'],
    ['1-1/2in', 'mm', '"1 1/2" or "1 - 1/2"'],
    ['1in 1/2', 'inch', 'behind a unit'],
    ['5mm2', 'mm', 'behind a unit'],
    ['5mm 2', 'mm', 'behind a unit'],
  ] as const)('asks what %s in a %s job means', (text, unit, said) =>
    expect(() => parseLength(text, unit)).toThrow(said),
  );

  it('reads back what it prints', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.constantFrom('mm', 'inch' as const),
        (v, unit) => {
          const shown = formatLength(v, unit);
          expect(Math.abs(parseLength(shown, unit) - v)).toBeLessThanOrEqual(
            unit === 'mm' ? 0.00051 : 0.0013,
          );
        },
      ),
    );
  });

  it('reads back what it prints at any number of decimals: no digit before the point is lost', () => {
    expect(formatLength(500, 'mm', 0)).toBe('500');
    expect(formatLength(30480, 'inch', 0)).toBe('1200');
    fc.assert(
      fc.property(
        fc.double({ min: -5e4, max: 5e4, noNaN: true }),
        fc.constantFrom('mm', 'inch' as const),
        fc.integer({ min: 0, max: 6 }),
        (v, unit, decimals) => {
          const off = Math.abs(parseLength(formatLength(v, unit, decimals), unit) - v);
          expect(off).toBeLessThanOrEqual(0.5001 * 10 ** -decimals * (unit === 'mm' ? 1 : 25.4) + 1e-8);
        },
      ),
    );
  });

  it('prints no trailing zeros and no negative nought', () => {
    expect(formatLength(12.5, 'mm')).toBe('12.5');
    expect(formatLength(100, 'mm')).toBe('100');
    expect(formatLength(-0.00001, 'mm')).toBe('0');
    expect(formatLength(25.4, 'inch')).toBe('1');
  });
});
