import { helixAngleDeg, helixDown, insideShare, roundAt, type Ring } from '../../motion/circles.ts';
import type { Pass } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import {
  Parameters,
  placeWork,
  type KindContext,
  type OperationKind,
  type PlanResult,
  type Remark,
} from '../kind.ts';
import { ringRadii } from './rings.ts';

/** How far below an exit the cutter's end goes, mm. */
const BREAK_THROUGH = 0.5;
/** Of the hole's diameter: the widest cutter that still has room to circle, and the narrowest that is worth while. */
const MOST_SHARE = 0.85;
const LEAST_SHARE = 0.2;
/** Steepest helix where the cutter says nothing, degrees, and the most a turn as a share of the cutter. */
const USUAL_RAMP = 3;
const MOST_A_TURN = 0.25;
/** Left on the wall for the finishing round, mm. */
const FINISH_STOCK = 0.2;
/** Deeper than this many cutter diameters the wall is finished on a helix: a cutter that long bends in one go. */
const ONE_ROUND = 2.5;
/** Above the metal, where the helix begins, mm. */
const ABOVE = 0.5;
/** A helix in full metal is fed at this share, ways through the air at this one. */
const RAMP_SHARE = 0.7;
const LEAD_SHARE = 2;

/** Opens a hole, or a flat-floored step of one, with an end mill on a helix; then finishes its wall. */
export const helicalBoreKind: OperationKind = {
  kind: 'helical-bore',
  cuts: ['holes'],
  label: 'helical bore',
  toolKinds: ['end-mill'],
  rank: 2,
  leavesFlat: true,
  opensSolid: true,
  numbers: {
    allowance: 'left on diameter',
    breakThrough: 'break-through',
    depth: 'floor below entry',
    perTurn: 'down a turn',
    finishStock: 'left for finishing',
    springPasses: 'spring passes',
  },
  plan: planHelicalBore,
};

function planHelicalBore(c: KindContext): PlanResult {
  const hole = c.holes[0];
  const main = hole && drilledStep(hole);
  const step = c.step ?? main ?? null;
  if (!hole || step?.shape !== 'cylinder') return { missing: 'The step is not a straight one.' };
  const isMain = step === main || c.step === null;
  const through = isMain && hole.through;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const allowance =
    c.set['allowance'] === undefined ? 0 : parameters.length('allowance', 'left on diameter', 0, 'method');
  const diameter = step.diameter - allowance;
  parameters.derived(
    'diameter',
    'diameter',
    diameter,
    allowance > 0 ? `\u2300${c.say(step.diameter)} less what is left` : 'hole in the model',
    'model',
  );
  const model = isMain ? hole.depth : step.end;
  const beyond = through
    ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'cutter below exit')
    : 0;
  const depth = through
    ? model
    : parameters.length('depth', 'floor below entry', model, 'model', 'below entry');
  const floorOf = (h: HoleView): number => (isMain ? h.depth : step.end) + depth - model + beyond;
  const need = {
    kind: 'end-mill',
    minDiameter: LEAST_SHARE * diameter,
    maxDiameter: MOST_SHARE * diameter,
    widest: true,
  } as const;
  const square = c.tools.filter((t) => through || (t.cornerRadius ?? 0) < 0.05);
  const tipOf = (t: Tool, h: HoleView): number => floorOf(h) + (through ? (t.cornerRadius ?? 0) : 0);
  const found = chooseTool({ ...c, tools: square }, need, (t, h): Cut => ({
    tip: tipOf(t, h),
    flutes: floorOf(h),
    orbit: (diameter - t.diameter) / 2,
    allowed: { radius: diameter / 2 + 0.05, ...(through ? { open: 0.45 * diameter } : {}) },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  // Below a drill's point a blind hole is solid still: there its rings begin at the axis.
  const opened = isMain && !through ? 0 : c.opened;
  const radii = ringRadii(diameter, tool.diameter, opened);
  const smallest = Math.min(...radii);
  const limit = Math.min(USUAL_RAMP, tool.rampAngleDeg ?? USUAL_RAMP);
  const steep = 2 * Math.PI * smallest * Math.tan((limit * Math.PI) / 180);
  const usual = Math.max(0.05, Math.floor(20 * Math.min(steep, MOST_A_TURN * tool.diameter)) / 20);
  const perTurn = Math.max(0.01, parameters.length('perTurn', 'down a turn', usual, 'method'));
  const angle = helixAngleDeg(perTurn, smallest);
  parameters.shown('ramp', 'ramp angle', `${angle.toFixed(2)}°`);
  if (angle > (tool.rampAngleDeg ?? 90) + 1e-6)
    remarks.push({
      rule: 'ramp-too-steep',
      severity: 'error',
      message: `The helix falls at ${angle.toFixed(1)}°, and ${tool.description} goes into metal at ${tool.rampAngleDeg}° at most. ${c.say(usual)} a turn would do.`,
    });
  const stock = Math.max(
    0,
    parameters.length('finishStock', 'left for finishing', Math.min(FINISH_STOCK, smallest / 2), 'method'),
  );
  const spring = Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  if (radii.length > 1) parameters.shown('rings', 'rings', String(radii.length));
  remarks.push(...floorRemarks(c, hole, through || !isMain));
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  remarks.push(...numbers.remarks);
  const cut: Bore = { diameter, tool, radii, perTurn, stock, spring };
  return {
    tool,
    speed,
    feed,
    feeds: {
      cut: feed,
      ramp: RAMP_SHARE * feed,
      finish: feed,
      lead: Math.min(c.machine.maxFeed, LEAD_SHARE * feed),
    },
    opens: diameter,
    work: placeWork(
      c,
      (h) => tipOf(tool, h),
      (h, r, z) => {
        const from = Math.min(r, Math.max(h.metalZ, h.entryZ) + ABOVE);
        return {
          kind: 'path',
          passes: borePasses(cut, { x: h.x, y: h.y, from, to: z }, r, opened > 0),
        };
      },
    ),
    parameters: parameters.list,
    remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}

/** What a bore is cut by. */
interface Bore {
  diameter: number;
  tool: Tool;
  radii: readonly number[];
  perTurn: number;
  /** Left on the wall by the rings, mm. */
  stock: number;
  spring: number;
}

/** Rings from the inside out, then the wall. */
function borePasses(b: Bore, place: Omit<Ring, 'radius'>, start: number, isOpen: boolean): Pass[] {
  const { diameter, tool } = b;
  const share = (radius: number): number => insideShare(2 * radius + tool.diameter, tool.diameter);
  const wall = b.radii.at(-1) ?? 0;
  const rough = b.radii.map((radius, i) =>
    i === b.radii.length - 1 ? Math.max(0.01, radius - b.stock) : radius,
  );
  const passes = rough.map((radius, i) =>
    helixDown({ ...place, radius }, b.perTurn, start, i === 0 && !isOpen ? 'ramp' : 'cut', share(radius)),
  );
  if (b.stock > 0 || b.spring > 0) {
    const rounds = (b.stock > 0 ? 1 : 0) + b.spring;
    const ring = { ...place, radius: wall };
    const inOneGo = place.from - place.to <= Math.min(tool.fluteLength, ONE_ROUND * tool.diameter);
    // What the wall's round takes along its end is metal too: no steeper than the cutter goes into it.
    const steep = 2 * Math.PI * wall * Math.tan((Math.min(tool.rampAngleDeg ?? 89, 89) * Math.PI) / 180);
    const fall = Math.min(0.5 * tool.diameter, 0.8 * tool.fluteLength, steep);
    if (inOneGo) passes.push(roundAt(ring, start, rounds, 'finish', insideShare(diameter, tool.diameter)));
    else
      for (let i = 0; i < rounds; i++)
        passes.push(helixDown(ring, fall, start, 'finish', insideShare(diameter, tool.diameter)));
  }
  return passes;
}

/** A flat cutter leaves a flat floor: what lies below it in the model stays. */
function floorRemarks(c: KindContext, hole: HoleView, isFlat: boolean): Remark[] {
  const { bottom } = hole;
  if (isFlat || bottom.shape === 'flat') return [];
  return [
    {
      rule: 'floor-left',
      severity: 'warning',
      message: `The model's floor is ${bottom.shape === 'cone' ? `a cone of ${Math.round(bottom.angle)}°` : bottom.shape === 'unknown' ? 'of unknown shape' : `a ${bottom.shape}`}; the end mill leaves it flat at full depth, ${c.say(hole.depth)} below the entry.`,
      onSheet: 'floor left flat',
    },
  ];
}
