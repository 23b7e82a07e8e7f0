import { recognise } from '@yellow-pin/core/features/recognise';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { isBoss, isHole, type Feature } from '@yellow-pin/core/features/family';
import { isInPreparedStock } from '@yellow-pin/core/features/registry';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { metalOf, withMetal } from '@yellow-pin/core/job/prove-metal';
import { produceJob, proveText, type ProduceInput } from '@yellow-pin/core/job/produce';
import type { MetalProof } from '@yellow-pin/core/metal/prove-metal';
import { meshModel } from '@yellow-pin/core/model/mesh';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import { readStep } from '@yellow-pin/kernel';
import type { Shape3D } from 'replicad';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { SHOP } from './shop/index.ts';
import { stepText } from './solids.ts';

/** A part made for a test, planned and written. */
export interface Trial {
  input: ProduceInput;
  model: SolidModel;
  texts: string[];
  setups: string[];
  job: DerivedJob;
}

/** Reads a solid as a STEP file, plans it with the prints said by diameter, and writes its programs. */
export async function jobOf(
  body: Shape3D,
  callouts: Record<string, string> = {},
  change: (p: Plan, features: Feature[]) => void = () => undefined,
): Promise<Trial> {
  return jobOfText(await stepText([body], 'trial', 'MM'), { callouts, change });
}

/** The same of a STEP file, with tools that the sample shop does not have. */
export async function jobOfText(
  text: string,
  {
    callouts = {},
    change = () => undefined,
    more = [],
    machine = {},
  }: {
    callouts?: Record<string, string>;
    change?: (p: Plan, features: Feature[]) => void;
    more?: readonly Tool[];
    machine?: Partial<MachineProfile>;
  } = {},
): Promise<Trial> {
  const model = await readStep(new TextEncoder().encode(text));
  const mesh = meshModel(model);
  const { features } = recognise(model, { mesh });
  const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = setupsFor(chooseDirections(features));
  for (const [d, text] of Object.entries(callouts))
    for (const s of featureSizes(features))
      if (
        s.features.some(
          (f) =>
            (isHole(f) && Math.abs(narrowest(f) - Number(d)) < 0.05) ||
            (isBoss(f) && Math.abs(f.diameter - Number(d)) < 0.05),
        )
      )
        plan.sizes[s.key] = { ...decisionFromCallout(text, 'mm'), overrides: {} };
  change(plan, features);
  const input = withDrawerLoaded({
    features,
    bounds: model.bounds,
    partBox: boxFromPoints(model.bounds, mesh.positions),
    plan,
    library: {
      ...SHOP,
      tools: [...SHOP.tools, ...more],
      machines: SHOP.machines.map((m) => ({ ...m, ...machine })),
    },
    name: 'trial',
    mesh,
  });
  const { programs, job } = produceJob(input);
  return {
    input,
    model,
    texts: programs.map((p) => p.text),
    setups: programs.map((p) => p.setup.setup.id),
    job,
  };
}

/** Proves the job's texts, each changed by hand first. */
export function proved(
  { input, model, texts, setups }: Trial,
  edit: (text: string, index: number) => string = (t) => t,
): { checks: Check[]; metal: MetalProof } {
  const read = texts.map((t, i) => {
    const text = edit(t, i);
    const proven = proveText(input, setups[i]!, text);
    return { ...proven, setup: proven.job.setups.find((s) => s.setup.id === setups[i])! };
  });
  const metal = metalOf(input, { job: read[0]!.job, programs: read, faces: model.faces });
  return {
    metal,
    checks: withMetal(
      read.flatMap((r) => r.checks),
      metal.checks,
    ),
  };
}

/** Faces, steps, pockets and outlines are made elsewhere. */
export function withoutAreas(plan: Plan, features: Feature[]): void {
  for (const s of featureSizes(features))
    if (s.features.every(isInPreparedStock)) plan.sizes[s.key] = { overrides: {}, leftOut: 'made elsewhere' };
}

/** Rules of the errors among findings. */
export const errors = (checks: readonly Check[]): string[] =>
  checks.filter((c) => c.severity === 'error').map((c) => c.rule);
