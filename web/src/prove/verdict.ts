import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { Produced } from '../job/produced.ts';
import type { MetalWord } from './use-metal.ts';

/** `nothing`: there is no program; `open`: rows are not made; `wrong`: errors were found; `proved`: neither. */
export type ProofState = 'nothing' | 'open' | 'wrong' | 'proved';

/**
 * Whether a job's programs may be sent, in one line. Proved says that the text was understood whole, that every check of depths, ways, order
 * and holding passed, and that the metal which comes off leaves the part; as long as the metal is not known, nothing is proved (`state` null).
 * Null while the code is read back.
 */
export function verdict(
  { job, programs, checks }: Pick<Produced, 'job' | 'programs'> & { checks: readonly Check[] | null },
  metal: MetalWord,
): { state: ProofState | null; text: string } | null {
  if (!checks) return null;
  const errors = checks.filter((c) => c.severity === 'error').length;
  const warnings = checks.filter((c) => c.severity === 'warning').length;
  const open = job.rows.filter((r) => r.notMade !== null).length;
  const look = warnings > 0 ? ` ${warnings} to look at.` : '';
  if (errors > 0)
    return {
      state: 'wrong',
      text: `Not to be sent: ${errors === 1 ? 'one thing is' : `${errors} things are`} wrong.${look}`,
    };
  if (programs.length === 0)
    return { state: 'nothing', text: `There is no program yet: no row is planned.${look}` };
  if (metal !== 'known')
    return {
      state: null,
      text:
        metal === 'under way'
          ? `Nothing wrong in the text; the metal is being taken off …${look}`
          : `Nothing wrong in the text; the metal could not be taken off, so it is not proved. Load the page again.${look}`,
    };
  if (open > 0)
    return {
      state: 'open',
      text: `What is in the programs is in order; ${open === 1 ? 'one row is' : `${open} rows are`} not made.${look}`,
    };
  return {
    state: 'proved',
    text: `Read back and checked, every row made or left out: nothing wrong was found.${look}`,
  };
}
