import { fitWish } from '../callout/fit-wish.ts';
import type { MethodSubject } from '../methods/match.ts';
import type { HoleView } from '../operations/hole-view.ts';
import { isAreaFamily, isEdgeFamily, isGrooveFamily } from '../methods/schema.ts';
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

/** The same by what a row's first feature is; null for a row that no method makes. */
export function rowSubject(row: Row, materialId: string): MethodSubject | null {
  const [hole] = row.holes;
  const [groove] = row.grooves;
  if (hole) return subjectOf(row, hole, materialId);
  const [area] = row.areas;
  const { family } = row.size;
  const [edge] = row.edges;
  if (edge && isEdgeFamily(family)) return { family, edge, materialId };
  if (area && isAreaFamily(family)) return { family, area, materialId };
  return groove && isGrooveFamily(family) ? { family, groove, materialId } : null;
}
