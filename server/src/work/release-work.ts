import { gunzipSync } from 'node:zlib';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing } from '@yellow-pin/core/drawing/to-model';
import type { Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { proveJobMetal, withMetal } from '@yellow-pin/core/job/prove-metal';
import { produceJob } from '@yellow-pin/core/job/produce';
import { edgeSegments, meshModel } from '@yellow-pin/core/model/mesh';
import { boundsOf, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { soundModel } from '@yellow-pin/core/model/sound';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { withAccepted } from '@yellow-pin/core/proof/accepted';
import { releaseFaults, releaseOf } from '@yellow-pin/core/release/release';
import type { ReleaseContent } from '@yellow-pin/core/release/schema';
import { boxFromPoints } from '@yellow-pin/core/setup/setup-frame';
import { Refused, type OnProgress } from './serve.ts';

/** A job to be proved and frozen: its part as it is stored, its plan, the shop's lists. */
export interface ReleaseRequest {
  name: string;
  /** The solid model as gzipped JSON. */
  model: Uint8Array;
  features: Feature[];
  drawing: Drawing | null;
  plan: Plan;
  library: Library;
}

/** Most findings that are told when a release is refused. */
const MOST_TOLD = 3;

/** Plans, writes and proves a job from its text and by its metal, and freezes it; refuses where something is wrong. */
export async function work(
  { name, model: packed, features: stored, drawing, plan, library }: ReleaseRequest,
  progress: OnProgress,
): Promise<ReleaseContent> {
  progress(0.05, 'planning');
  const model =
    drawing && plan.drawing
      ? modelFromDrawing(drawing, plan.drawing)
      : soundModel(JSON.parse(gunzipSync(packed).toString('utf8')) as SolidModel);
  const { solid } = plan;
  const isShown = (faces: readonly number[]): boolean =>
    solid === null || faces.some((f) => model.faces[f]?.solid === solid);
  const shown = { ...model, edges: model.edges.filter((e) => isShown(e.faces)) };
  const mesh = meshModel(model, (f) => solid === null || f.solid === solid);
  const all = drawing ? recognise(model, { mesh }).features : stored;
  const bounds = solid === null ? model.bounds : boundsOf(shown.edges.flatMap((e) => e.points));
  const input = {
    features: all.filter((f) => solid === null || f.solid === solid),
    bounds,
    partBox: boxFromPoints(bounds, mesh.positions),
    plan,
    library,
    name,
    mesh,
  };
  const { job, programs, checks: read } = produceJob(input);
  progress(0.3, 'taking metal off');
  const steps = proveJobMetal(input, { job, programs, faces: model.faces });
  for (;;) {
    const next = steps.next();
    if (!next.done) {
      progress(0.3 + 0.65 * next.value.done, 'taking metal off');
      // What is told is sent while this waits.
      await new Promise((resolve) => setImmediate(resolve));
      continue;
    }
    const checks = withAccepted(withMetal(read, next.value.checks), plan.accepted);
    const faults = releaseFaults({ programs, checks });
    if (faults.length > 0)
      throw new Refused(
        'not-proved',
        `It is not released, since something is wrong: ${faults.slice(0, MOST_TOLD).join(' ')}${faults.length > MOST_TOLD ? ` And ${faults.length - MOST_TOLD} more.` : ''} Mend it, or accept it with a reason.`,
      );
    progress(0.97, 'drawing the floor sheets');
    return releaseOf({ name, plan, job, programs, mesh, edges: edgeSegments(shown), checks });
  }
}
