import type { AreaShape } from '../../features/area/shape.ts';
import type { Vec2 } from '../../geometry/path.ts';
import { first } from '../../lists.ts';
import { wallsOf } from '../areas/walls.ts';
import { DRILLED_NUMBERS, planDrilled, type Cavity } from '../entry-hole/drilled.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** How much less than the corner's radius a hole's own is, mm, so that the mill finishes the whole corner. */
const WITHIN = 0.3;
/** A narrower hole takes little out of a corner, of the corner's diameter. */
const LEAST_SHARE = 0.6;

/** Drills the inside corners of a pocket or step before it is milled, so that its mill has little left to cut there (handbook, N50). */
export const cornerHoleKind: OperationKind = {
  kind: 'corner-hole',
  cuts: ['areas'],
  label: 'corner holes',
  toolKinds: ['drill'],
  rank: 1,
  numbers: { within: 'within the corner by', ...DRILLED_NUMBERS },
  plan,
};

function plan(c: KindContext): PlanResult {
  const view = first(c.areas);
  const corners = cornersOf(view.shape);
  if (corners.length === 0)
    return {
      missing: `${view.label} has no round inside corners: what is drilled past a sharp one is not in the model.`,
    };
  const parameters = new Parameters(c);
  const within = Math.max(0, parameters.length('within', 'within the corner by', WITHIN, 'method'));
  const narrowest = Math.min(...corners.map((k) => k.radius));
  const cavities = c.areas.map((v): Cavity => {
    const { top, floor } = v.shape;
    return { view: v, label: v.label, places: cornersOf(v.shape).map((k) => k.centre), top, floor };
  });
  return planDrilled(c, parameters, cavities, {
    through: view.shape.through,
    least: 2 * LEAST_SHARE * narrowest,
    most: 2 * (narrowest - within),
  });
}

/** Quarter circles and more that turn towards the air, as a rule. */
const LEAST_TURN = 0.35 * Math.PI;

/** Centres of the round inside corners of an area's walls. */
function cornersOf(shape: AreaShape): { centre: Vec2; radius: number }[] {
  return wallsOf(shape).flatMap(({ walls }) =>
    walls.flatMap((s) =>
      s.kind === 'arc' && s.turn > LEAST_TURN && s.turn < Math.PI - 1e-6
        ? [{ centre: [s.centre[0], s.centre[1]] as Vec2, radius: s.radius }]
        : [],
    ),
  );
}
