import { describe, expect, it } from 'vitest';
import type { MethodOperation } from '../../methods/schema.ts';
import { hole, made, rowOf, usual } from '../../testing/fixtures.ts';

const core = usual('core-drill', 60, 16, { tipDiameter: 11, pointAngleDeg: 120, fluteLength: 90 });
const OPERATIONS: MethodOperation[] = [
  { kind: 'drill', part: 'hole', set: { underFrom: 1, underTo: 3 } },
  { kind: 'core-drill', part: 'hole', set: {} },
];
const rowWith = (under: number, part = {}, operations = OPERATIONS) =>
  rowOf(hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter: 16, length: 30 }], ...part }), {
    operations,
    more: [core, usual('drill', 70, under, { fluteLength: 90 })],
  });
/** Its corner: from the flat tip of 11 to 16 at 120°. */
const CORNER = 2.5 / Math.tan(Math.PI / 3);

describe('a core drill', () => {
  it('opens what is drilled, its full diameter below the exit', () => {
    const o = made(rowWith(14), 'core-drill');
    expect(o.work[0]!.z).toBeCloseTo(-(30 + 1 + CORNER), 6);
    expect(o.opens).toBe(16);
  });

  it('meets a flat floor with its tip, and a pointed one with its full diameter', () => {
    const blind = (bottom: object) =>
      made(
        rowWith(14, {
          kind: 'blind',
          depth: 20,
          bottom,
          stack: [{ shape: 'cylinder', diameter: 16, length: 20 }],
        }),
        'core-drill',
      ).work[0]!.z;
    expect(blind({ shape: 'flat' })).toBeCloseTo(-20, 9);
    expect(blind({ shape: 'cone', angle: 118 })).toBeCloseTo(-(20 + CORNER), 6);
  });

  it('starts no hole, and enters none that is narrower than its tip', () => {
    expect(rowWith(14, {}, OPERATIONS.slice(1)).state).toBe('open');
    const narrow: MethodOperation[] = [
      { kind: 'drill', part: 'hole', set: { underFrom: 5.5, underTo: 7 } },
      OPERATIONS[1]!,
    ];
    expect(rowWith(10, {}, narrow).reasons.join()).toContain('needs a hole of');
  });
});
