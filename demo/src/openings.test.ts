import { beforeAll, describe, expect, it } from 'vitest';
import { recognise } from '@yellow-pin/core/features/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { produceJob, proveText, type ProduceInput } from '@yellow-pin/core/job/produce';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { newPlan, type SizeDecision } from '@yellow-pin/core/plan/plan';
import { newSetup } from '@yellow-pin/core/setup/setup';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { readStep } from '@yellow-pin/kernel';
import { SHOP } from './shop/index.ts';
import { blind, box, cutAll, prepare, stepText, straight, sunk, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];
const AT: Point = [40, 30, 0];

/** A block with one hole: outline corners of the hole from its axis, or a straight one. */
async function block(
  shape: ReturnType<typeof straight>,
  decided: Partial<SizeDecision> = {},
  tools: (t: Tool) => boolean = () => true,
): Promise<ProduceInput> {
  const body = cutAll(box([0, 0, -20], [80, 60, 0]), [turned(shape, AT, UP)]);
  const model = await readStep(new TextEncoder().encode(await stepText([body], 'block')));
  const mesh = meshModel(model);
  const { features } = recognise(model, { mesh });
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = [newSetup('s1', 'top', '+Z', 'G54')];
  for (const s of featureSizes(features))
    if (s.family === 'hole') plan.sizes[s.key] = { overrides: {}, ...decided };
  const library = { ...SHOP, tools: SHOP.tools.filter(tools) };
  return withDrawerLoaded({ features, bounds: model.bounds, mesh, plan, library, name: 'block' });
}

const kinds = (input: ProduceInput): string[] =>
  produceJob(input).programs[0]!.setup.operations.map((o) => o.kind);
const wrong = (input: ProduceInput) => produceJob(input).checks.filter((c) => c.severity !== 'note');

beforeAll(prepare, 60_000);

describe('a countersink wider than any countersink of the shop', () => {
  it('is milled in steps and along its cone by methods alone, and proved', async () => {
    const input = await block(sunk(straight(17, 22), 36));
    expect(wrong(input)).toEqual([]);
    expect(kinds(input)).toContain('helical-countersink');
    const made = produceJob(input).programs[0]!.setup.operations.find(
      (o) => o.kind === 'helical-countersink',
    )!;
    expect(made.tool.diameter).toBeLessThan(36);
    expect(made.parameters.find((p) => p.key === 'rim')!.value).toBeCloseTo(36, 3);
  });

  it('is set deeper where the head should be, and the text is judged by that', async () => {
    const deeper = { overrides: { 'helical-countersink': { deeper: 0.2 } } };
    const input = await block(sunk(straight(17, 22), 36), deeper);
    expect(wrong(input)).toEqual([]);
    const { text, setup } = produceJob(input).programs[0]!;
    const made = setup.operations.find((o) => o.kind === 'helical-countersink')!;
    expect(made.parameters.find((p) => p.key === 'rim')!.value).toBeCloseTo(36.4, 3);
    // Everything of it a tenth lower: the rim is 0.2 wider than wanted.
    const from = text.indexOf('HELICAL COUNTERSINK');
    const lower =
      text.slice(0, from) +
      text.slice(from).replace(/Z-(\d+\.\d+)/g, (_, z) => `Z-${(Number(z) + 0.1).toFixed(3)}`);
    const rules = proveText(input, 's1', lower)
      .checks.filter((c) => c.severity === 'error')
      .map((c) => c.rule);
    expect(rules.some((r) => r === 'rim-size' || r === 'rim-too-wide')).toBe(true);
  });
});

describe('a hole that is opened by other tools than usual', () => {
  it('is drilled under its size and opened with a core drill', async () => {
    const input = await block(straight(16, 22), { method: 'core-drilled' });
    expect(wrong(input)).toEqual([]);
    expect(kinds(input).slice(-2)).toEqual(['drill', 'core-drill']);
    const none = await block(straight(16, 22), {
      operations: [
        { kind: 'drill', part: 'hole', set: { underFrom: 8, underTo: 10 } },
        { kind: 'core-drill', part: 'hole', set: {} },
      ],
    });
    const { job } = produceJob(none);
    expect(job.rows.find((r) => r.size.family === 'hole')!.reasons.join()).toContain('needs a hole of');
  });

  it('is started with a centre drill', async () => {
    const input = await block(blind(8, 15), { method: 'centred' });
    expect(wrong(input)).toEqual([]);
    const first = produceJob(input).programs[0]!.setup.operations[0]!;
    expect(first.tool.kind).toBe('centre-drill');
    // Its pilot first, then its cone to half the drill.
    expect(first.parameters.find((p) => p.key === 'rim')!.value).toBeCloseTo(4, 6);
  });
});

describe('a bore of a size that no drill has', () => {
  it('is milled on a helix by itself, its wall no steeper than the cutter may go (N44)', async () => {
    const input = await block(sunk(straight(13.1, 22), 27, 60));
    expect(wrong(input)).toEqual([]);
    expect(kinds(input)).toEqual(['helical-bore', 'helical-countersink']);
  });
});

describe('a chamfer of the model on a hole that nothing spots', () => {
  it('is made by a rim break: a milled bore does not lose it', async () => {
    const input = await block(sunk(straight(33.5, 22), 35.5));
    expect(wrong(input)).toEqual([]);
    expect(kinds(input)).toEqual(['helical-bore', 'rim-break']);
    const centred = await block(sunk(straight(8, 22), 9), { method: 'centred' });
    expect(wrong(centred)).toEqual([]);
    expect(kinds(centred)).toEqual(['centre', 'drill', 'rim-break']);
  });
});
