import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { HoleFeature } from '../../features/hole/schema.ts';
import { drill, hole, made, rowOf, type Typed, howOf, peckOf } from '../../testing/fixtures.ts';

const through = (diameter: number, depth: number): HoleFeature =>
  hole({ kind: 'through', depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });
const blind = (
  diameter: number,
  depth: number,
  bottom: HoleFeature['bottom'] = { shape: 'cone', angle: 118 },
) => hole({ depth, bottom, stack: [{ shape: 'cylinder', diameter, length: depth }] });
const drilled = (feature: HoleFeature, typed: Typed = {}, more = [drill(50, 3.3)]) =>
  made(rowOf(feature, { typed, more }), 'drill');

describe('a drill', () => {
  it('goes through with its full diameter below the exit (handbook: plate 18, ⌀8.5, 118°, 0.8)', () => {
    expect(drilled(through(8.5, 18), { drill: { breakThrough: 0.8 } }).work[0]!.z).toBeCloseTo(-21.3537, 4);
  });

  it('reaches the depth with its full diameter where the hole ends in a point (point of ⌀8.5 at 118°: 2.5537)', () => {
    expect(drilled(blind(8.5, 20)).work[0]!.z).toBeCloseTo(-20 - 2.5537, 4);
  });

  it('stops at a flat floor with its tip, and says what it leaves', () => {
    const row = rowOf(blind(8.5, 20, { shape: 'flat' }));
    expect(made(row, 'drill').work[0]!.z).toBeCloseTo(-20, 9);
    expect(made(row, 'drill').remarks.find((r) => r.rule === 'flat-bottom')?.message).toContain('2.554');
  });

  it('turns and feeds as the formula has it (vc 60: 1000·60/(π·8.5) = 2246.9), within the machine', () => {
    const { speed, feed } = drilled(through(8.5, 18));
    expect(speed).toBe(Math.round((1000 * 60) / (Math.PI * 8.5)));
    expect(feed / speed).toBeCloseTo(0.02 * 8.5, 2);
  });

  it('breaks chips, then clears them, the deeper it goes', () => {
    expect(howOf(drilled(blind(10, 25))).how).toBe('straight');
    expect(howOf(drilled(blind(10, 35))).how).toBe('chip-break');
    expect(howOf(drilled(blind(8, 70))).how).toBe('full-retract');
    expect(howOf(drilled(blind(10, 25), { drill: { cycle: 'dwell' } }))).toEqual({
      how: 'dwell',
      seconds: 0.3,
    });
  });

  it('pecks by a depth, a share or a count: the count is ceil(travel / Q)', () => {
    const deep = (typed: Record<string, number | string>) =>
      drilled(blind(8, 70), { drill: { cycle: 'full-retract', ...typed } });
    expect(peckOf(deep({ peck: 5 }))).toBe(5);
    expect(peckOf(deep({ peckBy: 'share of ⌀', peckShare: 0.5 }))).toBeCloseTo(4, 9);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), (count) => {
        const counted = deep({ peckBy: 'count', peckCount: count });
        const travel = counted.work[0]!.r - counted.work[0]!.z;
        expect(Math.ceil(travel / peckOf(counted)! - 1e-9)).toBe(count);
      }),
    );
  });

  it('keeps each hole’s own floor when the first is typed deeper', () => {
    const usual = drilled(blind(8.5, 20)).work[0]!.z;
    expect(drilled(blind(8.5, 20), { drill: { depth: 22.5 } }).work[0]!.z).toBeCloseTo(usual - 2.5, 9);
  });

  it('is not planned where no drill has the size or the flutes, and the row says which', () => {
    for (const [feature, reason] of [
      [blind(7.3, 20), 'No drill ⌀7.3 mm in the tool list.'],
      [through(8.5, 120), 'No drill ⌀8.5 mm reaches 121 mm deep: the longest has 90 mm of flute.'],
    ] as const)
      expect(rowOf(feature)).toMatchObject({ state: 'open', operations: [], reasons: [reason] });
  });
});
