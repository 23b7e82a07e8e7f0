import { asTyped, CalloutError, formatCallout, parseCallout } from '../callout/callout.ts';
import type { Feature } from '../features/family.ts';
import type { Remark } from '../operations/kind.ts';
import { LengthError, type LengthUnit } from '../units/length.ts';
import type { Guess } from './row.ts';

/** What the part's own file says of a row's features: callouts that can be taken, in the job's unit, and the rest in its own words. */
export function saidOf(
  features: readonly Feature[],
  units: LengthUnit,
): { guesses: Guess[]; remarks: Remark[] } {
  const count = new Map<string, { callout: string | null; times: number }>();
  for (const { said = [] } of features)
    for (const { text, unit } of said) {
      const callout = calloutIn(text, unit, units);
      const key = callout ?? text;
      count.set(key, { callout, times: (count.get(key)?.times ?? 0) + 1 });
    }
  const guesses: Guess[] = [];
  const remarks: Remark[] = [];
  for (const [text, { callout, times }] of count) {
    // Of some of a size only: which of them is another is for the programmer to part.
    const isOfAll = times === features.length;
    if (callout !== null && isOfAll) guesses.push({ kind: 'said', callout });
    else
      remarks.push({
        rule: 'said-in-the-file',
        severity: 'note',
        message: `The part’s file says${isOfAll ? '' : ` of ${times} of these ${features.length}`}: ${text}.${callout === null ? '' : ' Part them into rows of their own, and take it there.'}`,
      });
  }
  return { guesses, remarks };
}

/** A text as a callout in the job's unit; null where it is none. */
function calloutIn(text: string, from: LengthUnit, to: LengthUnit): string | null {
  try {
    const callout = parseCallout(text, from);
    return callout.thread || callout.diameter !== undefined ? asTyped(formatCallout(callout, to)) : null;
  } catch (error) {
    if (error instanceof CalloutError || error instanceof LengthError) return null;
    throw error;
  }
}
