import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Past an exit, so that the reamer's lead is through, and above a floor, so that it never strikes it, mm. */
const BREAK_THROUGH = 2;
const CLEAR_OF_FLOOR = 0.5;

/** Brings a drilled hole to size and finish with a reamer, fed in and out. */
export const reamKind: OperationKind = {
  kind: 'ream',
  label: 'ream',
  toolKinds: ['reamer'],
  rank: 4,
  plan: planReam,
};

function planReam(c: KindContext): PlanResult {
  const hole = c.holes[0];
  const step = hole && drilledStep(hole);
  if (!step) return { missing: 'The hole has no straight part to ream.' };
  const parameters = new Parameters(c);
  const clear = hole.through
    ? -parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'full diameter below exit')
    : parameters.length('clear', 'clear of the floor', CLEAR_OF_FLOOR, 'method', 'above the drilled depth');
  const depth = (h: HoleView): number => h.depth - clear;
  const found = chooseTool(c, { kind: 'reamer', diameter: step.diameter }, (t, h): Cut => ({
    tip: depth(h),
    allowed: {
      radius: Math.max(t.diameter, step.diameter) / 2 + 0.05,
      ...(h.through ? { open: 0.45 * step.diameter } : {}),
    },
  }));
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
