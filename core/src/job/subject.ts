import { fitWish } from '../callout/fit-wish.ts';
import type { MethodSubject } from '../methods/match.ts';
import type { HoleView } from '../operations/hole-view.ts';
import type { Row } from './row.ts';

/** What of a row methods are matched against. */
export const subjectOf = ({ thread, print }: Row, hole: HoleView, materialId: string): MethodSubject => ({
  family: 'hole',
  hole,
  threaded: thread !== null,
  major: thread?.majorDiameter ?? null,
  isToBeMilled: thread !== null && (print.wishes?.includes('milled') ?? false),
  fit: fitWish(print),
  materialId,
});
