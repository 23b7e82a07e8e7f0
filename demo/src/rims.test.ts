import { beforeAll, describe, expect, it } from 'vitest';
import { recognise } from '@yellow-pin/core/features/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { produceJob, proveText, type ProduceInput } from '@yellow-pin/core/job/produce';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { newSetup } from '@yellow-pin/core/setup/setup';
import { toolProfile, radiusAt } from '@yellow-pin/core/tools/profile';
import { readStep } from '@yellow-pin/kernel';
import { SHOP } from './shop/index.ts';
import { box, cutAll, prepare, stepText, straight, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];

/** A plate of 12 with holes of three sizes through it, all made by one method. */
async function plate(method: string, diameters = [6.6, 12, 16]): Promise<ProduceInput> {
  const holes = diameters.map((d, i) => turned(straight(d, 14), [20 + 35 * i, 30, 0], UP));
  const body = cutAll(box([0, 0, -12], [130, 60, 0]), holes);
  const model = await readStep(new TextEncoder().encode(await stepText([body], 'plate')));
  const mesh = meshModel(model);
  const { features } = recognise(model, { mesh });
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = [newSetup('s1', 'top', '+Z', 'G54')];
  for (const s of featureSizes(features))
    if (s.family === 'hole') plan.sizes[s.key] = { overrides: {}, method };
  return withDrawerLoaded({ features, bounds: model.bounds, mesh, plan, library: SHOP, name: 'plate' });
}

const after = (input: ProduceInput, change: (text: string) => string): string[] => {
  const { text } = produceJob(input).programs[0]!;
  const changed = change(text);
  expect(changed).not.toBe(text);
  return proveText(input, 's1', changed)
    .checks.filter((c) => c.severity === 'error')
    .map((c) => c.rule);
};

beforeAll(prepare, 60_000);

describe('rims that are broken', () => {
  it('are made for all sizes with one cutter, straight down or round, and proved without a finding', async () => {
    const produced = produceJob(await plate('drilled-rim-broken'));
    expect(produced.checks.filter((c) => c.severity !== 'note')).toEqual([]);
    const rims = produced.programs[0]!.setup.operations.filter((o) => o.kind === 'rim-break');
    expect(rims.length).toBe(3);
    expect(new Set(rims.map((o) => o.tool.id)).size).toBe(1);
    expect(rims.map((o) => o.work[0]!.motion.kind).sort()).toEqual(['cycle', 'path', 'path']);
    // Tip Z and offset by the handbook: v = w, rt + c on a 90° cutter; every rim 0.3 wider all round.
    for (const o of rims) {
      const [w] = o.work;
      const rim = w!.wanted![0]!;
      expect(rim.diameter - 0.6).toBeCloseTo(
        [6.6, 12, 16].find((d) => Math.abs(d - rim.diameter) < 1)!,
        3,
      );
      if (w!.motion.kind === 'cycle')
        expect(2 * radiusAt(toolProfile(o.tool, null), rim.z - w!.z)).toBeCloseTo(rim.diameter, 3);
      else expect(w!.z).toBeCloseTo(-0.6, 6);
    }
  });

  it('are found too wide, too narrow, and before their hole', async () => {
    const input = await plate('drilled-rim-broken', [16]);
    const deeper = (t: string) => t.replace(/Z-0\.6\b/, 'Z-0.65');
    expect(after(input, deeper).some((r) => r === 'rim-size' || r === 'rim-too-wide')).toBe(true);
    expect(after(input, (t) => t.replace(/Z-0\.6\b/, 'Z-0.55'))).toContain('rim-size');
    const cut = await plate('drilled-rim-broken', [6.6]);
    expect(
      after(cut, (t) => t.replace(/(G82 [^\n]*Z-)(3\.[\d]+)/, (_, a, z) => `${a}${Number(z) - 0.1}`)),
    ).toContain('rim-size');
  });

  it('are broken from below through the hole, with head and neck clear of it', async () => {
    const produced = produceJob(await plate('drilled-both-rims-broken', [12, 16]));
    expect(produced.checks.filter((c) => c.severity !== 'note')).toEqual([]);
    const back = produced.programs[0]!.setup.operations.filter((o) => o.kind === 'back-rim-break');
    expect(back.length).toBe(2);
    for (const o of back) {
      const [w] = o.work;
      expect(w!.z).toBeLessThan(-12);
      const arc =
        w!.motion.kind === 'path' ? w!.motion.passes[0]!.moves.find((m) => m.kind === 'arc') : undefined;
      expect(arc).toBeDefined();
    }
    expect(produced.programs[0]!.text).toMatch(/clear below/i);
  });

  it('from below: a path too high or too wide is found in the text', async () => {
    const input = await plate('drilled-both-rims-broken', [16]);
    const z = produceJob(input)
      .programs[0]!.setup.operations.find((o) => o.kind === 'back-rim-break')!
      .work[0]!.z.toFixed(3)
      .replace(/0+$/, '');
    const higher = (Number(z) + 0.5).toFixed(3);
    expect(after(input, (t) => t.replaceAll(`Z${z}`, `Z${higher}`)).length).toBeGreaterThan(0);
  });
});
