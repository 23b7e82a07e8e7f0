import { beforeAll, describe, expect, it } from 'vitest';
import { recognise } from '@yellow-pin/core/features/recognise';
import { produceJob, proveText, type ProduceInput } from '@yellow-pin/core/job/produce';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { newSetup, type Setup } from '@yellow-pin/core/setup/setup';
import { readStep } from '@yellow-pin/kernel';
import { SHOP } from './shop/index.ts';
import { box, cutAll, prepare, stepText, straight, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];

/** A plate with a bore of 40, 12 deep through, in its middle; zero is there on top. */
async function plate(holding: Partial<Setup['holding']> = {}): Promise<ProduceInput> {
  const body = cutAll(box([0, 0, -12], [120, 80, 0]), [turned(straight(40, 14), [60, 40, 0], UP)]);
  const model = await readStep(new TextEncoder().encode(await stepText([body], 'plate')));
  const mesh = meshModel(model);
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  const setup = newSetup('s1', 'top', '+Z', 'G54');
  plan.setups = [{ ...setup, holding: { ...setup.holding, ...holding } }];
  return {
    features: recognise(model, { mesh }).features,
    bounds: model.bounds,
    mesh,
    plan,
    library: SHOP,
    name: 'plate',
  };
}

const errorsIn = (input: ProduceInput, text: string): string[] =>
  proveText(input, 's1', text)
    .checks.filter((c) => c.severity === 'error')
    .map((c) => c.rule);

beforeAll(prepare, 60_000);

describe('a bore that is milled in a real part', () => {
  it('is made and proved', async () => {
    const { job, checks, programs } = produceJob(await plate());
    expect(job.rows.find((r) => r.size.family === 'hole')?.method?.id).toBe('milled');
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    expect(programs[0]!.text).toMatch(/^G3 .*I-/m);
  });

  // The cutter's edge runs at 20 from the axis: a clamp from 20.5 on is in its way, though not in its centre's.
  const clamp = (from: number) => ({
    keepOuts: [
      {
        id: 'c',
        kind: 'clamp' as const,
        name: 'clamp',
        min: [60 + from, 30, -12] as Point,
        max: [80 + from, 50, 15] as Point,
      },
    ],
  });

  it('is left out where the cutter would come too near a clamp on its way round', async () => {
    const { job } = produceJob(await plate(clamp(20.5)));
    const row = job.rows.find((r) => r.size.family === 'hole')!;
    expect(row.state).toBe('open');
    expect(row.reasons.join()).toContain('clamp');
    expect(produceJob(await plate(clamp(25))).job.rows.find((r) => r.size.family === 'hole')!.state).toBe(
      'planned',
    );
  });

  it('is stopped where a clamp was put there afterwards, all round', async () => {
    const { text } = produceJob(await plate()).programs[0]!;
    for (const side of ['+X', '-X', '+Y', '-Y'] as const) {
      const [i, sign] = [side[1] === 'X' ? 0 : 1, side[0] === '+' ? 1 : -1];
      const at = [60, 40];
      const min: Point = [at[0]! - 5, at[1]! - 5, -12];
      const max: Point = [at[0]! + 5, at[1]! + 5, 15];
      [min[i], max[i]] = sign > 0 ? [at[i]! + 19, at[i]! + 30] : [at[i]! - 30, at[i]! - 19];
      const held = await plate({ keepOuts: [{ id: 'c', kind: 'clamp', name: 'clamp', min, max }] });
      expect(errorsIn(held, text), side).toContain('holding');
    }
  });

  it('is not left on an arc that cuts the plate', async () => {
    const input = await plate();
    const { text } = produceJob(input).programs[0]!;
    // A whole turn whose start lies in the bore and whose far side lies in the plate.
    const astray = text.replace(/^(G3 I-?[\d.]+ J0\..*)$/m, '$1\nG3 I15. J0.');
    expect(astray).not.toBe(text);
    expect(errorsIn(input, astray)).toContain('into-part');
  });
});
