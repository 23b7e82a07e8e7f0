import * as Comlink from 'comlink';
import { produceJob, type ProducedJob } from '@yellow-pin/core/job/produce';
import type { Library } from '@yellow-pin/core/job/library';
import type { Plan } from '@yellow-pin/core/job/plan';
import { featureCurves } from '@yellow-pin/core/features/curves';
import type { Feature } from '@yellow-pin/core/features/family';
import { distance, type Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing } from '@yellow-pin/core/drawing/to-model';
import { recognise, type Recognition } from '@yellow-pin/core/features/recognise';
import { boxFromPoints, type PartBox } from '@yellow-pin/core/job/setup-frame';
import { lookAt, type Look } from '@yellow-pin/core/model/look';
import { edgeSegments, meshModel, type PartMesh } from '@yellow-pin/core/model/mesh';
import { rayCaster, type RayCaster } from '@yellow-pin/core/model/ray';
import { boundsOf, type Bounds, type ModelNote, type SolidModel } from '@yellow-pin/core/model/solid-model';

export interface PartPicture {
  mesh: PartMesh;
  edges: Float32Array;
  bounds: Bounds;
  solids: number;
  /** Of a drawing: what its depths gave; null for solids, whose notes come with the job. */
  notes: ModelNote[] | null;
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
let partBox: PartBox | undefined;
let recognised: Recognition | null = null;

/** Fetches a job's solid model and makes its picture; `solid` shows one of several. A revision may be named. */
async function open(jobId: string, solid: number | null, revision: number | null = null): Promise<PartPicture> {
  const response = await fetch(`/api/jobs/${jobId}/model${revision === null ? '' : `?revision=${revision}`}`);
  if (!response.ok) throw new Error('The part could not be fetched. Load the page again.');
  model = (await response.json()) as SolidModel;
  recognised = null;
  return show(solid);
}

/** A 2D drawing as a plate of the typed depths: its model and features are made here, each time a depth changes. */
function openDrawing(drawing: Drawing, depths: DrawingDepths): PartPicture {
  model = modelFromDrawing(drawing, depths);
  recognised = recognise(model);
  return { ...show(null), notes: recognised.notes };
}

function show(solid: number | null): PartPicture {
  if (!model) throw new Error('no part is open');
  const whole = model;
  solidShown = solid;
  const mesh = meshModel(whole, (f) => solid === null || f.solid === solid);
  rays = rayCaster(mesh);
  const edges = edgeSegments({ ...whole, edges: whole.edges.filter((e) => solid === null || e.faces.some((f) => whole.faces[f]!.solid === solid)) }).positions;
  bounds = solid === null ? whole.bounds : boundsOf(whole.edges.filter((e) => e.faces.some((f) => whole.faces[f]!.solid === solid)).flatMap((e) => e.points));
  partBox = boxFromPoints(bounds, mesh.positions.slice());
  return { mesh, edges, bounds, solids: whole.solids.length, notes: null };
}

/** What is at a point of a face. */
const look = (face: number, point: Vec3): Look | null => (model ? lookAt(model, face, point) : null);

/** Lengths of edges and their points, for edges chosen by hand. */
function edgeRun(edges: number[]): { points: Vec3[][]; length: number; closed: boolean } {
  const points = edges.flatMap((e) => (model?.edges[e] ? [model.edges[e].points] : []));
  const length = points.reduce((sum, run) => sum + run.slice(1).reduce((n, p, i) => n + distance(p, run[i]!), 0), 0);
  const ends = new Map<string, number>();
  for (const run of points) for (const p of [run[0]!, run[run.length - 1]!]) ends.set(p.map((v) => v.toFixed(3)).join(), (ends.get(p.map((v) => v.toFixed(3)).join()) ?? 0) + 1);
  return { points, length, closed: points.length > 0 && [...ends.values()].every((n) => n === 2) };
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
  /** Features before corrections. */
  recognised: Feature[];
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
  const own = (recognised?.features ?? features).filter((f) => solidShown === null || f.solid === solidShown);
  const produced = produceJob({ features: own, bounds, partBox, plan, library, name, rays });
  return { ...produced, recognised: own, curves: curvesOf(produced.job) };
}

const jobWorker = { open, openDrawing, show, produce, look, edgeRun };
export type JobWorker = typeof jobWorker;
Comlink.expose(jobWorker);
