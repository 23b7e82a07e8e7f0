import { useEffect, useRef } from 'react';
import { api } from '../api.ts';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { verdict } from '../prove/verdict.ts';
import type { MetalWord } from '../prove/use-metal.ts';
import type { SaveState } from './autosave.ts';
import type { Produced } from './produced.ts';
import { storedRevision } from './use-job.ts';

/**
 * Tells the server how far a stored plan is, for the list of jobs: features planned, and what proving said. It is worked out here, since the
 * server works no plan out; a plan that was changed since is not spoken of.
 */
export function useSummary(
  id: string,
  produced: Produced | null,
  { checks, metal }: { checks: readonly Check[] | null; metal: MetalWord },
  save: SaveState,
): void {
  const told = useRef<string | null>(null);
  useEffect(() => {
    const said =
      produced && verdict({ ...produced, checks: produced.checks && (checks ?? produced.checks) }, metal);
    if (!produced?.of || !said?.state || save.state !== 'saved') return;
    const revision = storedRevision(id, produced.of);
    if (revision === null) return;
    const { planned, total } = produced.job.coverage;
    const summary = { revision, planned, total, proof: said.state };
    const key = JSON.stringify([id, summary]);
    if (told.current === key) return;
    told.current = key;
    // Only the list's figures hang on it: the next visit tells it again.
    api.summary(id, summary).catch(() => (told.current = null));
  }, [id, produced, checks, metal, save.state]);
}
