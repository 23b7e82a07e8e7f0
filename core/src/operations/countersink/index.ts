import { first } from '../../lists.ts';
import { rimAt, tipForRim } from '../../tools/cone.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool } from '../choose-tool.ts';
import { entryCone } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Opens a countersink with a cone tool of its angle. */
export const countersinkKind: OperationKind = {
  kind: 'countersink',
  cuts: ['holes'],
  label: 'countersink',
  toolKinds: ['countersink'],
  rank: 3,
  numbers: { rim: 'rim diameter', dwell: 'dwell, s' },
  plan: planCountersink,
};

function planCountersink(c: KindContext): PlanResult {
  const hole = first(c.holes);
  const cone = c.step?.shape === 'cone' ? c.step : entryCone(hole);
  if (!cone) return { missing: 'The hole has no countersink in the model.' };
  const parameters = new Parameters(c);
  const isPrinted = c.print.countersink !== undefined;
  const rim = parameters.length(
    'rim',
    'rim diameter',
    cone.startDiameter,
    isPrinted ? 'print' : 'model',
    isPrinted ? 'from the print' : 'countersink in the model',
  );
  const depthFor = (tool: Tool): number => cone.top + tipForRim(tool, rim);
  const found = chooseTool(c, { kind: 'countersink', angleDeg: cone.angle, minDiameter: rim }, (tool) => ({
    tip: depthFor(tool),
    allowed: { radius: rimAt(tool, depthFor(tool)) / 2 + 0.05 },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const depth = depthFor(tool);
  parameters.derived(
    'depth',
    'tip below entry',
    depth,
    `rim ⌀${c.say(rim)} at ${Math.round(cone.angle)}°, tip flat ⌀${c.say(tool.tipDiameter)}`,
  );
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    work: placeHoles(
      c,
      { how: 'dwell', seconds: parameters.seconds('dwell', 'dwell', 0.3, 'method') },
      () => depth,
    ),
    parameters: parameters.list,
    remarks: numbers.remarks,
  };
}
