import { readFile } from 'node:fs/promises';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { isDxf, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { produceJob, type ProducedJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import { meshModel, type PartMesh } from '@yellow-pin/core/model/mesh';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { readStep } from '@yellow-pin/kernel';
import { demoPartPath, demoPlan } from './jobs.ts';
import { SHOP } from './shop/index.ts';

export interface SampleJob {
  model: SolidModel;
  mesh: PartMesh;
  features: Feature[];
  plan: Plan;
}

/** A sample part read and planned as the server does when it is first opened: usual setups, the sample prints. */
export async function sampleJob(fileName: string): Promise<SampleJob> {
  const bytes = await readFile(demoPartPath(fileName));
  const text = new TextDecoder().decode(bytes);
  const drawing = isDxf(fileName, text) ? readDxf(text, fileName.replace(/\.dxf$/i, '')) : null;
  const depths = drawing && startingDepths(drawing);
  const first = drawing && depths ? modelFromDrawing(drawing, depths) : await readStep(bytes);
  const found = recognise(first).features;
  const plan = demoPlan(fileName, found, {
    ...newPlan(first.sourceUnits, SHOP.materials[0]!.id, SHOP.machines[0]!.id),
    setups: setupsFor(chooseDirections(found)),
    drawing: depths,
  });
  const model = drawing && plan.drawing ? modelFromDrawing(drawing, plan.drawing) : first;
  const mesh = meshModel(model);
  return { model, mesh, features: recognise(model, { mesh }).features, plan };
}

/** All that its programs are made from, with the sample shop's lists. */
export const inputOfSample = (
  { model, mesh, features, plan }: SampleJob,
  fileName: string,
): ProduceInput => ({
  features,
  bounds: model.bounds,
  partBox: boxFromPoints(model.bounds, mesh.positions),
  mesh,
  plan,
  library: SHOP,
  name: model.name || fileName.replace(/\.[^.]*$/, ''),
});

/** Its programs, proved. */
export const produceSample = (job: SampleJob, fileName: string): ProducedJob =>
  produceJob(inputOfSample(job, fileName));
