import type { Produced } from '../job/produced.ts';

/** `nothing`: there is no program; `open`: rows are not made; `wrong`: errors were found; `proved`: neither. */
export type ProofState = 'nothing' | 'open' | 'wrong' | 'proved';

/**
 * Whether a job's programs may be sent, in one line. Proved says what is proved by now: that the text was understood whole and every check
 * of depths, ways, order and holding passed; the metal that comes off is told beside it. Null while the code is read back.
 */
export function verdict({
  job,
  programs,
  checks,
}: Pick<Produced, 'job' | 'programs' | 'checks'>): { state: ProofState; text: string } | null {
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
