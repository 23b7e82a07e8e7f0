import { featureCurves } from '@yellow-pin/core/features/registry';
import type { DerivedJob, Row } from '@yellow-pin/core/job/derive';
import type { ProducedSetup, WrittenSetup } from '@yellow-pin/core/job/produce';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { timeShares, type ToolTime } from '@yellow-pin/core/proof/time';
import { packMotion, type MotionPack } from './motion-pack.ts';

/** What reading a setup's program back gave, as the screens show it. */
export interface ProgramProof {
  motion: MotionPack;
  /** Time of the whole program and of each operation by its id, s. */
  total: number;
  seconds: ReadonlyMap<string, number>;
  /** Where the time goes, tool by tool. */
  times: ToolTime[];
}

/** One setup's program as the screens have it: proved a moment after it is written. */
export interface ScreenProgram extends WrittenSetup {
  proof: ProgramProof | null;
}

/** Lines along features that are shown so, by feature id: pairs of points. Sent once, since nothing of the plan changes them. */
export type Curves = ReadonlyMap<string, Float32Array>;

/** What the worker tells of a plan, in this order. */
export type ScreenStep =
  | { step: 'plan'; job: DerivedJob; curves: Curves }
  | { step: 'code'; programs: WrittenSetup[] }
  | { step: 'proof'; proofs: ReadonlyMap<string, ProgramProof>; checks: Check[] };

/** What is left of a proved program once the screens have what they show of it: motions packed, times summed. */
export function screenProof(
  { setup, read, operations, time }: ProducedSetup,
  machine: MachineProfile,
): ProgramProof {
  const seconds = new Map(
    operations.map((o): [string, number] => {
      let t = 0;
      for (let l = o.firstLine; l <= o.lastLine; l++) t += time.byLine.get(l) ?? 0;
      return [o.id, t];
    }),
  );
  return {
    motion: packMotion(read.motions, setup.frame.frame),
    total: time.total,
    seconds,
    times: timeShares(read, machine),
  };
}

/** Curves of features that were not sent yet. */
export function newCurves(
  rows: readonly Row[],
  model: SolidModel,
  sent: Set<string>,
): Map<string, Float32Array> {
  const out = new Map<string, Float32Array>();
  for (const row of rows) {
    for (const f of row.size.features) {
      if (sent.has(f.id)) continue;
      sent.add(f.id);
      const pairs = featureCurves(f, model).flatMap((points) =>
        points.slice(1).flatMap((p, k) => [...points[k]!, ...p]),
      );
      if (pairs.length > 0) out.set(f.id, new Float32Array(pairs));
    }
  }
  return out;
}
