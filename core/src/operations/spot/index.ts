import { first as firstOf } from '../../lists.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import { rimAt, tipForRim } from '../../tools/cone.ts';
import { EDGE_BREAK } from '../../tools/kinds/spot-drill.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool, type Chosen, type Cut } from '../choose-tool.ts';
import { drilledStep, entryCone, rimLevel, type HoleView } from '../hole-view.ts';
import {
  Parameters,
  placeHoles,
  type KindContext,
  type OperationKind,
  type PlanResult,
  type Remark,
  type Source,
} from '../kind.ts';

/** A spot drill is used to this share of its diameter at most. */
const USABLE = 0.97;
/** A start for the drill where no rim is wanted, or none can be made: this share of its diameter. */
const START_SHARE = 0.8;
/** Turns that it holds at the bottom: longer only work-hardens the metal. */
const HOLD_TURNS = 2;

/** How its depth is said: by the rim that is left, by itself, or by a share of the drill. */
const SPOT_BY = ['rim', 'depth', 'share of ⌀'] as const;

/** Spots a hole so that the drill starts true, and leaves the rim that is wanted afterwards. */
export const spotKind: OperationKind = {
  kind: 'spot',
  cuts: ['holes'],
  label: 'spot',
  toolKinds: ['spot-drill'],
  rank: 0,
  breaksRims: true,
  numbers: { rim: 'rim diameter', tip: 'tip below the rim', share: 'share of ⌀', dwell: 'dwell, s' },
  choices: { by: SPOT_BY },
  plan: planSpot,
};

function planSpot(c: KindContext): PlanResult {
  const holes = c.holes.filter((h) => !h.isGuided);
  const hole = holes[0];
  if (!hole) return { none: 'The hole above it on the same axis leads the drill: it is not spotted.' };
  const wanted = wantedRim(c, hole);
  const found = findSpot(c, wanted, holes);
  if ('missing' in found) return found;
  const { tool } = found;
  const angle = tool.pointAngleDeg ?? 90;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const largest = USABLE * tool.diameter;
  const rim = rimFor(parameters, hole, tool, { ...wanted, rim: Math.min(wanted.rim, largest) });
  if (wanted.rim > largest + 1e-6 && wanted.source === 'model') {
    remarks.push({
      rule: 'spot-rim',
      severity: 'warning',
      message: `The chamfer of ${c.say(wanted.rim)} is wider than the spot drill can make (${c.say(largest)}). Use a wider spot drill or a countersink.`,
    });
  }
  if (rim > tool.diameter) {
    remarks.push({
      rule: 'spot-rim',
      severity: 'error',
      message: `A rim of ${c.say(rim)} needs a spot drill wider than ${c.say(tool.diameter)}.`,
    });
  }
  remarks.push(...sharpness(c, hole, tool), ...deepStarts(c, holes, tool));
  const depth = tipForRim(tool, rim);
  parameters.derived('depth', 'depth at tip', depth, `rim ⌀${c.say(rim)} at ${Math.round(angle)}°`);
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  remarks.push(...numbers.remarks);
  const hold = Math.ceil((100 * HOLD_TURNS * 60) / speed) / 100;
  const seconds = parameters.seconds('dwell', 'dwell', hold, 'method');
  return {
    tool,
    speed,
    feed,
    work: placeHoles({ ...c, holes }, { how: 'dwell', seconds }, (h) => tipBelow(h, tool, rim)),
    parameters: parameters.list,
    remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
    rim: holes.length === c.holes.length && !holes.some((h) => isDeepStart(h, tool)) ? rim : 0,
  };
}

/** The rim that is left: said itself, as a depth of the tip, or as a share of the drill. */
function rimFor(parameters: Parameters, hole: HoleView, tool: Tool, wanted: WantedRim): number {
  const by = parameters.choice('by', 'how deep', SPOT_BY, 'rim', 'method');
  if (by === 'depth')
    return rimAt(tool, parameters.length('tip', 'tip below the rim', tipForRim(tool, wanted.rim), 'method'));
  if (by === 'share of ⌀') {
    const rim = drillOf(hole) * parameters.number('share', 'share of ⌀', START_SHARE, 'method');
    parameters.derived('rim', 'rim diameter', rim, 'share × ⌀');
    return rim;
  }
  return parameters.length('rim', 'rim diameter', wanted.rim, wanted.source, wanted.relation);
}

/** Where the tip goes: to the rim that is wanted, or, under more metal than a spot should go through, to a start at that metal's top. */
function tipBelow(h: HoleView, tool: Tool, rim: number): number {
  if (!isDeepStart(h, tool)) return rimLevel(h) + tipForRim(tool, rim);
  return h.entryZ - h.metalZ + tipForRim(tool, Math.min(rim, START_SHARE * drillOf(h)));
}

const isDeepStart = (h: HoleView, tool: Tool): boolean => h.metalZ - h.entryZ > tool.diameter;

function deepStarts(c: KindContext, holes: readonly HoleView[], tool: Tool): Remark[] {
  const deep = holes.filter((h) => isDeepStart(h, tool));
  const [first] = deep;
  if (!first) return [];
  const names =
    deep.length > 4 ? `${first.label} and ${deep.length - 1} more` : deep.map((h) => h.label).join(', ');
  return [
    {
      rule: 'spot-above',
      severity: 'note',
      message: `${names}: ${c.say(first.metalZ - first.entryZ)} of metal may stand above the entry (${first.metalFrom ?? 'stock'}): the spot only starts the drill at its top and leaves no rim at the entry.`,
    },
  ];
}

/** A spot sharper than the drill lets the drill's corners strike first. */
function sharpness(c: KindContext, hole: HoleView, tool: Tool): Remark[] {
  const [spot, drill] = [tool.pointAngleDeg ?? 90, drillPoint(c, hole)];
  if (spot >= drill - 0.5) return [];
  return [
    {
      rule: 'spot-sharper',
      severity: 'note',
      message: `The spot's ${Math.round(spot)}° is sharper than the drill's ${Math.round(drill)}°: the drill's corners touch first. ${entryCone(hole) ? 'The model’s chamfer asks for it' : 'Add a blunter spot drill'}; feed in gently.`,
    },
  ];
}

interface WantedRim {
  rim: number;
  source: Source;
  relation: string;
  angleDeg: number | null;
}

const drillOf = (hole: HoleView): number =>
  drilledStep(hole)?.diameter ??
  hole.steps.reduce((m, s) => Math.min(m, s.shape === 'cone' ? s.endDiameter : s.diameter), Infinity);

function drillPoint(c: KindContext, hole: HoleView): number {
  const wanted = c.thread?.tapDrill ?? drillOf(hole);
  const near = c.tools.find((t) => t.kind === 'drill' && Math.abs(t.diameter - wanted) < 0.011);
  return near?.pointAngleDeg ?? USUAL_POINT;
}

function wantedRim(c: KindContext, hole: HoleView): WantedRim {
  const cone = entryCone(hole);
  const drill = drillOf(hole);
  const { role } = hole.feature;
  if (cone && role !== 'countersunk')
    return {
      rim: cone.startDiameter,
      source: 'model',
      relation: 'chamfer in the model',
      angleDeg: cone.angle,
    };
  // What is opened wider afterwards needs only a start for the drill, narrower than what follows.
  if (cone || hole.steps.length > 1)
    return { rim: START_SHARE * drill, source: 'method', relation: '0.8 of the drill', angleDeg: null };
  if (c.thread)
    return {
      rim: c.thread.majorDiameter + EDGE_BREAK,
      source: 'method',
      relation: `thread + ${c.say(EDGE_BREAK)}`,
      angleDeg: null,
    };
  return {
    rim: drill + EDGE_BREAK,
    source: 'method',
    relation: `hole + ${c.say(EDGE_BREAK)}`,
    angleDeg: null,
  };
}

/**
 * The angle of the model's chamfer; else any at least as blunt as the drill's point, and a sharper one only where there is no other.
 * The narrowest that makes the rim, else the widest there is; a rim that nobody asked for gives way where no tool has room for it.
 */
function findSpot(c: KindContext, { angleDeg, rim }: WantedRim, holes: readonly HoleView[]): Chosen {
  const spots = c.tools.filter((t) => t.kind === 'spot-drill');
  if (spots.length === 0) {
    const need = { kind: 'spot-drill', angleDeg: angleDeg ?? 90, minDiameter: rim / USABLE } as const;
    return { missing: 'No spot drill in the tool list.', need };
  }
  const point = drillPoint(c, firstOf(holes));
  const angle = (t: Tool): number => t.pointAngleDeg ?? 90;
  const right =
    angleDeg !== null
      ? spots.filter((t) => Math.abs(angle(t) - angleDeg) < 0.5)
      : spots.filter((t) => angle(t) >= point - 0.5);
  if (angleDeg !== null && right.length === 0)
    return {
      missing: `No spot drill of ${Math.round(angleDeg)}° in the tool list for the chamfer in the model.`,
      need: { kind: 'spot-drill', angleDeg, minDiameter: rim / USABLE },
    };
  const bluntest = Math.max(...spots.map(angle));
  const usable = right.length > 0 ? right : spots.filter((t) => angle(t) >= bluntest - 0.5);
  const context = { ...c, tools: usable };
  const cut = (tool: Tool, h: HoleView): Cut => {
    const made = Math.min(rim, USABLE * tool.diameter);
    const tip = tipBelow(h, tool, made);
    const atEntry = rimAt(tool, Math.max(0, tip));
    return { tip, allowed: { radius: Math.min(tool.diameter, Math.max(atEntry, made)) / 2 + 0.05 } };
  };
  const wide = chooseTool(context, { kind: 'spot-drill', minDiameter: rim / USABLE }, cut, holes);
  if ('tool' in wide) return wide;
  const byWidth = [...usable].sort((a, b) => b.diameter - a.diameter);
  for (const t of byWidth) {
    const any = chooseTool({ ...c, tools: [t] }, { kind: 'spot-drill' }, cut, holes);
    if ('tool' in any) return any;
  }
  return usable.some((t) => t.diameter >= rim / USABLE)
    ? wide
    : chooseTool(context, { kind: 'spot-drill' }, cut, holes);
}
