import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { Setup } from '@yellow-pin/core/setup/setup';

/**
 * The setup that is shown: the one asked for, else the first with something to make, else the first with rows that wait for a decision,
 * else the first.
 */
export function setupToShow(
  setups: readonly Setup[],
  wanted: string | null,
  job: DerivedJob | null,
): Setup | null {
  const named = setups.find((s) => s.id === wanted);
  if (named) return named;
  const made = job?.setups.find((s) => s.operations.length > 0)?.setup.id;
  const waiting = job?.rows.find((r) => r.state === 'open' && r.setupId !== null)?.setupId;
  const id = made ?? waiting;
  return setups.find((s) => s.id === id) ?? setups[0] ?? null;
}
