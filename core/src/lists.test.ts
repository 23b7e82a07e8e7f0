import { describe, expect, it } from 'vitest';
import { at, first, got, last } from './lists.ts';

describe('entries of lists and maps', () => {
  it('are given where they are there', () => {
    expect([first([1, 2, 3]), last([1, 2, 3]), at([1, 2, 3], 1), at('ab', 1)]).toEqual([1, 3, 2, 'b']);
    expect(got(new Map([['a', 0]]), 'a')).toBe(0);
    expect(first([undefined])).toBeUndefined();
  });
  it.each([() => first([]), () => last([]), () => at([1], 1), () => at([1], -1), () => got(new Map(), 'a')])(
    'stop the work where they are not',
    (read) => expect(read).toThrow(RangeError),
  );
});
