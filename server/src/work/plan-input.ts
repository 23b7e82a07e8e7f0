import { gunzipSync } from 'node:zlib';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing } from '@yellow-pin/core/drawing/to-model';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import type { ProduceInput } from '@yellow-pin/core/job/produce';
import { edgeSegments, meshModel, type PartMesh } from '@yellow-pin/core/model/mesh';
import { boundsOf, type Face, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { soundModel } from '@yellow-pin/core/model/sound';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import type { EdgePieces } from '@yellow-pin/core/sheet/views';

/** A job as it is stored: its part, its plan, the shop's lists. */
export interface StoredJob {
  name: string;
  /** The solid model as gzipped JSON. */
  model: Uint8Array;
  features: Feature[];
  drawing: Drawing | null;
  plan: Plan;
  library: Library;
}

/** What a stored job is planned, drawn and proved from; of several solids the one that its plan names. */
export function planInput(job: StoredJob): {
  input: ProduceInput;
  mesh: PartMesh;
  edges: EdgePieces;
  faces: readonly Face[];
} {
  const { name, drawing, plan, library } = job;
  const model =
    drawing && plan.drawing
      ? modelFromDrawing(drawing, plan.drawing)
      : soundModel(JSON.parse(gunzipSync(job.model).toString('utf8')) as SolidModel);
  const { solid } = plan;
  const isShown = (faces: readonly number[]): boolean =>
    solid === null || faces.some((f) => model.faces[f]?.solid === solid);
  const shown = { ...model, edges: model.edges.filter((e) => isShown(e.faces)) };
  const mesh = meshModel(model, (f) => solid === null || f.solid === solid);
  const all = drawing ? recognise(model, { mesh }).features : job.features;
  const bounds = solid === null ? model.bounds : boundsOf(shown.edges.flatMap((e) => e.points));
  return {
    input: {
      features: all.filter((f) => solid === null || f.solid === solid),
      bounds,
      partBox: boxFromPoints(bounds, mesh.positions),
      plan,
      library,
      name,
      mesh,
    },
    mesh,
    edges: edgeSegments(shown),
    faces: model.faces,
  };
}
