import { first, last } from '../../lists.ts';
import { coneHeight } from '../../tools/kinds/kind.ts';
import { widestHeight } from '../../tools/kinds/back-chamfer-cutter.ts';
import type { Tool } from '../../tools/schema.ts';
import { dropOf, slopeOf } from '../edges/flank.ts';
import type { FormCut } from '../edges/made.ts';
import { EDGE_CHOICES, planEdges, USUAL_WIDTH } from '../edges/planned.ts';
import { discsAbove } from '../grooves/fit.ts';
import type { KindContext, OperationKind, PlanResult } from '../kind.ts';

/** How far the widest place of the head stays below the edge, and what the neck keeps from the wall, mm. */
const CLEAR = 0.3;
const ROOM = 0.15;
/** An edge is the lowest of the part within this, mm. */
const LOWEST = 0.01;

/** Breaks an edge that looks away from the tool, past a wall: the head of a back chamfer cutter goes along below it. */
export const edgeBehindKind: OperationKind = {
  kind: 'edge-behind',
  cuts: ['edges'],
  label: 'edge break from behind',
  toolKinds: ['back-chamfer-cutter'],
  rank: 9,
  makesEdges: ['behind'],
  numbers: {
    width: 'width',
    clearance: 'head below the edge',
    pastStart: 'past its start',
    pastEnd: 'past its end',
  },
  choices: EDGE_CHOICES,
  plan: planBehind,
};

function planBehind(c: KindContext): PlanResult {
  const { profile } = first(c.edges).shape;
  if (profile.kind !== 'sharp')
    return { missing: 'From behind only sharp edges are broken: make this one in a setup that looks at it.' };
  const low = c.space.setup.part.min[2];
  const raised = c.edges.filter((v) => v.shape.top > low + LOWEST);
  if (raised.length > 0)
    return {
      missing: `${first(raised).label}: below it something of the part stands lower, where the head would go. Make it in a setup that looks at it.`,
      holes: raised.map((v) => v.label),
    };
  return planEdges(c, {
    mayRoll: true,
    ask: (parameters) => {
      const width = parameters.length(
        'width',
        'width',
        c.edgeBreak ?? USUAL_WIDTH,
        'method',
        'across the face below',
      );
      const clear = parameters.length('clearance', 'head below the edge', CLEAR, 'method');
      return {
        need: { kind: 'back-chamfer-cutter', widest: true, angleDeg: 90 },
        cutsOf: (tool) => standing(c, tool, width, clear),
      };
    },
    remarks: (_, { contacts }) => {
      const below = c.say(last(contacts).deep);
      return [
        {
          rule: 'below-the-part',
          severity: 'note',
          message: `The head goes ${below} below the part: parallels and table must be clear of it.`,
          onSheet: `clear below: ${below}`,
        },
      ];
    },
    show: (parameters, _, { contacts }) => {
      parameters.derived('depth', 'tip below the edge', last(contacts).deep, 'head and what it stays below');
    },
  });
}

function standing(c: KindContext, tool: Tool, width: number, clear: number): FormCut[] | { missing: string } {
  const slope = slopeOf(tool.pointAngleDeg ?? 90);
  const [head, neck] = [tool.diameter / 2, (tool.neckDiameter ?? tool.diameter) / 2];
  const radius = head - clear * slope;
  const offset = radius - width;
  const flank = coneHeight(tool.diameter, 2 * neck, tool.pointAngleDeg ?? 90);
  const drop = dropOf(width, slope);
  if (!(width > 0) || drop + clear > flank + 1e-9 || offset < neck + ROOM)
    return {
      missing: `the flank of ${tool.description} is ${c.say(flank)} high: ${c.say(clear)} below the edge and ${c.say(drop)} of chamfer do not go on it beside its neck. Take a smaller clearance, or a cutter with a wider head.`,
    };
  const deep = clear + widestHeight(tool);
  return [
    {
      contacts: [{ deep, offset, radius }],
      inset: width,
      drop,
      slope,
      straight: null,
      discs: discsAbove(c.outline(tool), deep),
    },
  ];
}
