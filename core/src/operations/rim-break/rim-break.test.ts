import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { produceJob } from '../../job/produce.ts';
import type { MethodOperation } from '../../methods/schema.ts';
import { featureSizes } from '../../features/sets.ts';
import { radiusAt, toolProfile } from '../../tools/profile.ts';
import { BOUNDS, hole, LIBRARY, made, plan, rowOf, TOOLS, usual } from '../../testing/fixtures.ts';
import type { HoleFeature } from '../../features/hole/schema.ts';
import { decisionFromCallout } from '../../job/print.ts';

const op = (kind: string, part: MethodOperation['part'] = 'hole'): MethodOperation => ({
  kind,
  part,
  set: {},
});
const BROKEN = [op('spot'), op('drill'), op('rim-break')];
const TAPPED = [...BROKEN, op('tap', 'thread')];
const mills = [
  usual('chamfer-mill', 60, 10, { tipDiameter: 1 }),
  usual('chamfer-mill', 61, 4, { tipDiameter: 1 }),
];
const through = (diameter: number) =>
  hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter, length: 30 }] });
const drillOf = (diameter: number) => usual('drill', 70, diameter, { fluteLength: 90 });
const broken = (diameter: number, typed = {}, tools = mills) =>
  rowOf(through(diameter), {
    operations: BROKEN,
    more: [...tools, drillOf(diameter)],
    typed: { 'rim-break': typed },
  });

/** Rules of a feature's job that say something is wrong. */
function wrong(
  feature: HoleFeature,
  operations: MethodOperation[],
  callout?: string,
  more = mills,
): string[] {
  const p = plan();
  const decided = callout === undefined ? {} : decisionFromCallout(callout, 'mm');
  p.sizes[featureSizes([feature])[0]!.key] = { ...decided, overrides: {}, operations };
  const library = { ...LIBRARY, tools: [...TOOLS, ...more] };
  const { checks } = produceJob({ features: [feature], bounds: BOUNDS, plan: p, library, name: 'rims' });
  return checks.filter((c) => c.severity !== 'note').map((c) => `${c.rule}: ${c.message}`);
}

describe('a rim break', () => {
  it.each([
    ['90°, tip ⌀2', 90, 2, 0.9, 1.4],
    ['60°, tip ⌀1', 60, 1, 1.266, 0.7309],
  ] as const)('is where the handbook has it: %s, w 0.5, c 0.4', (_, angle, tip, deep, off) => {
    const tool = [usual('chamfer-mill', 60, 10, { tipDiameter: tip, pointAngleDeg: angle })];
    const [w] = made(broken(20, { width: 0.5, clearance: 0.4 }, tool), 'rim-break').work;
    expect(w!.z).toBeCloseTo(-deep, 4);
    const arc =
      w!.motion.kind === 'path' && w!.motion.passes[0]!.moves.find((m) => m.kind === 'arc' && m.turns > 0);
    if (!arc || arc.kind !== 'arc') throw new Error('no round');
    expect(Math.hypot(arc.to[0] - arc.centre[0], arc.to[1] - arc.centre[1])).toBeCloseTo(10 - off, 4);
  });

  it('is straight down where the cutter is wide enough, and leaves the rim that is wanted on any hole', () => {
    expect(made(broken(6.6), 'rim-break').work[0]!.motion.kind).toBe('cycle');
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 24, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (d, width) => {
          const row = broken(d, { width });
          if (row.state !== 'planned') return;
          const o = made(row, 'rim-break');
          const [w] = o.work;
          const orbit =
            w!.motion.kind === 'path'
              ? Math.max(
                  ...w!.motion.passes[0]!.moves.flatMap((m) =>
                    m.kind === 'arc' && m.turns > 0
                      ? [Math.hypot(m.to[0] - m.centre[0], m.to[1] - m.centre[1])]
                      : [],
                  ),
                )
              : 0;
          const rim = 2 * (orbit + radiusAt(toolProfile(o.tool, null), -w!.z));
          expect(rim).toBeCloseTo(d + 2 * width, 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('of a thread goes out from the drilled hole to beyond the thread, and is proved', () => {
    const feature = through(17.5);
    const more = [
      ...mills,
      drillOf(17.5),
      {
        ...TOOLS.find((t) => t.kind === 'tap')!,
        id: 'm20',
        number: 80,
        diameter: 20,
        shankDiameter: 16,
        fluteLength: 60,
        thread: {
          designation: 'M20x2.5',
          pitch: 2.5,
          majorDiameter: 20,
          hand: 'right' as const,
          lead: 'plug' as const,
          style: 'cutting' as const,
        },
      },
    ];
    const row = rowOf(feature, { callout: 'M20x2.5 THRU', operations: TAPPED, more });
    expect(row.reasons).toEqual([]);
    const o = made(row, 'rim-break');
    expect(o.work[0]!.wanted![0]!.diameter).toBeCloseTo(20.6, 9);
    // Cone from 20.6 to the wall at 17.5, and 0.3 below it.
    expect(o.work[0]!.z).toBeCloseTo(-((20.6 - 17.5) / 2 + 0.3), 9);
    expect(wrong(feature, TAPPED, 'M20x2.5 THRU', more)).toEqual([]);
  });

  it('makes the chamfer that the model has, at its width and angle', () => {
    const chamfered = hole({
      kind: 'through',
      stack: [
        { shape: 'cone', startDiameter: 13, endDiameter: 12, angle: 90, length: 0.5 },
        { shape: 'cylinder', diameter: 12, length: 29.5 },
      ],
    });
    const started = { ...op('spot'), set: { rim: '0.8 * diameter' } };
    const row = rowOf(chamfered, {
      operations: [started, op('drill'), op('rim-break')],
      more: [...mills, drillOf(12)],
    });
    expect(row.reasons).toEqual([]);
    const rim = made(row, 'rim-break').work[0]!.wanted![0]!;
    expect(rim).toMatchObject({ diameter: 13, angleDeg: 90 });
    // No operation that breaks it: the row says so, in place of losing it without a word.
    const none = rowOf(chamfered, { operations: [started, op('drill')], more: [...mills, drillOf(12)] });
    expect(none.reasons.join()).toContain('its chamfer');
    const steep = hole({
      ...chamfered,
      stack: [
        { shape: 'cone', startDiameter: 13, endDiameter: 12, angle: 60, length: 0.87 },
        { shape: 'cylinder', diameter: 12, length: 29.13 },
      ],
    });
    expect(
      rowOf(steep, {
        operations: [started, op('drill'), op('rim-break')],
        more: [...mills, drillOf(12)],
      }).reasons.join(),
    ).toContain('60°');
  });

  it('is not made on a slanted entry, nor without a cutter that fits, and says why', () => {
    const slanted = rowOf(
      { ...through(12), entryDrop: 1 },
      { operations: BROKEN, more: [...mills, drillOf(12)] },
    );
    expect(slanted.reasons.join()).toContain('slanted');
    expect(broken(12, {}, []).wants[0]).toMatchObject({ kind: 'chamfer-mill' });
  });
});

describe('a rim under metal', () => {
  it('is not broken from the stock’s top, and says what stands there', () => {
    const p = plan();
    const feature = through(12);
    p.sizes[featureSizes([feature])[0]!.key] = { overrides: {}, operations: BROKEN };
    p.setups = p.setups.map((s) => ({
      ...s,
      stock: { ...s.stock, kind: 'block', zHigh: 3 } as typeof s.stock,
    }));
    const library = { ...LIBRARY, tools: [...TOOLS, ...mills, drillOf(12)] };
    const { job } = produceJob({ features: [feature], bounds: BOUNDS, plan: p, library, name: 'rims' });
    expect(job.rows[0]!.reasons.join()).toContain('3 mm of metal may stand above its rim');
  });
});
