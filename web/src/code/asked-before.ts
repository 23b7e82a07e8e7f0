import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import type { Check } from '@yellow-pin/core/proof/checks/check';

/** What must be said before programs are given out: errors found in them, by row, and nothing else. */
export function askedBefore(programs: readonly WrittenSetup[], checks: readonly Check[]): string[] {
  const ids = new Set(programs.map((p) => p.setup.setup.id));
  return checks
    .filter((c) => c.severity === 'error' && (c.setupId === undefined || ids.has(c.setupId)))
    .map((c) => `${c.tag ? `${c.tag}: ` : ''}${c.message}`);
}
