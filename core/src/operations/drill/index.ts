import { pointLength, tipDepthForFullDiameter } from '../../cutting/depths.ts';
import { speedAndFeed } from '../../cutting/material.ts';
import { drillDepthForTap, formingHole, tapDepth } from '../../threads/thread.ts';
import { findTool } from '../../tools/find.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import { peckDepth } from './peck.ts';
import { Parameters, placeHoles, retractLevel, type Cycle, type KindContext, type OperationKind, type PlanResult, type Remark } from '../kind.ts';

export const DRILL_CYCLES = ['straight', 'dwell', 'chip-break', 'full-retract'] as const;
export type DrillCycle = (typeof DRILL_CYCLES)[number];
const CODE: Record<DrillCycle, Cycle> = { straight: 'G81', dwell: 'G82', 'chip-break': 'G73', 'full-retract': 'G83' };

/** Below the exit, mm. */
export const BREAK_THROUGH = 1;
/** Depth in diameters from which chips are broken, and from which the drill comes out at each peck. */
const CHIP_BREAK_FROM = 3;
const FULL_RETRACT_FROM = 5;

/** Drills the narrowest step, or a step that ends in a cone of the drill's own angle. */
export const drillKind: OperationKind = {
  kind: 'drill',
  label: 'drill',
  toolKinds: ['drill'],
  cycles: ['G81', 'G82', 'G83', 'G73'],
  rank: 1,
  plan: planDrill,
};

function planDrill(c: KindContext): PlanResult {
  const hole = c.holes[0]!;
  const step = c.step ?? drilledStep(hole);
  if (!step || step.shape !== 'cylinder') return { missing: 'The hole has no straight part to drill; a tapered hole is milled or reamed, which no method does yet.' };
  const isMain = step === drilledStep(hole);
  const diameter = isMain ? drillDiameter(c, step.diameter) : step.diameter;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const through = isMain && hole.through;
  // A flat floor must not be dented: there the tip itself stops at the depth.
  const atTip = isMain && !through && hole.bottom.shape !== 'cone';
  const deepest = Math.max(...c.holes.map((h) => endOf(h, isMain, step.end)));
  const beyond = through ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'full diameter below exit') : 0;
  const printed = isMain && !through && !c.thread ? c.decision.threadDepth : undefined;
  let shift = 0;
  if (!through) {
    const full = parameters.length(
      'depth',
      atTip ? 'depth at tip' : 'depth at full ⌀',
      printed ?? endOf(hole, isMain, step.end),
      printed !== undefined ? 'print' : 'model',
      'below entry',
    );
    // A typed depth holds for the first hole and moves the others by as much: each keeps its own floor.
    shift = full - endOf(hole, isMain, step.end);
  }
  // The flutes must cover the whole way of the full diameter, break-through and typed depth included.
  const found = findTool(c.tools, { kind: 'drill', diameter, reach: deepest + beyond + shift }, c.say);
  if ('missing' in found) return found;
  const { tool } = found;
  const angle = tool.pointAngleDeg ?? 118;
  const point = pointLength(tool.diameter, angle);
  const tipBelow = (h: HoleView): number => {
    const depth = endOf(h, isMain, step.end) + shift + beyond;
    return atTip ? depth : tipDepthForFullDiameter(depth, tool.diameter, angle);
  };
  const ratio = deepest / tool.diameter;
  const choice = parameters.choice<DrillCycle>(
    'cycle',
    'cycle',
    DRILL_CYCLES,
    ratio > FULL_RETRACT_FROM ? 'full-retract' : ratio > CHIP_BREAK_FROM ? 'chip-break' : 'straight',
    'method',
  );
  const pecks = choice === 'chip-break' || choice === 'full-retract';
  const travel = Math.max(...c.holes.map((h) => tipBelow(h) + retractLevel(c, h) - h.entryZ));
  const peck = pecks ? peckDepth(parameters, { diameter: tool.diameter, travel, share: choice === 'chip-break' ? 1 : 0.75 }) : undefined;
  const { speed, feed, clamped } = speedAndFeed(tool, c.material, c.machine, deepest);
  if (clamped) remarks.push({ rule: 'machine-limit', severity: 'note', message: `The machine's ${clamped} limit holds drill ${tool.sizeName} back.` });
  parameters.derived('tip', 'tip below entry', tipBelow(hole), tipRelation(c, through, atTip, beyond, point));
  if (atTip)
    remarks.push({
      rule: 'flat-bottom',
      severity: 'warning',
      message: `The floor is ${hole.bottom.shape}: the drill's tip stops at it and leaves ${c.say(point)} of cone. Finish the floor with a flat cutter if the print asks for it.`,
    });
  if (hole.entryDrop > 0.1 * tool.diameter)
    remarks.push({ rule: 'slanted-entry', severity: 'warning', message: `The entry falls by ${c.say(hole.entryDrop)}: the drill may wander. Mill a flat first.` });
  if (c.thread && isMain && !through) remarks.push(...tapRoom(c, endOf(hole, true, step.end) + shift - startOfThread(hole)));
  return {
    tool,
    cycle: CODE[choice],
    speed,
    feed,
    peck,
    dwellSeconds: choice === 'dwell' ? parameters.seconds('dwell', 'dwell', 0.3, 'method') : undefined,
    holes: placeHoles(c, tipBelow),
    parameters: parameters.list,
    remarks,
  };
}

/** Depth to which the full diameter goes in the model. */
const endOf = (h: HoleView, isMain: boolean, stepEnd: number): number => (isMain ? h.depth : stepEnd);

function tipRelation(c: KindContext, through: boolean, atTip: boolean, beyond: number, point: number): string {
  if (through) return `${c.say(beyond)} below exit + point ${c.say(point)}`;
  return atTip ? 'at the floor' : `full ⌀ + point ${c.say(point)}`;
}

/** Drill for the hole: the thread's, or the diameter drawn. */
function drillDiameter(c: KindContext, drawn: number): number {
  if (!c.thread) return drawn;
  const taps = c.tools.filter((t) => t.kind === 'tap' && t.thread?.designation === c.thread!.designation && t.thread.hand === c.thread!.hand);
  const onlyForming = taps.length > 0 && taps.every((t) => t.thread!.style === 'forming');
  return onlyForming || c.decision.overrides['tap']?.['style'] === 'forming' ? Math.round(formingHole(c.thread.majorDiameter, c.thread.pitch) * 20) / 20 : c.thread.tapDrill;
}

export const startOfThread = (h: HoleView): number => (h.steps.length > 1 && h.feature.role !== 'plain' ? (drilledStep(h)?.top ?? 0) : 0);

function tapRoom(c: KindContext, fullDepth: number): Remark[] {
  const wanted = c.decision.threadDepth;
  if (wanted === undefined || !c.thread) return [];
  const need = drillDepthForTap(tapDepth(wanted, c.thread.pitch, 'bottoming'), c.thread.pitch);
  if (fullDepth >= need - 1e-6) return [];
  return [
    {
      rule: 'tap-room',
      severity: 'error',
      message: `${c.thread.designation} ↧${c.say(wanted)} needs ${c.say(need)} of full diameter even with a bottoming tap; the hole has ${c.say(fullDepth)}. Thread less deep, or deepen the hole.`,
    },
  ];
}
