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
  ] as const)('%s in a %s job is %d mm', (text, unit, mm) => expect(parseLength(text, unit)).toBeCloseTo(mm, 6));

  it.each(['', 'abc', '1/0', '3 +', '2ft', 'cos(1)', 'a=3', '5;6'])('refuses %j with a reason', (text) => {
    expect(() => parseLength(text, 'mm')).toThrow(LengthError);
  });

  it('reads back what it prints', () => {
    fc.assert(
      fc.property(fc.double({ min: -500, max: 500, noNaN: true }), fc.constantFrom('mm', 'inch' as const), (v, unit) => {
        const shown = formatLength(v, unit);
        expect(Math.abs(parseLength(shown, unit) - v)).toBeLessThanOrEqual(unit === 'mm' ? 0.00051 : 0.0013);
      }),
    );
  });

  it('prints no trailing zeros and no negative nought', () => {
    expect(formatLength(12.5, 'mm')).toBe('12.5');
    expect(formatLength(100, 'mm')).toBe('100');
    expect(formatLength(-0.00001, 'mm')).toBe('0');
    expect(formatLength(25.4, 'inch')).toBe('1');
  });
});
