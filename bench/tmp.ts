import { demoPartPath } from '../demo/src/jobs.ts';
import { readFileSync } from 'node:fs';
import { readStep } from '@yellow-pin/kernel';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { recognise } from '@yellow-pin/core/features/recognise';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { SHOP } from '../demo/src/shop/index.ts';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { derive } from '@yellow-pin/core/job/derive';
const model = await readStep(readFileSync(demoPartPath('manifold-block.step')));
const mesh = meshModel(model);
const { features } = recognise(model, { mesh });
const plan = newPlan('mm', SHOP.materials[0]!.id, SHOP.machines[0]!.id);
plan.setups = setupsFor(chooseDirections(features));
const { job, spaces } = derive({ features, bounds: model.bounds, mesh, plan, library: SHOP });
for (const s of job.setups) {
  const sp = spaces.get(s.setup.id)!;
  console.log(s.setup.id, s.frame.frame.origin, sp.heights?.top, sp.heights?.along(62.803, 3.5, 58.803, 3.5, 2.97, -15.98), sp.heights?.along(58.803, 3.5, 58.803, 3.5, 2.97, -15.98),sp.heights?.along(58.803, 3.5, 58.803, 3.5, 2.97, -100));
}
const row = job.rows.find(r=>r.grooves.length>0)!;
console.log(JSON.stringify(row.grooves[0]!.shape), row.setupId);
