import { createContext, useContext, type RefObject } from 'react';
import type * as Comlink from 'comlink';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { Setup } from '@yellow-pin/core/setup/setup';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { OpenJob } from '../api.ts';
import type { JobWorker, PartPicture } from '../workers/job.worker.ts';
import type { ScreenProgram } from '../workers/produce-steps.ts';
import type { MetalWord } from '../prove/use-metal.ts';
import type { Produced } from './produced.ts';

/** One loaded job, shared by all its places. */
export interface JobView {
  id: string;
  open: OpenJob;
  plan: Plan;
  library: Library;
  /** The setup that is shown, as decided. */
  setup: Setup;
  /** The same with its frame, as soon as the part is drawn; its operations once they are worked out. */
  here: DerivedSetup | null;
  picture: PartPicture | null;
  produced: Produced | null;
  rows: Row[];
  /** What text and metal were found to do, the text's alone as long as the metal is not known; empty while the code is read back. */
  checks: readonly Check[];
  metal: MetalWord;
  /** The shown setup's program; null where none of its rows is planned. */
  program: ScreenProgram | null;
  remote: RefObject<Comlink.Remote<JobWorker> | null>;
}

export const JobContext = createContext<JobView | null>(null);

/** The job that is open. */
export function useJob(): JobView {
  const job = useContext(JobContext);
  if (!job) throw new Error('no job is open here');
  return job;
}
