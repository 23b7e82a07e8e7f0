import { proveJobMetal, withMetal } from '@yellow-pin/core/job/prove-metal';
import { produceJob } from '@yellow-pin/core/job/produce';
import { withAccepted } from '@yellow-pin/core/proof/accepted';
import { releaseFaults, releaseOf } from '@yellow-pin/core/release/release';
import type { ReleaseContent } from '@yellow-pin/core/release/schema';
import { planInput, type StoredJob } from './plan-input.ts';
import { Refused, type OnProgress } from './serve.ts';

/** Most findings that are told when a release is refused. */
const MOST_TOLD = 3;

/** Plans, writes and proves a job from its text and by its metal, and freezes it; refuses where something is wrong. */
export async function work(stored: StoredJob, progress: OnProgress): Promise<ReleaseContent> {
  progress(0.05, 'planning');
  const { input, mesh, edges, faces } = planInput(stored);
  const { name, plan } = stored;
  const { job, programs, checks: read } = produceJob(input);
  progress(0.3, 'taking metal off');
  const steps = proveJobMetal(input, { job, programs, faces });
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
    return releaseOf({ name, plan, job, programs, mesh, edges, checks });
  }
}
