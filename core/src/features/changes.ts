import { along, type Vec3 } from '../geometry/vec.ts';
import type { CurvePiece } from './base.ts';
import type { FamilyChanges, Feature } from './family.ts';
import { round, roundVec } from './round.ts';

/** A point raised along an axis, mm. */
export const raised = (p: Vec3, axis: Vec3, by: number): Vec3 => roundVec(along(p, axis, by));

/** An exact piece of a centre line raised along an axis, mm. */
export const raisedPiece = (p: CurvePiece, axis: Vec3, by: number): CurvePiece => ({
  ...p,
  from: raised(p.from, axis, by),
  to: raised(p.to, axis, by),
  ...(p.kind === 'arc' ? { centre: raised(p.centre, axis, by) } : {}),
});

/** What may be changed about a feature with one depth: `lift` raises all that lies at its top. */
export const depthChanges = <F extends Feature & { depth: number }>(
  lift: (feature: F, by: number) => Partial<F>,
): FamilyChanges<F> => ({
  depth: (f) => f.depth,
  moved: (f, raise, depth) => ({ ...f, ...lift(f, raise), depth: round(depth) }),
});
