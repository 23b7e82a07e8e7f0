import { first, last } from '../../lists.ts';
import type { Tool } from '../../tools/schema.ts';
import type { EdgeView } from '../edge-view.ts';
import {
  acrossOf,
  clearances,
  contactOf,
  dropOf,
  flankOf,
  LEAST_CLEARANCE,
  mostClearance,
  type Flank,
} from '../edges/flank.ts';
import type { FormCut } from '../edges/made.ts';
import { EDGE_CHOICES, passShares, planEdges, saidLength, USUAL_WIDTH } from '../edges/planned.ts';
import type { KindContext, OperationKind, Parameters, PlanResult } from '../kind.ts';

/** The widest chamfer that is cut in one pass, mm. */
const PER_PASS = 1;
/** Of a sharp edge's break: as usual, or as the cutter has it. */
const SLOPES = ['45°', 'by the tool'] as const;
const MEASURED = ['across the top', 'along the slope'] as const;
/** A flank of another angle than the model's chamfer is refused, degrees. */
const SAME_ANGLE = 0.1;

/** Breaks an edge with a cutter's flank, or cuts the chamfer that the model has (handbook, Edges). */
export const edgeMillKind: OperationKind = {
  kind: 'edge-mill',
  cuts: ['edges'],
  label: 'edge break',
  toolKinds: ['chamfer-mill'],
  rank: 9,
  makesEdges: ['sharp', 'chamfer'],
  numbers: {
    width: 'width',
    clearance: 'tip below the chamfer',
    perPass: 'width a pass',
    pastStart: 'past its start',
    pastEnd: 'past its end',
  },
  choices: { measured: MEASURED, slope: SLOPES, ...EDGE_CHOICES },
  plan: planEdgeMill,
};

/** The included angle of the cutter for a chamfer of the model, degrees; null for a sharp edge: any will do. */
function angleOf({ shape: { profile } }: EdgeView): number | null {
  return profile.kind === 'chamfer' ? (2 * Math.atan2(profile.width, profile.drop) * 180) / Math.PI : null;
}

function planEdgeMill(c: KindContext): PlanResult {
  const view = first(c.edges);
  const angle = angleOf(view);
  return planEdges(c, {
    mayRoll: angle === null,
    ask: (parameters) => {
      const width = askWidth(c, parameters, view);
      const clearance = saidLength(c, 'clearance');
      const perPass = Math.max(0.02, parameters.length('perPass', 'width a pass', PER_PASS, 'method'));
      const flank =
        angle !== null
          ? angle
          : parameters.choice('slope', 'slope', SLOPES, '45°', 'method') === '45°'
            ? 90
            : null;
      return {
        need: {
          kind: 'chamfer-mill',
          ...(flank === null ? {} : { angleDeg: Math.round(100 * flank) / 100 }),
        },
        cutsOf: (tool, v) => cutsOf(c, tool, v, { width: width(tool), clearance, perPass }),
      };
    },
    show: (parameters, tool, form) => {
      const flank = flankOf(tool);
      const { deep } = last(form.contacts);
      parameters.length(
        'clearance',
        'tip below the chamfer',
        deep - form.drop,
        'method',
        `${c.say(LEAST_CLEARANCE)} to ${c.say(mostClearance(flank, form.drop))}`,
      );
      parameters.derived(
        'drop',
        'chamfer height',
        form.drop,
        `at ${+(flank.angleDeg / 2).toFixed(2)}° to the axis`,
      );
      parameters.derived('depth', 'tip below the edge', deep, 'chamfer and tip clearance');
    },
  });
}

/** Asks for the width of a sharp edge's break, or shows that of the model's chamfer; across the top by the tool's angle. */
function askWidth(
  c: KindContext,
  parameters: Parameters,
  { shape: { profile } }: EdgeView,
): (tool: Tool) => number {
  if (profile.kind === 'chamfer') {
    parameters.derived('width', 'width', profile.width, 'across the top, in the model', 'model');
    return () => profile.width;
  }
  const measured = parameters.choice('measured', 'measured', MEASURED, 'across the top', 'method');
  const width = parameters.length(
    'width',
    'width',
    c.edgeBreak ?? USUAL_WIDTH,
    'method',
    c.edgeBreak === null ? measured : `${measured}, for the whole job`,
  );
  return measured === 'across the top' ? () => width : (tool) => acrossOf(width, flankOf(tool).slope);
}

interface Asked {
  width: number;
  /** Null: as there is room. */
  clearance: number | null;
  perPass: number;
}

/** How a cutter's flank may stand on an edge, best first; or why it leaves no chamfer there. */
function cutsOf(
  c: KindContext,
  tool: Tool,
  v: EdgeView,
  { width, clearance, perPass }: Asked,
): FormCut[] | { missing: string } {
  const { profile, lean } = v.shape;
  const flank = flankOf(tool);
  if (!(width > 0)) return { missing: 'its width is nothing: type how wide it is to be.' };
  const drop = profile.kind === 'chamfer' ? profile.drop : dropOf(width, flank.slope, lean);
  const angle = angleOf(v);
  if (angle !== null && Math.abs(angle - flank.angleDeg) > SAME_ANGLE)
    return {
      missing: `${tool.description} has a flank of ${+(flank.angleDeg / 2).toFixed(2)}° to its axis, and the chamfer ${+(angle / 2).toFixed(2)}°. Add a cutter of ${+angle.toFixed(1)}°.`,
    };
  if (drop === Infinity)
    return {
      missing: `the wall below leans ${+lean.toFixed(1)}° outward, and the flank of ${tool.description} only ${+(flank.angleDeg / 2).toFixed(1)}°: it would leave no chamfer. Take a cutter with a wider angle.`,
    };
  const most = mostClearance(flank, drop);
  if (most < LEAST_CLEARANCE || (clearance !== null && clearance > most + 1e-9))
    return { missing: noChamfer(c, tool, flank, drop, most, clearance) };
  const tried = clearance === null ? clearances(flank, drop) : [Math.max(0, clearance)];
  const inset = profile.kind === 'sharp' ? width : 0;
  return tried.map((clear): FormCut => {
    const contact = contactOf(flank, { inset, drop }, clear);
    return {
      contacts: passShares(width, perPass).map((share) => ({
        ...contact,
        deep: contact.deep - ((1 - share) * width) / flank.slope,
      })),
      inset,
      drop,
      slope: flank.slope,
      straight: (rim) => straightOn(c, tool, flank, rim + inset, drop),
    };
  });
}

/** That a flank is too short for a chamfer with its tip so far below it, with what would do (N82). */
function noChamfer(
  c: KindContext,
  tool: Tool,
  flank: Flank,
  drop: number,
  most: number,
  clearance: number | null,
): string {
  const is = `the flank of ${tool.description} is ${c.say(flank.height)} high, and the chamfer takes ${c.say(drop)} of it`;
  return most >= LEAST_CLEARANCE
    ? `a tip clearance of ${c.say(clearance ?? 0)} would leave no chamfer: ${is}. Use ${c.say(Math.floor(20 * most) / 20)} at the most, or a cutter with a smaller tip.`
    : `${is}: too little. Take a wider cutter, or one with a smaller tip.`;
}

/** How deep the tip goes where the cutter comes straight down on a round rim to leave it so wide (radius, mm); or why it cannot. */
function straightOn(c: KindContext, tool: Tool, flank: Flank, wide: number, drop: number): number | string {
  const deep = (wide - flank.tip) / flank.slope;
  if (deep < drop + LEAST_CLEARANCE)
    return `the tip of ${tool.description} (⌀${c.say(2 * flank.tip)}) does not go into it. Take a cutter with a smaller tip.`;
  return deep - drop <= mostClearance(flank, drop)
    ? deep
    : `${tool.description} is neither wide enough to break it straight down nor narrow enough to be led round in it.`;
}
