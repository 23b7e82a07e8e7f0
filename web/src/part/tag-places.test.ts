import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeTag, ROOM, Taken } from './tag-places.ts';

describe('places of tags', () => {
  it('stand where they point where that is free, and give way where it is not', () => {
    const taken = new Taken();
    expect(placeTag(taken, 100, 100, false)).toEqual([100, 100]);
    expect(placeTag(taken, 110, 100, false)).toBeNull();
    expect(placeTag(taken, 100 + ROOM, 100, false)).toEqual([100 + ROOM, 100]);
  });
  it('are spread upward first where they are in hand', () => {
    const taken = new Taken();
    placeTag(taken, 100, 100, true);
    const [x, y] = placeTag(taken, 100, 100, true)!;
    expect(x).toBeCloseTo(100);
    expect(y).toBeLessThan(100 - ROOM);
  });
  it('never cover each other', () => {
    const at = fc.integer({ min: 0, max: 400 });
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at, fc.boolean()), { maxLength: 120 }), (tags) => {
        const taken = new Taken();
        const placed = tags.flatMap(([x, y, mayMove]) => {
          const p = placeTag(taken, x, y, mayMove);
          return p ? [p] : [];
        });
        placed.forEach(([a, b], i) =>
          placed.slice(0, i).forEach(([c, d]) => {
            expect(Math.max(Math.abs(a - c), Math.abs(b - d))).toBeGreaterThanOrEqual(ROOM);
          }),
        );
      }),
    );
  });
});
