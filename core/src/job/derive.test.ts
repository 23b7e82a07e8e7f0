import { describe, expect, it } from 'vitest';
import { pointLength } from '../cutting/depths.ts';
import { featureSizes } from '../features/sets.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import {
  counterbored,
  BOUNDS,
  drill,
  hole,
  LIBRARY,
  plan,
  TOOLS,
  howOf,
  peckOf,
} from '../testing/fixtures.ts';
import type { Tool } from '../tools/schema.ts';
import { deriveJob, type Row } from './derive.ts';
import type { Plan, SizeDecision } from '../plan/plan.ts';
import { decisionFromCallout } from './print.ts';
import { newSetup } from '../setup/setup.ts';
import { firstConflict, moveVisit } from '../order/sequence.ts';

function rowOf(
  feature: HoleFeature,
  decision: Partial<SizeDecision> = {},
  tools: Tool[] = TOOLS,
  change: (p: Plan) => void = () => undefined,
): Row {
  const p = plan();
  p.sizes[featureSizes([feature])[0]!.key] = { overrides: {}, ...decision };
  change(p);
  return deriveJob({ features: [feature], bounds: BOUNDS, plan: p, library: { ...LIBRARY, tools } }).rows[0]!;
}

const m8 = (text: string): Partial<SizeDecision> => {
  return decisionFromCallout(text, 'mm');
};
const kinds = (r: Row) => r.operations.map((o) => o.kind);
const z = (r: Row, kind: string) => r.operations.find((o) => o.kind === kind)!.work[0]!.z;

describe('depths', () => {
  it('drills a blind hole to its depth at full diameter', () => {
    const row = rowOf(hole({ stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }] }));
    expect(kinds(row)).toEqual(['spot', 'drill']);
    expect(z(row, 'drill')).toBeCloseTo(-20 - pointLength(8.5, 118), 9);
  });

  it('drills through with break-through and point', () => {
    const row = rowOf(hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter: 8.5, length: 30 }] }));
    expect(z(row, 'drill')).toBeCloseTo(-30 - 1 - pointLength(8.5, 118), 9);
  });

  it('does not carry a break-through over to a blind hole', () => {
    const row = rowOf(hole(), { overrides: { drill: { breakThrough: 5 } } });
    expect(z(row, 'drill')).toBeCloseTo(-20 - pointLength(6.8, 118), 9);
  });

  it('stops the tip at a flat floor and says what is left', () => {
    const row = rowOf(
      hole({ bottom: { shape: 'flat' }, stack: [{ shape: 'cylinder', diameter: 6, length: 12 }], depth: 12 }),
    );
    expect(z(row, 'drill')).toBe(-12);
    expect(row.remarks.map((r) => r.rule)).toContain('flat-bottom');
  });

  it('gives holes of one size at different levels each their own', () => {
    const size = (entry: [number, number, number], depth: number) =>
      hole({ entry, depth, kind: 'through', stack: [{ shape: 'cylinder', diameter: 6, length: depth }] });
    const job = deriveJob({
      features: [size([10, 10, 0], 30), size([50, 10, -12], 18)],
      bounds: BOUNDS,
      plan: plan(),
      library: LIBRARY,
    });
    expect(job.rows).toHaveLength(1);
    const made = job.rows[0]!.operations.find((o) => o.kind === 'drill')!.work;
    expect(made[1]!.z).toBeCloseTo(made[0]!.z, 9);
    expect(made.map((h) => h.r).sort((a, b) => a - b)).toEqual([-10, 2]);
  });

  it('starts above the block where metal still stands over a terrace', () => {
    const low = hole({
      entry: [20, 20, -12],
      depth: 10,
      stack: [{ shape: 'cylinder', diameter: 6, length: 10 }],
    });
    const row = rowOf(
      low,
      {},
      TOOLS,
      (p) => (p.setups[0]!.stock = { ...p.setups[0]!.stock, kind: 'block', zHigh: 1 }),
    );
    // Zero is on the block's top, 1 above the part.
    expect(row.operations[1]!.work[0]!.r).toBe(2);
  });

  it('spots the chamfer that the model has, at its angle', () => {
    const chamfered = hole({
      stack: [
        { shape: 'cone', startDiameter: 9.2, endDiameter: 6.8, angle: 90, length: 1.2 },
        { shape: 'cylinder', diameter: 6.8, length: 18.8 },
      ],
    });
    const row = rowOf(chamfered);
    expect(row.operations[0]!.tool.id).toBe('spot-90');
    expect(z(row, 'spot')).toBeCloseTo(-4.6, 9);
  });

  it('lets a typed number win and follow again', () => {
    expect(z(rowOf(hole(), { overrides: { drill: { depth: 15 } } }), 'drill')).toBeCloseTo(
      -15 - pointLength(6.8, 118),
      9,
    );
    expect(
      rowOf(hole(), { overrides: { drill: { depth: 15 } } }).operations[1]!.parameters.find(
        (p) => p.key === 'depth',
      )!.source,
    ).toBe('typed');
  });
});

describe('pecks', () => {
  const deep = () => hole({ depth: 40, stack: [{ shape: 'cylinder', diameter: 6, length: 40 }] });
  const pecking = (typed: Record<string, number | string>) =>
    rowOf(deep(), { overrides: { drill: typed } }).operations[1]!;

  it('are a depth, a share of the diameter or a count', () => {
    const usual = pecking({});
    expect(howOf(usual)).toEqual({ how: 'full-retract', peck: 6 });
    expect(peckOf(pecking({ peckBy: 'share of ⌀', peckShare: 0.5 }))).toBe(3);
    const counted = pecking({ peckBy: 'count', peckCount: 5 });
    const travel = counted.work[0]!.r - counted.work[0]!.z;
    expect(Math.ceil(travel / peckOf(counted)! - 1e-9)).toBe(5);
    expect(howOf(pecking({ cycle: 'chip-break', peck: 2 }))).toEqual({ how: 'chip-break', peck: 2 });
    expect(howOf(pecking({ cycle: 'straight' }))).toEqual({ how: 'straight' });
  });
});

describe('tapping', () => {
  it('follows the depth that is typed for the drill, shallower and deeper', () => {
    const threaded = () => hole({ depth: 25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }] });
    const callout = m8('M8x1.25');
    const typed = (depth: number) => rowOf(threaded(), { ...callout, overrides: { drill: { depth } } });
    // One pitch must stay below the tap's tip.
    expect(z(typed(20), 'tap')).toBeCloseTo(-20 + 1.25, 9);
    expect(z(typed(30), 'tap')).toBeCloseTo(-30 + 1.25, 9);
    // What the print asks for and the model has no room for is made once the drill goes deeper.
    const deep = (overrides: SizeDecision['overrides']) =>
      rowOf(threaded(), { ...m8('M8x1.25 ↧24'), overrides });
    expect(kinds(deep({}))).not.toContain('tap');
    expect(kinds(deep({ drill: { depth: 31 } }))).toContain('tap');
  });

  it('taps M8 ↧16 to 21 in a hole drilled to 22.25', () => {
    const row = rowOf(
      hole({ depth: 22.25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 22.25 }] }),
      m8('M8x1.25 - 6H ↧16'),
    );
    expect(kinds(row)).toEqual(['spot', 'drill', 'tap']);
    const tap = row.operations[2]!;
    expect(howOf(tap)).toEqual({ how: 'tap', hand: 'right' });
    expect(tap.tool.thread!.lead).toBe('plug');
    expect(tap.work[0]!.z).toBe(-21);
    expect(tap.feed).toBeCloseTo(tap.speed * 1.25, 9);
  });

  it('takes a bottoming tap where a plug tap has no room', () => {
    const row = rowOf(
      hole({ depth: 20, stack: [{ shape: 'cylinder', diameter: 6.8, length: 20 }] }),
      m8('M8x1.25 ↧16'),
    );
    expect(row.operations[2]!.tool.thread!.lead).toBe('bottoming');
    expect(row.operations[2]!.work[0]!.z).toBeCloseTo(-17.875, 9);
  });

  it('leaves the row open, whole, where no tap has room, and says how deep is possible', () => {
    const row = rowOf(
      hole({ depth: 17, stack: [{ shape: 'cylinder', diameter: 6.8, length: 17 }] }),
      m8('M8x1.25 ↧16'),
    );
    expect(row.state).toBe('open');
    expect(row.operations).toEqual([]);
    expect(row.reasons.join()).toMatch(/needs .* of full diameter; the hole has 17 mm/);
  });

  it('uses G74 for left hand', () => {
    const row = rowOf(
      hole({ depth: 25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }] }),
      m8('M8x1.25 LH ↧10'),
    );
    expect(howOf(row.operations[2]!)).toEqual({ how: 'tap', hand: 'left' });
  });

  it('objects to a thread that does not go into the hole', () => {
    expect(
      rowOf(hole({ stack: [{ shape: 'cylinder', diameter: 10, length: 20 }] }), m8('M6x1 ↧10')).remarks.map(
        (r) => r.rule,
      ),
    ).toContain('thread-and-hole');
  });
});

describe('steps', () => {
  const bored = counterbored();

  it('counterbores with a cutter of exactly that size', () => {
    const row = rowOf(bored);
    expect(kinds(row)).toEqual(['spot', 'drill', 'counterbore']);
    expect(z(row, 'counterbore')).toBe(-6.8);
  });

  it('names a missing size and never takes a near one', () => {
    const row = rowOf(
      bored,
      {},
      TOOLS.filter((t) => t.kind !== 'counterbore').concat({
        ...TOOLS.find((t) => t.kind === 'counterbore')!,
        diameter: 11.2,
      }),
    );
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toContain('⌀11 mm');
  });

  it('names a drill whose flutes are too short', () => {
    const row = rowOf(
      hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter: 6, length: 30 }] }),
      {},
      [...TOOLS.filter((t) => t.diameter !== 6 || t.kind !== 'drill'), drill(50, 6, 25)],
    );
    expect(row.reasons.join()).toMatch(/reaches 31 mm deep: the longest has 25 mm/);
  });

  it('takes no drill whose flutes end within the break-through', () => {
    const withFlutes = (length: number) =>
      rowOf(hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter: 6, length: 30 }] }), {}, [
        ...TOOLS.filter((t) => t.diameter !== 6 || t.kind !== 'drill'),
        drill(50, 6, length),
      ]);
    expect(withFlutes(30.5).state).toBe('open');
    expect(withFlutes(31).state).toBe('planned');
  });

  it('countersinks to the rim, less the tip flat', () => {
    const sunk = hole({
      kind: 'through',
      role: 'countersunk',
      stack: [
        { shape: 'cone', startDiameter: 12.4, endDiameter: 6.6, angle: 90, length: 2.9 },
        { shape: 'cylinder', diameter: 6.6, length: 27.1 },
      ],
    });
    expect(z(rowOf(sunk), 'countersink')).toBeCloseTo(-6.1, 9);
  });

  it('makes a far-side counterbore in a setup from that side, and warns without one', () => {
    const far = {
      ...bored,
      id: 'F1',
      axis: [0, 0, -1] as [number, number, number],
      entry: [20, 20, -30] as [number, number, number],
    };
    expect(rowOf(far).remarks.map((r) => r.rule)).toContain('far-side');
    const row = rowOf(far, {}, TOOLS, (p) => p.setups.push(newSetup('s2', 'bottom up', '-Z')));
    expect(row.operations.map((o) => `${o.setupId} ${o.kind}`)).toEqual([
      's1 spot',
      's1 drill',
      's2 counterbore',
    ]);
  });
});

describe('setups and coverage', () => {
  it('says which side must be up', () => {
    const side = hole({ axis: [1, 0, 0], reachableFrom: [[1, 0, 0]], entry: [100, 40, -15] });
    const row = rowOf(side);
    expect(row.state).toBe('unreachable');
    expect(row.reasons[0]).toContain('+X');
    expect(rowOf(side, {}, TOOLS, (p) => p.setups.push(newSetup('s2', 'right up', '+X'))).state).toBe(
      'planned',
    );
  });

  it('counts planned features over all', () => {
    const job = deriveJob({
      features: [hole(), hole({ reachableFrom: [], axis: [0, 1, 0] })],
      bounds: BOUNDS,
      plan: plan(),
      library: LIBRARY,
    });
    expect(job.coverage).toEqual({ planned: 1, total: 2 });
  });

  it('puts zero where it was chosen', () => {
    const row = rowOf(
      hole({ entry: [20, 20, 0] }),
      {},
      TOOLS,
      (p) => (p.setups[0]!.zero = { kind: 'box', of: 'part', x: -1, y: 1, z: -1, offset: [0, 0, 0] }),
    );
    expect(row.holes[0]).toMatchObject({ x: 20, y: -60, entryZ: 30 });
  });
});

describe('order', () => {
  const job = () => {
    const p = plan();
    const threaded = hole({ depth: 25, stack: [{ shape: 'cylinder', diameter: 6.8, length: 25 }] });
    p.sizes[featureSizes([threaded])[0]!.key] = { overrides: {}, ...m8('M8x1.25 ↧16') };
    return deriveJob({
      features: [threaded, hole({ stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }] })],
      bounds: BOUNDS,
      plan: p,
      library: LIBRARY,
    });
  };

  it('runs spots, drills and taps in that order, one visit a tool', () => {
    const ops = job().setups[0]!.operations;
    expect(ops.map((o) => o.kind)).toEqual(['spot', 'spot', 'drill', 'drill', 'tap']);
    expect(firstConflict(ops)).toBeNull();
  });

  it('moves a tool where nothing depends on it, and refuses with a reason where something does', () => {
    const ops = job().setups[0]!.operations;
    expect(moveVisit(ops, 'drill-8.5', 'drill-6.8')).toHaveProperty('order');
    const refused = moveVisit(ops, 'tap-M8x1.25-plug-right', 'drill-6.8');
    expect('conflict' in refused && refused.conflict.message).toMatch(/tap .* would run before .* drill/);
  });
});
