import { coneOf, rimAt, tipForRim } from '../../tools/cone.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { rimLevel, type HoleView } from '../hole-view.ts';
import { mainDiameter } from '../drill/index.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** A start for the drill: the cone's rim as a share of its diameter. */
const SHARE = 0.5;
/** A centre drill's cone is used to this share of its body. */
const USABLE = 0.9;

/** Starts a drill with a centre drill: its pilot goes in, its cone leads what follows. */
export const centreKind: OperationKind = {
  kind: 'centre',
  cuts: ['holes'],
  label: 'centre',
  toolKinds: ['centre-drill'],
  rank: 0,
  numbers: { rim: 'rim diameter', dwell: 'dwell, s' },
  plan: planCentre,
};

function planCentre(c: KindContext): PlanResult {
  const holes = c.holes.filter((h) => !h.isGuided);
  const [hole] = holes;
  if (!hole) return { none: 'The hole above it on the same axis leads the drill: it is not centred.' };
  const diameter = mainDiameter(c, hole);
  if (diameter === null) return { missing: 'The hole has no straight part to drill.' };
  const parameters = new Parameters(c);
  const rim = parameters.length('rim', 'rim diameter', SHARE * diameter, 'method', `${SHARE} of the drill`);
  // The pilot stays inside what is drilled, and its point above a floor.
  const usable = c.tools.filter(
    (t) =>
      t.kind === 'centre-drill' &&
      coneOf(t).diameter <= rim + 1e-6 &&
      rim <= USABLE * t.diameter &&
      holes.every((h) => h.through || tipForRim(t, rim) < h.depth),
  );
  if (usable.length === 0)
    return {
      missing: `No centre drill leaves a rim of ⌀${c.say(rim)}.`,
      need: { kind: 'centre-drill', minDiameter: rim / USABLE },
    };
  const tipOf = (t: Tool, h: HoleView): number => rimLevel(h) + tipForRim(t, rim);
  const found = chooseTool(
    { ...c, tools: usable },
    { kind: 'centre-drill' },
    (t, h): Cut => ({
      tip: tipOf(t, h),
      allowed: { radius: Math.max(rim, rimAt(t, tipOf(t, h))) / 2 + 0.05 },
    }),
    holes,
  );
  if ('missing' in found) return found;
  const { tool } = found;
  parameters.derived('depth', 'depth at tip', tipOf(tool, hole), `pilot, and cone to ⌀${c.say(rim)}`);
  const numbers = cuttingNumbers(c, parameters, tool, 0);
  const seconds = parameters.seconds('dwell', 'dwell', 0.2, 'method');
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    work: placeHoles({ ...c, holes }, { how: 'dwell', seconds }, (h) => tipOf(tool, h)),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
