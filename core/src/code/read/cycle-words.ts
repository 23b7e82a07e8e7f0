import { at } from '../../lists.ts';
import { cycleMeaning } from '../cycles.ts';
import { has, K, L } from './words.ts';

/** More pecks than this in one hole are a slip of the decimal point. */
const MOST_PECKS = 5000;
/** More repeats of one cycle line than this are a slip. */
const MOST_REPEATS = 5000;

/** How often a cycle line is run, by K or L; what stands against it in words. */
export function repeatsOf(words: Float64Array): number | string {
  const repeats = has(words, L) ? at(words, L) : has(words, K) ? at(words, K) : 1;
  if (repeats < 0 || !Number.isInteger(repeats)) return `${repeats} is no number of repeats`;
  return repeats > MOST_REPEATS ? `the cycle is repeated ${repeats} times` : repeats;
}

/** The word that a cycle needs and does not have; null where it has all. */
export function missingWord(
  cycle: number,
  s: { z?: number; r?: number; q?: number },
): { rule: string; text: string } | null {
  const how = cycleMeaning(`G${cycle}`)?.how;
  const pecks = how === 'full-retract' || how === 'chip-break';
  if (s.r === undefined) return { rule: 'missing-r', text: `G${cycle} has no R level` };
  if (s.z === undefined) return { rule: 'missing-z', text: `G${cycle} has no depth Z` };
  if (pecks && !(s.q !== undefined && s.q > 0))
    return { rule: 'missing-peck', text: `G${cycle} pecks and has no peck depth Q` };
  if ((pecks || how === 'tap') && s.q !== undefined && s.q > 0 && (s.r - s.z) / s.q > MOST_PECKS)
    return {
      rule: 'too-many-pecks',
      text: `G${cycle} with Q ${s.q} would take more than ${MOST_PECKS} pecks`,
    };
  return s.z > s.r ? { rule: 'depth-above-r', text: 'the depth Z lies above the R level' } : null;
}
