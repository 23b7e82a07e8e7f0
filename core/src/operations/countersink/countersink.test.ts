import { describe, expect, it } from 'vitest';
import { hole, made, rowOf, howOf } from '../../testing/fixtures.ts';

const countersunk = (angle: number, rim = 12.4) =>
  hole({
    kind: 'through',
    role: 'countersunk',
    stack: [
      { shape: 'cone', startDiameter: rim, endDiameter: 6.6, angle, length: (rim - 6.6) / 2 },
      { shape: 'cylinder', diameter: 6.6, length: 30 - (rim - 6.6) / 2 },
    ],
  });

describe('a countersink', () => {
  it('goes to its rim, less for a flat tip (handbook: head 12.4, 90°, tip flat 0.2: 6.1)', () => {
    const operation = made(rowOf(countersunk(90)), 'countersink');
    expect(operation.tool.tipDiameter).toBe(0.2);
    expect(operation.work[0]!.z).toBeCloseTo(-6.1, 4);
    expect(howOf(operation).how).toBe('dwell');
  });

  it('comes after its drill, and follows a typed rim by half of it at 90°', () => {
    const row = rowOf(countersunk(90), { typed: { countersink: { rim: 12.8 } } });
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'drill', 'countersink']);
    expect(made(row, 'countersink').work[0]!.z).toBeCloseTo(-6.3, 4);
  });

  it('is not made with a cone of another angle, or too narrow a one: the row is open and says so', () => {
    for (const [feature, reason] of [
      [countersunk(82), 'No countersink 82° from ⌀12.4 mm in the tool list.'],
      [countersunk(90, 18), 'No countersink 90° from ⌀18 mm in the tool list.'],
    ] as const)
      expect(rowOf(feature)).toMatchObject({ state: 'open', operations: [], reasons: [reason] });
  });
});
