import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAddress, writeAddress } from './address.ts';

const nothing = { setupId: null, tag: null, hole: null, operation: null, line: null };

describe('the address of what is in hand', () => {
  it('names it in words', () => {
    expect(writeAddress({ setupId: 's2', tag: 'D', hole: 'D3', operation: 'tap', line: 41 })).toBe(
      '?setup=s2&row=D&hole=D3&operation=tap&line=41',
    );
    expect(writeAddress(nothing)).toBe('');
  });
  it('leaves what it does not understand', () => {
    expect(readAddress('?line=x&row=A&more=1')).toEqual({ ...nothing, tag: 'A' });
    expect(readAddress('?line=-3')).toEqual(nothing);
    expect(readAddress('?line=2.5')).toEqual(nothing);
  });
  it('comes back as it was written', () => {
    const name = fc.option(fc.string({ minLength: 1 }), { nil: null });
    fc.assert(
      fc.property(
        fc.record({
          setupId: name,
          tag: name,
          hole: name,
          operation: name,
          line: fc.option(fc.integer({ min: 1, max: 1e6 }), { nil: null }),
        }),
        (hand) => {
          expect(readAddress(writeAddress(hand))).toEqual(hand);
        },
      ),
    );
  });
});
