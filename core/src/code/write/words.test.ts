import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '../profiles/shipped.ts';
import { Words } from './words.ts';

describe('words of a program', () => {
  it('never write a feed as none, however small it is', () => {
    for (const units of ['mm', 'inch'] as const) {
      const words = new Words(RIGID_TAP_BUILT_IN, units);
      fc.assert(
        fc.property(fc.double({ min: 1e-6, max: 8000, noNaN: true }), fc.boolean(), (feed, exact) => {
          const text = words.feed(feed, exact);
          expect(text).toMatch(/^\d+\.\d*$/);
          expect(Number(text)).toBeGreaterThan(0);
          if (feed / words.mm > 1) expect(Math.abs(Number(text) - feed / words.mm)).toBeLessThanOrEqual(0.5);
        }),
      );
    }
  });
});
