import type { FitWish } from '../methods/schema.ts';
import { fitLimits, gradeOf } from './fits.ts';
import type { Callout } from './schema.ts';

/** The finest grade of ISO 286-1 that a twist drill is trusted with. */
export const DRILL_GRADE = 11;
/** The grade that reamers are ground to. */
const REAMER_GRADE = 7;

/**
 * How closely a print wants its diameter: as a drill makes it, as a reamer of H7 makes it (its limits hold those of H7), or otherwise
 * close. What is not said, or not known, asks for nothing.
 */
export function fitWish({ diameter, tolerance, wishes = [] }: Callout): FitWish {
  if (diameter === undefined) return 'drilled';
  const { lower, upper } = tolerance ?? {};
  const isToBeReamed = wishes.includes('reamed');
  if (lower === undefined || upper === undefined) return isToBeReamed && !tolerance ? 'reamed' : 'drilled';
  const grade = gradeOf(upper - lower, diameter);
  if (!isToBeReamed && (grade === null || grade >= DRILL_GRADE)) return 'drilled';
  const reamer = fitLimits('H', REAMER_GRADE, diameter);
  const holdsReamer = lower <= 1e-9 && reamer.upper !== undefined && upper >= reamer.upper - 1e-9;
  return holdsReamer ? 'reamed' : 'bored';
}

/** The middle of the print's limits, mm: what a bar is set to. The diameter itself where none are known. */
export function middleOfLimits({ diameter, tolerance }: Callout): number | null {
  if (diameter === undefined) return null;
  const { lower = 0, upper = 0 } = tolerance ?? {};
  return diameter + (lower + upper) / 2;
}
