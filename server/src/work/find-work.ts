import { deriveJob } from '@yellow-pin/core/job/derive';
import { findables, type Findable } from '@yellow-pin/core/job/findable';
import { planInput, type StoredJob } from './plan-input.ts';

/** Plans a stored job and says what can be looked for in it. */
export function work(stored: StoredJob): Promise<Findable[]> {
  return new Promise((resolve) => resolve(findables(deriveJob(planInput(stored).input).rows)));
}
