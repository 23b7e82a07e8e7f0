import * as Comlink from 'comlink';
import { produceJob, type ProducedJob } from '@yellow-pin/core/job/produce';
import type { Library } from '@yellow-pin/core/job/library';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { Feature } from '@yellow-pin/core/features/family';
import { edgeSegments, meshModel, type PartMesh } from '@yellow-pin/core/model/mesh';
import { rayCaster, type RayCaster } from '@yellow-pin/core/model/ray';
import { boundsOf, type Bounds, type SolidModel } from '@yellow-pin/core/model/solid-model';

export interface PartPicture {
  mesh: PartMesh;
  edges: Float32Array;
  bounds: Bounds;
  solids: number;
}

export interface ProduceRequest {
  features: Feature[];
  plan: Plan;
  library: Library;
  name: string;
}

let model: SolidModel | null = null;
let solidShown: number | null = null;
let rays: RayCaster | null = null;
let bounds: Bounds | null = null;

/** Fetches a job's solid model and makes its picture; `solid` shows one of several. */
async function open(jobId: string, solid: number | null): Promise<PartPicture> {
  const response = await fetch(`/api/jobs/${jobId}/model`);
  if (!response.ok) throw new Error('The part could not be fetched. Load the page again.');
  model = (await response.json()) as SolidModel;
  return show(solid);
}

function show(solid: number | null): PartPicture {
  if (!model) throw new Error('no part is open');
  const whole = model;
  solidShown = solid;
  const mesh = meshModel(whole, (f) => solid === null || f.solid === solid);
  rays = rayCaster(mesh);
  const edges = edgeSegments({ ...whole, edges: whole.edges.filter((e) => solid === null || e.faces.some((f) => whole.faces[f]!.solid === solid)) }).positions;
  bounds = solid === null ? whole.bounds : boundsOf(whole.edges.filter((e) => e.faces.some((f) => whole.faces[f]!.solid === solid)).flatMap((e) => e.points));
  return { mesh, edges, bounds, solids: whole.solids.length };
}

/** The job that follows from the plan: operations, code, and what the code was found to do. */
function produce({ features, plan, library, name }: ProduceRequest): ProducedJob {
  if (!bounds) throw new Error('no part is open');
  const own = features.filter((f) => solidShown === null || f.solid === solidShown);
  return produceJob({ features: own, bounds, plan, library, name, rays });
}

const jobWorker = { open, show, produce };
export type JobWorker = typeof jobWorker;
Comlink.expose(jobWorker);
