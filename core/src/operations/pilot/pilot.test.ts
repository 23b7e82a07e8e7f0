import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pointLength } from '../../cutting/depths.ts';
import type { HoleFeature } from '../../features/hole/schema.ts';
import type { Row } from '../../job/row.ts';
import { produceJob, proveText } from '../../job/produce.ts';
import { BOUNDS, drill, hole, LIBRARY, made, plan, rowOf, TOOLS } from '../../testing/fixtures.ts';

/** The row of a hole that has a ⌀20 drill at hand, and numbers typed for it. */
const drilled = (
  feature: HoleFeature,
  drillTyped: Record<string, number> = {},
  more = [drill(40, 20)],
): Row => rowOf(feature, { typed: { drill: drillTyped }, more });
const blind = (depth: number, bottom: HoleFeature['bottom'] = { shape: 'cone', angle: 118 }) =>
  hole({ depth, bottom, stack: [{ shape: 'cylinder', diameter: 20, length: depth }] });
/** How far the pilot reaches below the surface that the large drill leaves: at its corner and at its tip, mm. */
function below(r: Row): number {
  const [p, d] = [made(r, 'pilot'), made(r, 'drill')];
  const [tip, bottom] = [p.work[0]!.z, d.work[0]!.z];
  const corner = tip + pointLength(p.tool.diameter, p.tool.pointAngleDeg!);
  return Math.max(bottom - tip, bottom + pointLength(p.tool.diameter, d.tool.pointAngleDeg!) - corner);
}

describe('a pilot', () => {
  it('goes before a large drill, no smaller than its web and no larger than six tenths', () => {
    const row = drilled(blind(25));
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'pilot', 'drill']);
    const share = made(row, 'pilot').tool.diameter / 20;
    expect(share).toBeGreaterThanOrEqual(0.2);
    expect(share).toBeLessThanOrEqual(0.6);
  });

  it('is not needed up to 13', () => {
    const small = hole({ stack: [{ shape: 'cylinder', diameter: 10, length: 20 }] });
    expect(drilled(small).operations.map((o) => o.kind)).toEqual(['spot', 'drill']);
  });

  it('goes two diameters deep at full diameter by a shorter drill before a long one', () => {
    const long = hole({ depth: 60, stack: [{ shape: 'cylinder', diameter: 6, length: 60 }] });
    const stub = { ...drill(31, 6, 30), id: 'stub-6', description: 'stub 6' };
    const pilot = made(drilled(long, {}, [stub]), 'pilot');
    expect(pilot.tool.id).toBe('stub-6');
    expect(pilot.work[0]!.z).toBeCloseTo(-12 - pointLength(6, 118), 9);
  });

  it('follows the depth that is typed for the drill', () => {
    for (const bottom of [{ shape: 'cone', angle: 118 } as const, { shape: 'flat' } as const])
      expect(below(drilled(blind(30, bottom), { depth: 18 }))).toBeLessThanOrEqual(1e-6);
  });

  it('follows the break-through that is typed for the drill', () => {
    const through = hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter: 20, length: 30 }] });
    const usual = made(drilled(through), 'pilot').work[0]!.z;
    expect(made(drilled(through, { breakThrough: 0.2 }), 'pilot').work[0]!.z).toBeCloseTo(usual + 0.8, 9);
  });

  it('never reaches below what the drill leaves, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 14, max: 40, noNaN: true }),
        fc.double({ min: 14, max: 40, noNaN: true }),
        fc.boolean(),
        (depth, typed, flat) => {
          const row = drilled(blind(depth, flat ? { shape: 'flat' } : { shape: 'cone', angle: 118 }), {
            depth: typed,
          });
          expect(below(row)).toBeLessThanOrEqual(1e-6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('that marks the floor below its drill is found in the text', () => {
    const library = { ...LIBRARY, tools: [...TOOLS, drill(40, 20)] };
    const input = { features: [blind(30)], bounds: BOUNDS, plan: plan(), library, name: 'pilot' };
    const { programs, checks } = produceJob(input);
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    const { text, setup } = programs[0]!;
    const at = text.search(/^T40 M6/m);
    const rest = text.slice(at);
    const edited = text.slice(0, at) + rest.replace(/(G8\d [^\n]*)Z-[\d.]+/, '$1Z-20.');
    expect(edited).not.toBe(text);
    const found = proveText(input, setup.setup.id, edited).checks.find((c) => c.rule === 'pilot-too-deep');
    expect(found?.severity).toBe('error');
    // The drill's tip at -20 and its point of 118° bound the pilot: no deeper than the tip.
    expect(found?.message).toContain('Z-20.');
  });
});
