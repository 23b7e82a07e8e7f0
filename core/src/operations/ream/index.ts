import { cuttingNumbers } from '../cutting-numbers.ts';
import { drilledStep } from '../hole-view.ts';
import { sizingTool, type SizingWay } from '../sizing.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** The reamer's lead is through, and it never strikes the floor. */
const WAY: SizingWay = { breakThrough: 2, clear: 0.5 };

/** Brings a drilled hole to size and finish with a reamer, fed in and out. */
export const reamKind: OperationKind = {
  kind: 'ream',
  cuts: ['holes'],
  label: 'ream',
  toolKinds: ['reamer'],
  rank: 4,
  numbers: { breakThrough: 'break-through', clear: 'clear of the floor' },
  plan: planReam,
};

function planReam(c: KindContext): PlanResult {
  const hole = c.holes[0];
  const step = hole && drilledStep(hole);
  if (!step) return { missing: 'The hole has no straight part to ream.' };
  const parameters = new Parameters(c);
  const need = { kind: 'reamer', diameter: step.diameter } as const;
  const { found, depth } = sizingTool(c, parameters, step, need, WAY);
  if ('missing' in found) return found;
  const { tool } = found;
  parameters.derived(
    'depth',
    'tip below entry',
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
    work: placeHoles(c, { how: 'feed-out' }, depth),
    parameters: parameters.list,
    remarks: numbers.remarks,
  };
}
