import { describe, expect, it } from 'vitest';
import type { MethodOperation } from '../../methods/schema.ts';
import { rimAt } from '../../tools/cone.ts';
import { hole, made, rowOf, usual } from '../../testing/fixtures.ts';

const OPERATIONS: MethodOperation[] = ['centre', 'drill'].map((kind) => ({ kind, part: 'hole', set: {} }));
const centres = [usual('centre-drill', 60, 5), usual('centre-drill', 61, 8)];
const rowWith = (part = {}, typed = {}) =>
  rowOf(hole({ stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }], ...part }), {
    operations: OPERATIONS,
    more: centres,
    typed: { centre: typed },
  });

describe('a centre drill', () => {
  it('goes in with its pilot and opens its cone to half the drill', () => {
    const o = made(rowWith(), 'centre');
    const { tool, work } = o;
    expect(rimAt(tool, -work[0]!.z)).toBeCloseTo(4.25, 9);
    expect(-work[0]!.z).toBeGreaterThan(tool.pilotLength!);
  });

  it('takes the body that the wanted rim needs, and says which is missing', () => {
    expect(made(rowWith({}, { rim: 4.4 }), 'centre').tool.diameter).toBe(5);
    expect(made(rowWith({}, { rim: 6 }), 'centre').tool.diameter).toBe(8);
    const row = rowWith({}, { rim: 9 });
    expect(row.reasons.join()).toContain('No centre drill leaves a rim');
    expect(row.wants[0]).toMatchObject({ kind: 'centre-drill' });
  });

  it('never goes through the floor of a shallow hole', () =>
    expect(
      rowWith({ depth: 2, stack: [{ shape: 'cylinder', diameter: 8.5, length: 2 }] }).reasons.join(),
    ).toContain('No centre drill'));
});
