import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { passShares } from './planned.ts';

describe('the passes of a wide edge', () => {
  it('take as much metal each, the last all that is left, none wider than the first may be', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 9, noNaN: true }),
        fc.double({ min: 0.3, max: 4, noNaN: true }),
        (size, perPass) => {
          const shares = passShares(size, perPass);
          expect(shares.at(-1)).toBe(1);
          // What is cut grows with the square of the width.
          const cut = shares.map((s, i) => s * s - (shares[i - 1] ?? 0) ** 2);
          for (const c of cut) expect(c).toBeCloseTo(1 / shares.length, 9);
          if (size <= perPass) expect(shares).toEqual([1]);
        },
      ),
    );
  });

  it('are never more than anybody means', () => {
    expect(passShares(9, 0.02)).toHaveLength(20);
  });
});
