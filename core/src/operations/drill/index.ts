import { at, first as firstOf } from '../../lists.ts';
import { pointLength, tipDepthForFullDiameter } from '../../cutting/depths.ts';
import type { CycleHow, SlowStretch, Work } from '../../motion/work.ts';
import { formingHole } from '../../threads/thread.ts';
import type { ToolNeed } from '../../tools/find.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool } from '../choose-tool.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import { PECK_BY, peckDepth } from './peck.ts';
import {
  Parameters,
  placeHoles,
  retractLevel,
  setNumber,
  tapStyle,
  type KindContext,
  type OperationKind,
  type PlanResult,
  type Remark,
} from '../kind.ts';

export const DRILL_CYCLES = ['straight', 'dwell', 'chip-break', 'full-retract'] as const;
export type DrillCycle = (typeof DRILL_CYCLES)[number];

/** Below the exit, mm. */
export const BREAK_THROUGH = 1;
/** Beyond this depth in diameters pecks get shorter, and shorter again. */
const SHORTER_FROM = [
  { over: 12, share: 0.5 },
  { over: 8, share: 0.75 },
];
/** How far above the last depth, in diameters, the feed is back in full after a crossing, and how it is entered. */
const AFTER_CROSSING = 1;

/** Drills the narrowest step, or a step that ends in a cone of the drill's own angle. */
export const drillKind: OperationKind = {
  kind: 'drill',
  cuts: ['holes'],
  label: 'drill',
  toolKinds: ['drill'],
  rank: 1,
  opensSolid: true,
  numbers: {
    underFrom: 'under size from',
    underTo: 'under size to',
    breakThrough: 'break-through',
    depth: 'depth',
    peck: 'peck',
    peckShare: 'peck, share of ⌀',
    peckCount: 'pecks',
    dwell: 'dwell, s',
  },
  choices: { cycle: DRILL_CYCLES, peckBy: PECK_BY },
  plan: planDrill,
};

function planDrill(c: KindContext): PlanResult {
  const hole = firstOf(c.holes);
  const step = c.step ?? drilledStep(hole);
  if (!step || step.shape !== 'cylinder')
    return {
      missing:
        'The hole has no straight part to drill; a tapered hole is milled or reamed, which no method does yet.',
    };
  const isMain = step === drilledStep(hole);
  const diameter = isMain ? drillDiameter(c, step.diameter) : step.diameter;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const through = isMain && hole.through;
  // A flat floor must not be dented: there the tip itself stops at the depth.
  const atTip = isMain && !through && hole.bottom.shape !== 'cone';
  const deepest = Math.max(...c.holes.map((h) => endOf(h, isMain, step.end)));
  const beyond = through
    ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'full diameter below exit')
    : 0;
  let shift = 0;
  if (!through) {
    const full = parameters.length(
      'depth',
      atTip ? 'depth at tip' : 'depth at full ⌀',
      endOf(hole, isMain, step.end),
      isMain && c.print.depth !== undefined ? 'print' : 'model',
      'below entry',
    );
    // A typed depth holds for the first hole and moves the others by as much: each keeps its own floor.
    shift = full - endOf(hole, isMain, step.end);
  }
  const fullDepth = (h: HoleView): number => endOf(h, isMain, step.end) + shift + beyond;
  const tipOf = (t: Tool, h: HoleView): number =>
    atTip ? fullDepth(h) : tipDepthForFullDiameter(fullDepth(h), t.diameter, t.pointAngleDeg ?? USUAL_POINT);
  // The flutes must cover the whole way of the full diameter, break-through and typed depth included.
  // What is reamed, bored or milled afterwards is drilled under its size, with the widest drill that leaves enough.
  const underFrom = isMain ? setNumber(c, 'underFrom') : null;
  const need: ToolNeed =
    underFrom === null
      ? { kind: 'drill', diameter }
      : {
          kind: 'drill',
          minDiameter: diameter - (setNumber(c, 'underTo') ?? underFrom),
          maxDiameter: diameter - underFrom,
          widest: true,
        };
  const found = chooseTool(c, need, (t, h) => ({
    tip: tipOf(t, h),
    flutes: fullDepth(h),
    allowed: {
      radius: Math.max(t.diameter, step.diameter) / 2 + 0.05,
      ...(through ? { open: 0.45 * Math.min(t.diameter, step.diameter) } : {}),
    },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const angle = tool.pointAngleDeg ?? USUAL_POINT;
  const point = pointLength(tool.diameter, angle);
  const tipBelow = (h: HoleView): number => tipOf(tool, h);
  const above = Math.max(...c.holes.map((h) => h.metalZ - h.entryZ));
  const ratio = (deepest + above) / tool.diameter;
  const { chipBreakFrom, fullRetractFrom } = c.material.pecking;
  const choice = parameters.choice<DrillCycle>(
    'cycle',
    'cycle',
    DRILL_CYCLES,
    ratio > fullRetractFrom ? 'full-retract' : ratio > chipBreakFrom ? 'chip-break' : 'straight',
    'method',
  );
  const pecks = choice === 'chip-break' || choice === 'full-retract';
  const travel = Math.max(...c.holes.map((h) => tipBelow(h) + retractLevel(c, h) - h.entryZ));
  const peck = pecks
    ? peckDepth(parameters, {
        diameter: tool.diameter,
        travel,
        share: choice === 'chip-break' ? 1 : (SHORTER_FROM.find((r) => ratio > r.over)?.share ?? 1),
      })
    : undefined;
  const numbers = cuttingNumbers(c, parameters, tool, deepest);
  const { speed, feed } = numbers;
  remarks.push(...numbers.remarks);
  parameters.derived('tip', 'tip below entry', tipBelow(hole), tipRelation(c, through, atTip, beyond, point));
  if (atTip)
    remarks.push({
      rule: 'flat-bottom',
      severity: 'warning',
      message: `The floor is ${hole.bottom.shape === 'unknown' ? 'of unknown shape' : hole.bottom.shape}: the drill's tip stops at it and leaves ${c.say(point)} of cone. Choose a method that mills the floor flat if the print asks for it.`,
      onSheet: `floor left with a cone ${c.say(point)} high`,
    });
  const slanted = c.holes.filter((h) => h.entryDrop > 0.1 * tool.diameter);
  if (slanted.length > 0)
    remarks.push({
      rule: 'slanted-entry',
      severity: 'warning',
      message: `The entry of ${slanted.map((h) => h.label).join(', ')} falls by ${c.say(Math.max(...slanted.map((h) => h.entryDrop)))}: the drill may wander. Mill a flat first.`,
    });
  remarks.push(...crossingRemarks(c));
  const how: CycleHow =
    peck !== undefined && pecks
      ? { how: choice, peck }
      : choice === 'dwell'
        ? { how: 'dwell', seconds: parameters.seconds('dwell', 'dwell', 0.3, 'method') }
        : { how: 'straight' };
  return {
    tool,
    speed,
    feed,
    work: placeHoles(c, how, tipBelow).map((w, i) => (isMain ? withSlow(c, w, at(c.holes, i), tool) : w)),
    opens: tool.diameter,
    parameters: parameters.list,
    remarks,
  };
}

/** A hole longer than this many diameters is started by a short drill, and the long one enters slowly for two diameters. */
export const LONG_FROM = 8;
const SLOW_ENTRY = 2;

/** Stretches fed at half: a point length before another cavity's wall to a diameter after it, and a long drill's way in. */
function withSlow(c: KindContext, place: Work, h: HoleView, tool: Tool): Work {
  const isLong = mainDepth(c, h) + h.metalZ - h.entryZ > LONG_FROM * tool.diameter;
  if (h.crossings.length === 0 && !isLong) return place;
  const point = pointLength(tool.diameter, tool.pointAngleDeg ?? USUAL_POINT);
  const entry = isLong ? [{ from: place.r, to: h.metalZ - SLOW_ENTRY * tool.diameter }] : [];
  const stretches = h.crossings
    .map((x) => ({
      from: h.entryZ - Math.max(0, x.top - point),
      to: Math.max(place.z, h.entryZ - x.end - AFTER_CROSSING * tool.diameter - point),
    }))
    .concat(entry)
    .filter((s) => s.from > s.to + 0.01 && s.from > place.z)
    .sort((a, b) => b.from - a.from);
  // Crossings near each other are one stretch.
  const slow: SlowStretch[] = [];
  for (const s of stretches) {
    const last = slow[slow.length - 1];
    if (last && s.from >= last.to - 1) last.to = Math.min(last.to, s.to);
    else slow.push({ ...s });
  }
  return slow.length > 0 && place.motion.kind === 'cycle'
    ? { ...place, motion: { ...place.motion, slow } }
    : place;
}

function crossingRemarks(c: KindContext): Remark[] {
  const crossed = c.holes.filter((h) => h.crossings.length > 0);
  const [first] = crossed;
  if (!first) return [];
  const into = [...new Set(first.crossings.map((x) => x.label))].join(', ');
  return [
    {
      rule: 'crossing',
      severity: 'note',
      message: `${first.label}${crossed.length > 1 ? ` and ${crossed.length - 1} more` : ''} breaks into ${into}, made before: the drill is fed at half there. If it is deflected, make the smaller hole first.`,
    },
  ];
}

/** Diameter, mm, of what the main drill makes; null where nothing is straight. */
export const mainDiameter = (c: KindContext, h: HoleView): number | null => {
  const step = drilledStep(h);
  return step ? drillDiameter(c, step.diameter) : null;
};
/** Depth at full diameter, mm below the entry, that the main drill is to reach: the model's, moved by what is typed; break-through is apart. */
export function mainDepth(c: KindContext, h: HoleView): number {
  const typed = c.decision.overrides[drillKind.kind]?.['depth'];
  return h.through || typeof typed !== 'number' ? h.depth : h.depth + typed - firstOf(c.holes).depth;
}
/** How far the main drill's full diameter goes past an exit, mm: what is typed, or the usual. */
export function mainBreakThrough(c: KindContext): number {
  const typed = c.decision.overrides[drillKind.kind]?.['breakThrough'];
  return typeof typed === 'number' ? typed : BREAK_THROUGH;
}

/** Depth to which the full diameter goes in the model. */
const endOf = (h: HoleView, isMain: boolean, stepEnd: number): number => (isMain ? h.depth : stepEnd);

function tipRelation(
  c: KindContext,
  through: boolean,
  atTip: boolean,
  beyond: number,
  point: number,
): string {
  if (through) return `${c.say(beyond)} below exit + point ${c.say(point)}`;
  return atTip ? 'at the floor' : `full ⌀ + point ${c.say(point)}`;
}

/** Drill for the hole: the thread's, or the diameter drawn. */
function drillDiameter(c: KindContext, drawn: number): number {
  const { thread } = c;
  if (!thread) return drawn;
  if (c.isThreadMilled) return thread.tapDrill;
  const taps = c.tools.filter(
    (t) => t.kind === 'tap' && t.thread?.designation === thread.designation && t.thread.hand === thread.hand,
  );
  const onlyForming = taps.length > 0 && taps.every((t) => t.thread?.style === 'forming');
  return onlyForming || tapStyle(c) === 'forming'
    ? Math.round(formingHole(thread.majorDiameter, thread.pitch) * 20) / 20
    : thread.tapDrill;
}

export const startOfThread = (h: HoleView): number =>
  h.steps.length > 1 && h.feature.role !== 'plain' ? (drilledStep(h)?.top ?? 0) : 0;
