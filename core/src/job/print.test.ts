import { describe, expect, it } from 'vitest';
import { featureSizes } from '../features/sets.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { counterbored, BOUNDS, drill, hole, LIBRARY, plan, tap, TOOLS } from '../testing/fixtures.ts';
import { deriveJob } from './derive.ts';
import { planSchema } from '../plan/plan.ts';
import { decisionFromCallout } from './print.ts';
import type { Row } from './row.ts';

function rowOf(features: HoleFeature[], callout: string, tools = TOOLS): Row {
  const p = plan();
  p.sizes[featureSizes(features)[0]!.key] = { overrides: {}, ...decisionFromCallout(callout, 'mm') };
  return deriveJob({ features, bounds: BOUNDS, plan: p, library: { ...LIBRARY, tools } }).rows[0]!;
}
const tip = (r: Row, kind: string) => r.operations.find((o) => o.kind === kind)?.work[0]?.z;
const said = (r: Row) => r.remarks.map((m) => `${m.severity} ${m.message}`).join('\n');

const through = (diameter = 6) =>
  hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter, length: 30 }] });
const blind = (diameter = 6, depth = 20) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });
const POINT = (d: number) => d / 2 / Math.tan((59 * Math.PI) / 180);

describe('what the print says is what is cut, or it is asked', () => {
  it('a depth on a through hole is drilled to that depth, and said', () => {
    const row = rowOf([through()], '⌀6 ↧12');
    expect(tip(row, 'drill')).toBeCloseTo(-12 - POINT(6), 6);
    expect(said(row)).toMatch(/warning The print says 12 mm deep, the model goes through/);
    expect(row.calloutText).toBe('⌀6 ↧12');
  });
  it('a depth other than the model’s is drilled, and said', () => {
    expect(tip(rowOf([blind()], '⌀6 ↧15'), 'drill')).toBeCloseTo(-15 - POINT(6), 6);
    expect(said(rowOf([blind()], '⌀6 ↧25'))).toContain('into metal that the model keeps');
    expect(said(rowOf([blind()], '⌀6 ↧20'))).toBe('');
  });
  it('THRU on a blind hole is asked about, threaded or not', () => {
    for (const callout of ['⌀6 THRU', 'M8x1.25 THRU']) {
      const row = rowOf([blind(callout.startsWith('M') ? 6.8 : 6)], callout);
      expect(row.state, callout).toBe('open');
      expect(row.reasons.join(), callout).toMatch(/ends 20 mm below its entry/);
    }
  });
  it('another diameter is asked about, one a hair off is drilled as printed', () => {
    const far = rowOf([through(6.6)], '⌀8 THRU');
    expect(far.state).toBe('open');
    expect(far.reasons.join()).toMatch(/print says ⌀8 mm, the model has ⌀6.6 mm/);
    const near = rowOf([through(6.61)], '⌀6.6 THRU');
    expect(near.state).toBe('planned');
    expect(near.operations.at(-1)!.tool.diameter).toBe(6.6);
  });
  it('a counterbore is cut as deep as printed, also where the model has none', () => {
    expect(tip(rowOf([counterbored()], '⌀6.6 THRU ⌴ ⌀11 ↧8'), 'counterbore')).toBe(-8);
    expect(said(rowOf([counterbored()], '⌀6.6 THRU ⌴ ⌀11 ↧8'))).toContain('counterbore is 8 mm deep');
    expect(said(rowOf([counterbored()], '⌀6.6 THRU ⌴ ⌀11 ↧6.8'))).toBe('');
    const added = rowOf([through(6.6)], '⌀6.6 THRU ⌴ ⌀11 ↧5');
    expect(added.operations.map((o) => o.kind)).toEqual(['spot', 'drill', 'counterbore']);
    expect(tip(added, 'counterbore')).toBe(-5);
    expect(rowOf([counterbored()], '⌀6.6 THRU ⌴ ⌀15 ↧8').reasons.join()).toContain(
      '⌀15 mm, the model’s'.replace('’', "'"),
    );
    expect(rowOf([through(6.6)], '⌀6.6 THRU ⌴ ⌀11').reasons.join()).toContain('has no depth');
  });
  it('a countersink likewise', () => {
    const row = rowOf([through(5.5)], '⌀5.5 THRU ⌵ ⌀10.4 × 90°');
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'drill', 'countersink']);
    expect(tip(row, 'countersink')).toBeCloseTo(-(10.4 - 0.2) / 2, 6);
    expect(said(row)).toContain('that the model lacks');
  });
  it('a count that differs is said', () => {
    const two = [through(), hole({ ...through(), id: 'H0', entry: [60, 20, 0] })];
    expect(said(rowOf(two, '3x ⌀6 THRU'))).toContain('The print says 3×, the model has 2');
    expect(said(rowOf(two, '2x ⌀6 THRU'))).toBe('');
  });
  it('a thread’s own depth and the drilled depth are two', () => {
    const row = rowOf([blind(6.8, 25)], '⌀6.8 ↧25 M8x1.25 - 6H ↧12');
    expect(tip(row, 'tap')).toBeCloseTo(-12 - 5, 6);
    expect(tip(row, 'drill')).toBeCloseTo(-25 - POINT(6.8), 6);
    expect(rowOf([blind(6.8, 25)], '⌀5 ↧25 M8x1.25 ↧12').reasons.join()).toContain('no hole for M8x1.25');
  });
  it('near and far side keep their own typed numbers', () => {
    const both = hole({
      kind: 'through',
      role: 'counterbored',
      stack: [
        { shape: 'cylinder', diameter: 11, length: 6 },
        { shape: 'flat', startDiameter: 11, endDiameter: 6.6 },
        { shape: 'cylinder', diameter: 6.6, length: 18 },
        { shape: 'flat', startDiameter: 6.6, endDiameter: 11 },
        { shape: 'cylinder', diameter: 11, length: 6 },
      ],
    });
    const p = plan();
    p.setups.push({ ...p.setups[0]!, id: 's2', name: 'bottom', attitude: { up: [0, 0, -1], x: [1, 0, 0] } });
    p.sizes[featureSizes([both])[0]!.key] = {
      overrides: { counterbore: { depth: 5 }, 'far counterbore': { depth: 7 } },
    };
    const [row] = deriveJob({ features: [both], bounds: BOUNDS, plan: p, library: LIBRARY }).rows;
    const bores = row!.operations
      .filter((o) => o.kind === 'counterbore')
      .map((o) => [o.setupId, o.work[0]!.entryZ - o.work[0]!.z]);
    expect(bores).toEqual([
      ['s1', 5],
      ['s2', 7],
    ]);
  });
});

describe('guesses and tools', () => {
  it('a counterbored hole of a screw’s sizes is its clearance hole first', () => {
    const p = plan();
    const [row] = deriveJob({ features: [counterbored()], bounds: BOUNDS, plan: p, library: LIBRARY }).rows;
    expect(row!.guesses[0]).toEqual({ kind: 'clearance', screw: 'M6', fit: 'medium' });
  });
  it('a tap longer than its flutes is not planned', () => {
    const short = TOOLS.filter((t) => t.kind !== 'tap').concat({
      ...tap(30, 'M8x1.25', 8, 1.25),
      fluteLength: 15,
    });
    const row = rowOf([blind(6.8, 25)], 'M8x1.25 ↧16', short);
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toMatch(/reaches 21 mm deep: the longest has 15 mm/);
  });
  it('a material that says nothing of a tool keeps rows open, and nothing breaks', () => {
    const rest = LIBRARY.materials[0]!.cutting.filter((r) => !r.kinds.includes('drill'));
    const library = { ...LIBRARY, materials: [{ ...LIBRARY.materials[0]!, cutting: rest }] };
    const [row] = deriveJob({ features: [through()], bounds: BOUNDS, plan: plan(), library }).rows;
    expect(row!.reasons.join()).toContain('has no cutting data for drill');
  });
  it('one hole that no drill reaches does not open its row', () => {
    const far = hole({
      ...through(8),
      id: 'H0',
      entry: [60, 20, 0],
      depth: 90,
      stack: [{ shape: 'cylinder', diameter: 8, length: 90 }],
    });
    const tools = TOOLS.filter((t) => t.diameter !== 8).concat(drill(50, 8, 40));
    const [row] = deriveJob({
      features: [through(8), far],
      bounds: BOUNDS,
      plan: plan(),
      library: { ...LIBRARY, tools },
    }).rows;
    expect(row!.state).toBe('planned');
    expect(row!.blocked.map((b) => b.label)).toEqual(['A2']);
    expect(row!.operations.every((o) => o.work.every((h) => h.label === 'A1'))).toBe(true);
  });
});

describe('documents of before', () => {
  it('keep their callouts, and now obey them', () => {
    const p = plan();
    const { toolOrders: _, ...rest } = p;
    const old = {
      ...rest,
      format: 'yellow-pin/plan@2',
      toolOrder: ['b', 'a'],
      sizes: {
        k: { callout: '⌀6.6 THRU ⌴ ⌀11 ↧6.8', thread: null, overrides: {} },
        j: { callout: 'nonsense', overrides: {} },
      },
    };
    const read = planSchema.parse(JSON.parse(JSON.stringify(old)));
    expect(read.toolOrders).toEqual({ s1: ['b', 'a'] });
    expect(read.sizes['k']!.print).toMatchObject({ diameter: 6.6, counterbore: { depth: 6.8 } });
    expect(read.sizes['j']).toMatchObject({ callout: 'nonsense' });
  });
});
