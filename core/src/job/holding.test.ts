import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../geometry/vec.ts';
import { counterbored, LIBRARY, BOUNDS, hole, plan } from '../testing/fixtures.ts';
import { deriveJob } from './derive.ts';
import { boxOnTheWay } from '../space/keep-out.ts';
import { produceJob, proveText } from './produce.ts';
import { newSetup, type Setup } from '../setup/setup.ts';
import { setupFrame } from '../setup/setup-frame.ts';

const bounds = { min: [10, 20, 30] as Vec3, max: [110, 80, 70] as Vec3 };
const setup = (part: Partial<Setup> = {}): Setup => ({ ...newSetup('s1', 'n', '+Z'), ...part });

describe('what holds the part', () => {
  const jaws = setup({
    holding: { vise: { sides: 'front-back', jawHeight: 40, grip: 10, jawWidth: 120 }, keepOuts: [] },
  });
  it('stands beside the stock as high as it grips', () => {
    const { keepOuts, stock, top } = setupFrame(jaws, BOUNDS);
    expect(keepOuts.map((k) => k.name)).toEqual(['front jaw', 'back jaw']);
    expect(keepOuts[0]!.max).toEqual([60, stock.min[1], stock.min[2] + 10]);
    expect(top).toBe(0);
  });
  it('is met from any side, and not from above', () => {
    const clamp = [{ name: 'clamp', min: [0, 0, -10] as Vec3, max: [20, 20, 12] as Vec3 }];
    expect(boxOnTheWay(clamp, [24, 10, 5], [24, 10, 5], 4)?.name).toBe('clamp');
    expect(boxOnTheWay(clamp, [26, 10, 5], [26, 10, 5], 4)).toBeNull();
    expect(boxOnTheWay(clamp, [10, 10, 13.5], [10, 10, 13.5], 4)).toBeNull();
    expect(boxOnTheWay(clamp, [-50, 10, 5], [80, 10, 5], 1)?.name).toBe('clamp');
    expect(boxOnTheWay(clamp, [-50, 10, 30], [80, 10, 30], 1)).toBeNull();
    expect(boxOnTheWay(clamp, [-50, 60, 5], [80, 60, 5], 1)).toBeNull();
    expect(boxOnTheWay(clamp, [10, 10, 40], [10, 10, 5], 1)?.name).toBe('clamp');
  });
  it('leaves a hole under a clamp out and says so; the others are made round it, and the code proves it', () => {
    const p = plan();
    p.setups[0]!.holding.keepOuts = [
      { id: 'c', name: 'clamp 1', kind: 'clamp', min: [30, 10, -5], max: [60, 30, 25] },
    ];
    const at = (x: number) =>
      hole({ entry: [x, 20, 0], stack: [{ shape: 'cylinder', diameter: 6, length: 20 }] });
    const input = { features: [at(15), at(45), at(80)], bounds: BOUNDS, plan: p, library: LIBRARY };
    const job = deriveJob(input);
    expect(job.rows[0]!.blocked.map((b) => b.label)).toEqual(['A2']);
    expect(job.coverage).toEqual({ planned: 2, total: 3 });
    expect(job.rows[0]!.operations.every((o) => o.work.length === 2)).toBe(true);
    const produced = produceJob({ ...input, name: 'clamped' });
    expect(produced.checks.filter((c) => c.rule === 'holding' && c.severity === 'error')).toEqual([]);
    // From one side of the clamp to the other the tool lifts.
    expect(produced.programs[0]!.text).toMatch(/G98/);
  });
  it('counts no hole twice when all of a row are in the way', () => {
    const p = plan();
    p.setups[0]!.holding.keepOuts = [
      { id: 'c', name: 'plate', kind: 'keep-out', min: [-10, -10, -5], max: [200, 200, 25] },
    ];
    const job = deriveJob({
      features: [hole(), hole({ entry: [60, 20, 0] })],
      bounds: BOUNDS,
      plan: p,
      library: LIBRARY,
    });
    expect(job.rows[0]).toMatchObject({ state: 'open', operations: [], blocked: [] });
    expect(job.rows[0]!.reasons[0]).toContain('plate');
    expect(job.coverage).toEqual({ planned: 0, total: 2 });
  });
  it('leaves a hole that is blocked from below out of both setups', () => {
    const bored = (x: number) => counterbored({}, { kind: 'through', axis: [0, 0, -1], entry: [x, 20, -30] });
    const p = plan();
    p.setups.push(newSetup('s2', 'bottom up', '-Z'));
    const free = deriveJob({ features: [bored(20), bored(70)], bounds: BOUNDS, plan: p, library: LIBRARY })
      .rows[0]!;
    expect(free.operations.map((o) => `${o.setupId} ${o.kind} ${o.work.length}`)).toEqual([
      's1 spot 2',
      's1 drill 2',
      's2 counterbore 2',
    ]);
    // In the turned setup Z runs down: the clamp stands on the part's underside, round the first hole.
    p.setups[1]!.holding.keepOuts = [
      { id: 'c', name: 'clamp', kind: 'clamp', min: [5, -40, 25], max: [35, 0, 60] },
    ];
    const row = deriveJob({ features: [bored(20), bored(70)], bounds: BOUNDS, plan: p, library: LIBRARY })
      .rows[0]!;
    expect(row.blocked.map((b) => b.label)).toEqual(['A1']);
    expect(row.operations.map((o) => `${o.setupId} ${o.kind} ${o.work.length}`)).toEqual([
      's1 spot 1',
      's1 drill 1',
      's2 counterbore 1',
    ]);
    expect(row.remarks.filter((r) => r.rule === 'left-out-hole')).toHaveLength(1);
  });
  it('takes what is left for solid where there is nothing before it', () => {
    const first = setup({ stock: { ...setup().stock, kind: 'left-over' } });
    expect(setupFrame(first, bounds).body.standsProud).toBe(true);
  });
  it('proves the text, hand-edited too', () => {
    const p = plan();
    p.setups[0]!.holding.keepOuts = [
      { id: 'c', name: 'clamp 1', kind: 'clamp', min: [40, 0, -5], max: [60, 80, 25] },
    ];
    const at = (x: number) =>
      hole({ entry: [x, 20, 0], stack: [{ shape: 'cylinder', diameter: 6, length: 20 }] });
    const input = { features: [at(15), at(80)], bounds: BOUNDS, plan: p, library: LIBRARY, name: 'x' };
    const { text } = produceJob(input).programs[0]!;
    const findings = (t: string) =>
      proveText(input, p.setups[0]!.id, t).checks.filter((c) => c.rule === 'holding');
    expect(findings(text)).toEqual([]);
    // Staying low between the holes goes through the clamp.
    expect(findings(text.replace(/G98/g, 'G99'))[0]).toMatchObject({
      severity: 'error',
      message: expect.stringContaining('through clamp 1') as string,
    });
  });
  it('must lie within the machine’s travel', () => {
    const machine = { ...LIBRARY.machines[0]!, travel: { x: 20, y: 550, z: 550 } };
    const at = (x: number) =>
      hole({ entry: [x, 20, 0], stack: [{ shape: 'cylinder', diameter: 6, length: 20 }] });
    const { checks } = produceJob({
      features: [at(10), at(90)],
      bounds: BOUNDS,
      plan: plan(),
      library: { ...LIBRARY, machines: [machine] },
      name: 'long',
    });
    expect(checks.filter((c) => c.rule === 'travel').map((c) => c.message)).toEqual([
      expect.stringContaining('along X'),
    ]);
  });
});
