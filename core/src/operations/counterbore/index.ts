import { speedAndFeed } from '../../cutting/material.ts';
import { findTool } from '../../tools/find.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Opens a flat-floored step with a cutter of exactly its diameter. */
export const counterboreKind: OperationKind = {
  kind: 'counterbore',
  label: 'counterbore',
  toolKinds: ['counterbore'],
  cycles: ['G82', 'G81'],
  rank: 2,
  plan: planCounterbore,
};

function planCounterbore(c: KindContext): PlanResult {
  const { step } = c;
  if (step?.shape !== 'cylinder') return { missing: 'The step is not a straight one.' };
  const parameters = new Parameters(c);
  const floor = parameters.length('depth', 'floor below entry', step.end, 'model', 'counterbore in the model');
  const found = findTool(c.tools, { kind: 'counterbore', diameter: step.diameter, reach: floor }, c.say);
  if ('missing' in found) return found;
  const { tool } = found;
  const { speed, feed } = speedAndFeed(tool, c.material, c.machine, floor);
  return {
    tool,
    cycle: 'G82',
    speed,
    feed,
    dwellSeconds: parameters.seconds('dwell', 'dwell', 0.3, 'method'),
    holes: placeHoles(c, () => floor),
    parameters: parameters.list,
    remarks: [],
  };
}
