import { first } from '../../lists.ts';
import { roundingRadius } from '../../tools/find.ts';
import type { FormCut } from '../edges/made.ts';
import { EDGE_CHOICES, planEdges } from '../edges/planned.ts';
import type { KindContext, OperationKind, PlanResult } from '../kind.ts';

/** The largest radius that is cut in one pass, mm. */
const PER_PASS = 1.5;
/** Passes at the most: nobody means more. */
const MOST_PASSES = 20;

/** Rounds an edge with a form cutter of its own radius (handbook, Edges; N84). */
export const edgeRoundKind: OperationKind = {
  kind: 'edge-round',
  cuts: ['edges'],
  label: 'edge rounding',
  toolKinds: ['corner-rounding-cutter'],
  rank: 9,
  makesEdges: ['round'],
  numbers: { perPass: 'radius a pass', pastStart: 'past its start', pastEnd: 'past its end' },
  choices: EDGE_CHOICES,
  plan: planEdgeRound,
};

function planEdgeRound(c: KindContext): PlanResult {
  const { profile } = first(c.edges).shape;
  if (profile.kind !== 'round') return { missing: 'It is no rounded edge.' };
  const { radius } = profile;
  return planEdges(c, {
    mayRoll: false,
    ask: (parameters) => {
      parameters.derived('radius', 'radius', radius, 'in the model', 'model');
      const perPass = Math.max(0.02, parameters.length('perPass', 'radius a pass', PER_PASS, 'method'));
      return {
        need: { kind: 'corner-rounding-cutter', profileRadius: radius },
        cutsOf: (tool) => [standing(tool.diameter, roundingRadius(tool), perPass)],
      };
    },
    show: (parameters, tool, _, { drop }) => {
      parameters.derived('pilot', 'pilot', tool.tipDiameter, 'beside the wall below', 'table');
      parameters.derived('depth', 'tip below the edge', drop, 'its radius');
    },
  });
}

/**
 * The hollow of the cutter lies on the round: its tip as deep as the radius, its axis as far beside the upper edge as the cutter is wide. Each
 * pass before the last stands higher.
 */
function standing(diameter: number, radius: number, perPass: number): FormCut {
  const n = Math.min(MOST_PASSES, Math.max(1, Math.ceil(radius / perPass - 1e-9)));
  return {
    contacts: Array.from({ length: n }, (_, i) => ({
      deep: radius * Math.sqrt((i + 1) / n),
      offset: diameter / 2,
      radius: diameter / 2,
    })),
    inset: 0,
    drop: radius,
    slope: 1,
    straight: null,
  };
}
