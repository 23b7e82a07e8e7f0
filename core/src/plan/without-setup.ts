import type { Plan } from './plan.ts';

/**
 * The plan without a setup, and without all that hangs on its id: order of tools, edits by hand, accepted findings. Ids are given again, and
 * what was decided for one setup must not come down on another.
 */
export function withoutSetup(plan: Plan, id: string): Plan {
  const { [id]: _order, ...toolOrders } = plan.toolOrders;
  const { [id]: _edits, ...handEdits } = plan.handEdits;
  return {
    ...plan,
    setups: plan.setups.filter((s) => s.id !== id),
    toolOrders,
    handEdits,
    accepted: plan.accepted.filter((a) => a.setupId !== id),
  };
}
