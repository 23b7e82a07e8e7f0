import * as Comlink from 'comlink';
import { produceJob, type ProducedJob } from '@yellow-pin/core/job/produce';
import type { Library } from '@yellow-pin/core/job/library';
import type { Plan } from '@yellow-pin/core/job/plan';
import { featureCurves } from '@yellow-pin/core/features/curves';
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

/** A row's lines on the part: edges, grooves and channels are shown along themselves. */
export interface CurveOf {
  tag: string;
  label: string;
  setupId: string | null;
  sharp: boolean;
  /** Point pairs. */
  points: Float32Array;
}

export interface Produced extends ProducedJob {
  curves: CurveOf[];
}

function curvesOf(job: ProducedJob['job']): CurveOf[] {
  const shown = model;
  if (!shown) return [];
  return job.rows.flatMap((row) =>
    row.size.features.flatMap((f, i) => {
      const pairs = featureCurves(f, shown).flatMap((points) => points.slice(1).flatMap((p, k) => [...points[k]!, ...p]));
      return pairs.length > 0 ? [{ tag: row.tag, label: `${row.tag}${i + 1}`, setupId: row.setupId, sharp: f.family === 'sharp-edge', points: new Float32Array(pairs) }] : [];
    }),
  );
}

/** The job that follows from the plan: operations, code, and what the code was found to do. */
function produce({ features, plan, library, name }: ProduceRequest): Produced {
  if (!bounds) throw new Error('no part is open');
  const own = features.filter((f) => solidShown === null || f.solid === solidShown);
  const produced = produceJob({ features: own, bounds, plan, library, name, rays });
  return { ...produced, curves: curvesOf(produced.job) };
}

const jobWorker = { open, show, produce };
export type JobWorker = typeof jobWorker;
Comlink.expose(jobWorker);
