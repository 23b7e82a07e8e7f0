import { asTyped, formatCallout, type Callout } from '../callout/callout.ts';
import { calloutSaid } from '../callout/said.ts';
import type { Feature } from '../features/family.ts';
import type { Remark } from '../operations/kind.ts';
import type { LengthUnit } from '../units/length.ts';
import type { Guess } from './row.ts';

/** What the part's own file says of a row's features: callouts that the row takes, in the job's unit, and the rest in its own words. */
export function saidOf(
  features: readonly Feature[],
  units: LengthUnit,
  takes: (callout: Callout) => boolean,
): { guesses: Guess[]; remarks: Remark[] } {
  const callouts = new Set<string>();
  const others = new Map<string, number>();
  for (const { said = [] } of features)
    for (const s of said) {
      const callout = calloutSaid(s);
      // Features of other callouts are in rows of their own: what is said of one is said of all.
      if (callout && takes(callout)) callouts.add(asTyped(formatCallout(callout, units)));
      else others.set(s.text, (others.get(s.text) ?? 0) + 1);
    }
  const n = features.length;
  return {
    guesses: [...callouts].map((callout) => ({ kind: 'said', callout })),
    remarks: [...others].map(([text, times]) => ({
      rule: 'said-in-the-file',
      severity: 'note',
      message: `The part’s file says${times === n ? '' : ` of ${times} of these ${n}`}: ${text}.`,
    })),
  };
}
