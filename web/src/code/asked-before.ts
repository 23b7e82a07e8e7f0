import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import type { MetalWord } from '../prove/use-metal.ts';
import type { Check } from '@yellow-pin/core/proof/checks/check';

const NOT_KNOWN = {
  'under way': 'The metal is being taken off: what it would show is not known yet.',
  unknown: 'The metal could not be taken off: what it would show is not known.',
} as const;

/** What must be said before programs are given out: errors found in them, by row, and nothing else. */
export function askedBefore(
  programs: readonly WrittenSetup[],
  checks: readonly Check[],
  metal: MetalWord,
): string[] {
  const ids = new Set(programs.map((p) => p.setup.setup.id));
  const found = checks
    .filter((c) => c.severity === 'error' && (c.setupId === undefined || ids.has(c.setupId)))
    .map((c) => `${c.tag ? `${c.tag}: ` : ''}${c.message}`);
  return metal === 'known' ? found : [...found, NOT_KNOWN[metal]];
}
