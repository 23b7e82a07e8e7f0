import { middleOfLimits } from '../../callout/fit-wish.ts';
import type { CycleHow } from '../../motion/work.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { drilledStep } from '../hole-view.ts';
import { sizingTool, type SizingWay } from '../sizing.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** The point is through, and the bar never touches the floor. */
const WAY: SizingWay = { breakThrough: 0.5, clear: 0.1 };
/** How far the point is shifted off the wall before it comes out, mm. */
const SHIFT = 0.3;

/** How the bar comes out of the bore. */
const OUT = ['feed out', 'spindle stopped', 'stopped and shifted'] as const;

/** Brings an opened hole to size with a single point that is set to the middle of the print's limits. */
export const boreKind: OperationKind = {
  kind: 'bore',
  cuts: ['holes'],
  label: 'bore',
  toolKinds: ['boring-bar'],
  rank: 4,
  numbers: { breakThrough: 'break-through', clear: 'clear of the floor', shift: 'shift' },
  choices: { out: OUT },
  plan: planBore,
};

function planBore(c: KindContext): PlanResult {
  const hole = c.holes[0];
  const step = hole && drilledStep(hole);
  if (!step) return { missing: 'The hole has no straight part to bore.' };
  const parameters = new Parameters(c);
  const middle = middleOfLimits(c.print);
  const diameter = Math.round((middle ?? step.diameter) * 1e4) / 1e4;
  parameters.derived(
    'diameter',
    'set to',
    diameter,
    middle === null ? 'hole in the model' : 'middle of the print’s limits',
    middle === null ? 'model' : 'print',
  );
  const { found, depth } = sizingTool(c, parameters, step, { kind: 'boring-bar', diameter }, WAY);
  if ('missing' in found) return found;
  const { tool } = found;
  const out = parameters.choice('out', 'way out', OUT, 'feed out', 'method');
  const shift = out === 'stopped and shifted' ? parameters.length('shift', 'shift', SHIFT, 'method') : SHIFT;
  const how: CycleHow =
    out === 'feed out'
      ? { how: 'feed-out' }
      : out === 'spindle stopped'
        ? { how: 'stop-out' }
        : { how: 'shift-out', shift };
  parameters.derived(
    'depth',
    'point below entry',
    depth(hole),
    hole.through ? 'below exit' : 'above the floor',
  );
  const numbers = cuttingNumbers(c, parameters, tool, depth(hole));
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    opens: tool.diameter,
    work: placeHoles(c, how, depth),
    parameters: parameters.list,
    remarks: numbers.remarks,
  };
}
