import { first } from '../../lists.ts';
import { roundingRadius } from '../../tools/find.ts';
import type { FormCut } from '../edges/made.ts';
import { EDGE_CHOICES, passShares, planEdges } from '../edges/planned.ts';
import type { KindContext, OperationKind, PlanResult } from '../kind.ts';

/** The largest radius that is cut in one pass, mm. */
const PER_PASS = 1.5;

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
    show: (parameters, tool, { drop }) => {
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
  return {
    contacts: passShares(radius, perPass).map((share) => ({
      deep: radius * share,
      offset: diameter / 2,
      radius: diameter / 2,
    })),
    inset: 0,
    drop: radius,
    slope: 1,
    straight: null,
  };
}
