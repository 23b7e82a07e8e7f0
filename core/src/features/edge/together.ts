import { isAlong } from '../../geometry/vec.ts';
import type { Feature } from '../family.ts';

/** Which of a part's edges are meant with one: those round the same face, those seen from the same side, or every one. */
export const TOGETHER = ['face', 'side', 'all'] as const;
export type Together = (typeof TOGETHER)[number];

const aboveOf = (f: Feature): readonly number[] => ('above' in f ? (f.above ?? []) : []);

/** Whether an edge goes with another of its family in that way. */
export function isTogether(f: Feature, other: Feature, how: Together): boolean {
  if (f.family !== other.family) return false;
  if (how === 'all') return true;
  if (!isAlong(f.axis, other.axis)) return false;
  return (
    how === 'side' || (f.solid === other.solid && aboveOf(f).some((face) => aboveOf(other).includes(face)))
  );
}
