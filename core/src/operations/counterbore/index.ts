import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool } from '../choose-tool.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Opens a flat-floored step with a cutter of exactly its diameter. */
export const counterboreKind: OperationKind = {
  kind: 'counterbore',
  cuts: ['holes'],
  label: 'counterbore',
  toolKinds: ['counterbore'],
  rank: 2,
  leavesFlat: true,
  numbers: { depth: 'floor below entry', dwell: 'dwell, s' },
  plan: planCounterbore,
};

function planCounterbore(c: KindContext): PlanResult {
  const { step } = c;
  if (step?.shape !== 'cylinder') return { missing: 'The step is not a straight one.' };
  const parameters = new Parameters(c);
  const isPrinted = c.print.counterbore?.depth !== undefined;
  const floor = parameters.length(
    'depth',
    'floor below entry',
    step.end,
    isPrinted ? 'print' : 'model',
    isPrinted ? 'from the print' : 'counterbore in the model',
  );
  const found = chooseTool(c, { kind: 'counterbore', diameter: step.diameter }, (tool) => ({
    tip: floor,
    allowed: { radius: tool.diameter / 2 + WALL },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const numbers = cuttingNumbers(c, parameters, tool, floor);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    work: placeHoles(
      c,
      { how: 'dwell', seconds: parameters.seconds('dwell', 'dwell', 0.3, 'method') },
      () => floor,
    ),
    parameters: parameters.list,
    remarks: numbers.remarks,
  };
}

/** The wall that a tool is to touch lies this near it, mm. */
const WALL = 0.05;
