import { pointLength } from '../../cutting/depths.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Below the exit, mm. */
const BREAK_THROUGH = 1;

/** Opens a hole that is there to its diameter with a core drill: three or four teeth that do not meet in the middle run truer than a drill. */
export const coreDrillKind: OperationKind = {
  kind: 'core-drill',
  cuts: ['holes'],
  label: 'core drill',
  toolKinds: ['core-drill'],
  rank: 1.5,
  numbers: { breakThrough: 'break-through' },
  plan: planCoreDrill,
};

/** Height of a core drill's cut corner above its flat tip, mm. */
const cornerOf = (t: Tool): number => pointLength(t.diameter - t.tipDiameter, t.pointAngleDeg ?? USUAL_POINT);

function planCoreDrill(c: KindContext): PlanResult {
  const [hole] = c.holes;
  const step = hole && drilledStep(hole);
  if (!step) return { missing: 'The hole has no straight part to open.' };
  if (c.opened <= 0)
    return { missing: 'A core drill cannot start a hole: drill one first that lets its tip in.' };
  const parameters = new Parameters(c);
  const beyond = hole.through
    ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'full diameter below exit')
    : 0;
  const wide = c.tools.filter((t) => t.kind === 'core-drill' && t.tipDiameter <= c.opened + 1e-6);
  // A flat floor is met with the tip itself.
  const atTip = !hole.through && hole.bottom.shape !== 'cone';
  const tipOf = (t: Tool, h: HoleView): number => h.depth + beyond + (atTip ? 0 : cornerOf(t));
  const need = { kind: 'core-drill', diameter: step.diameter } as const;
  const found = chooseTool({ ...c, tools: wide }, need, (t, h): Cut => ({
    tip: tipOf(t, h),
    flutes: h.depth + beyond,
    allowed: {
      radius: Math.max(t.diameter, step.diameter) / 2 + 0.05,
      ...(h.through ? { open: 0.45 * step.diameter } : {}),
    },
  }));
  if ('missing' in found) {
    const narrow = c.tools.find(
      (t) => t.kind === 'core-drill' && Math.abs(t.diameter - step.diameter) < 0.011,
    );
    return narrow && !wide.includes(narrow)
      ? {
          missing: `${narrow.description} needs a hole of ⌀${c.say(narrow.tipDiameter)}; ⌀${c.say(c.opened)} is drilled before. Drill it wider.`,
        }
      : found;
  }
  const { tool } = found;
  parameters.derived('opened', 'drilled before', c.opened, 'by the operations before');
  parameters.derived(
    'tip',
    'tip below entry',
    tipOf(tool, hole),
    atTip ? 'at the floor' : `full ⌀ + corner ${c.say(cornerOf(tool))}`,
  );
  const numbers = cuttingNumbers(c, parameters, tool, hole.depth);
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    opens: tool.diameter,
    work: placeHoles(c, { how: 'straight' }, (h) => tipOf(tool, h)),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
