import { first } from '../../lists.ts';
import { pointLength, tipDepthForFullDiameter } from '../../cutting/depths.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool } from '../choose-tool.ts';
import { LONG_FROM, mainBreakThrough, mainDepth, mainDiameter } from '../drill/index.ts';
import type { HoleView } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import { PECK_BY, peckDepth } from '../drill/peck.ts';

/** Solid drilling above this diameter wants a pilot, mm. */
const LARGE_FROM = 13;
/** A pilot for a large drill: about its web, no more than half of it, and no longer than this many of its own diameters. */
const WEB_SHARE = 0.2;
const MOST_SHARE = 0.6;
const PILOT_RATIO = 6;
/** A pilot for a long drill goes this many diameters deep. */
const STUB_DEPTH = 2;

/** A smaller hole before a large drill, or a short straight start of the same size before a long one. */
export const pilotKind: OperationKind = {
  kind: 'pilot',
  cuts: ['holes'],
  label: 'pilot',
  toolKinds: ['drill'],
  rank: 0.5,
  numbers: { peck: 'peck', peckShare: 'peck, share of ⌀', peckCount: 'pecks' },
  choices: { peckBy: PECK_BY },
  plan: planPilot,
};

function planPilot(c: KindContext): PlanResult {
  const hole = first(c.holes);
  const diameter = mainDiameter(c, hole);
  if (diameter === null) return { none: null };
  const depth = Math.max(...c.holes.map((h) => mainDepth(c, h)));
  if (depth / diameter > LONG_FROM) return planStub(c, diameter);
  return diameter > LARGE_FROM ? planWeb(c, diameter, depth) : { none: null };
}

/** The same diameter, two diameters deep, by a drill shorter than the one that follows. */
function planStub(c: KindContext, diameter: number): PlanResult {
  const tip = (t: Tool): number => tipDepthForFullDiameter(STUB_DEPTH * diameter, t.diameter, point(t));
  const longest = Math.max(...c.holes.map((h) => h.metalZ - h.entryZ + mainDepth(c, h)));
  const stubs = c.tools.filter((t) => t.kind === 'drill' && t.fluteLength < longest);
  const found = chooseTool({ ...c, tools: stubs }, { kind: 'drill', diameter }, (t) => ({
    tip: tip(t),
    flutes: STUB_DEPTH * diameter,
    allowed: { radius: t.diameter / 2 + 0.05 },
  }));
  if ('missing' in found)
    return {
      none: `A hole of ${c.say(longest)} at ⌀${c.say(diameter)} wants a short drill of that size first, and none fits: the long one enters slowly.`,
    };
  return pilotWith(c, found.tool, STUB_DEPTH * diameter, (t) => tip(t), 'two diameters deep');
}

/** About the web of the large drill, as deep as that drill's point allows. */
function planWeb(c: KindContext, diameter: number, depth: number): PlanResult {
  const least = Math.max(WEB_SHARE * diameter, depth / PILOT_RATIO);
  // It must end above the large drill's own point: what it took below would stay.
  const below = (h: HoleView, t: Tool): number =>
    h.through
      ? mainDepth(c, h) + mainBreakThrough(c) + pointLength(t.diameter, point(t))
      : Math.max(0.5, mainDepth(c, h) - (h.bottom.shape === 'cone' ? 0 : pointLength(diameter, USUAL_POINT)));
  const found = chooseTool(
    c,
    { kind: 'drill', minDiameter: least, maxDiameter: MOST_SHARE * diameter },
    (t, h) => ({ tip: below(h, t), allowed: { radius: t.diameter / 2 + 0.05 } }),
  );
  if ('missing' in found)
    return {
      none: `⌀${c.say(diameter)} from the solid wants a pilot of about ⌀${c.say(least)}, and no drill for it gets there: drill it slowly.`,
    };
  const planned = pilotWith(c, found.tool, depth, (t, h) => below(h, t), `about the large drill's web`);
  // Any drill between web and half will do: one that is in the program already saves a tool.
  return 'tool' in planned
    ? { ...planned, alternatives: [found.tool, ...found.others].map((t) => t.id) }
    : planned;
}

function pilotWith(
  c: KindContext,
  tool: Tool,
  depth: number,
  tipOf: (t: Tool, h: HoleView) => number,
  relation: string,
): PlanResult {
  const parameters = new Parameters(c);
  const pecks = depth / tool.diameter > c.material.pecking.chipBreakFrom;
  const travel = Math.max(...c.holes.map((h) => tipOf(tool, h) + c.setup.retract));
  const peck = pecks ? peckDepth(parameters, { diameter: tool.diameter, travel, share: 1 }) : undefined;
  parameters.derived('tip', 'tip below entry', tipOf(tool, first(c.holes)), relation);
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    work: placeHoles(c, peck === undefined ? { how: 'straight' } : { how: 'full-retract', peck }, (h) =>
      tipOf(tool, h),
    ),
    parameters: parameters.list,
    remarks: numbers.remarks,
  };
}

const point = (t: Tool): number => t.pointAngleDeg ?? USUAL_POINT;
