import { pointLength } from '../../cutting/depths.ts';
import { helixDown, insideShare } from '../../motion/circles.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { drilledStep, type HoleView } from '../hole-view.ts';
import { Parameters, placeWork, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Narrower than this share of the hole, a cutter that circles at the wall leaves a core. */
const LEAST_SHARE = 0.53;
/** Kept from the wall, which the drill has made, mm. */
const OFF_WALL = 0.02;
/** Point of the sharpest drill that may have been there, degrees. */
const SHARPEST_POINT = 90;
/** Above what the drill left, where the helix begins, mm. */
const ABOVE = 0.5;
/** Straight down it is fed at this share. */
const PLUNGE_SHARE = 0.3;
/** Down a turn, as a share of the cutter. */
const PER_TURN = 0.1;

/** Takes away the cone that a drill leaves on a flat floor. */
export const floorKind: OperationKind = {
  kind: 'floor',
  cuts: ['holes'],
  label: 'floor',
  toolKinds: ['end-mill'],
  rank: 2,
  leavesFlat: true,
  numbers: { depth: 'floor below entry', perTurn: 'down a turn' },
  settles: ['flat-bottom'],
  plan: planFloor,
};

function planFloor(c: KindContext): PlanResult {
  const hole = c.holes[0];
  const step = hole && drilledStep(hole);
  if (!step || hole.through || hole.bottom.shape !== 'flat') return { none: 'The hole has no flat floor.' };
  const parameters = new Parameters(c);
  const depth = parameters.length('depth', 'floor below entry', hole.depth, 'model', 'below entry');
  const floorOf = (h: HoleView): number => h.depth + depth - hole.depth;
  const orbit = (t: Tool): number => Math.max(0, (step.diameter - t.diameter) / 2 - OFF_WALL);
  // As wide as the hole it can only plunge, which not every cutter may.
  const square = c.tools.filter(
    (t) => (t.cornerRadius ?? 0) < 0.05 && (orbit(t) > 0 || (t.rampAngleDeg ?? 90) >= 90),
  );
  const need = {
    kind: 'end-mill',
    minDiameter: LEAST_SHARE * step.diameter,
    maxDiameter: step.diameter + 1e-3,
    widest: true,
  } as const;
  const found = chooseTool({ ...c, tools: square }, need, (t, h): Cut => ({
    tip: floorOf(h),
    flutes: floorOf(h),
    orbit: orbit(t),
    allowed: { radius: step.diameter / 2 + 0.05 },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const radius = orbit(tool);
  const numbers = cuttingNumbers(c, parameters, tool, depth, radius > 0 ? 1 : PLUNGE_SHARE);
  const { speed, feed } = numbers;
  // As wide as the hole it can only go straight down, and holds there for two turns.
  const seconds = Math.ceil((100 * 2 * 60) / speed) / 100;
  // Whatever drill was there: none is sharper than 90°.
  const cone = pointLength(step.diameter, SHARPEST_POINT);
  const steep = 2 * Math.PI * radius * Math.tan((Math.min(tool.rampAngleDeg ?? 89, 89) * Math.PI) / 180);
  const usual = Math.max(0.02, Math.floor(100 * Math.min(PER_TURN * tool.diameter, steep)) / 100);
  const perTurn = radius > 0 ? parameters.length('perTurn', 'down a turn', usual, 'method') : 0;
  parameters.derived('diameter', 'diameter', 2 * radius + tool.diameter, 'just off the wall');
  return {
    tool,
    speed,
    feed,
    feeds: { cut: feed, lead: Math.min(c.machine.maxFeed, 2 * feed) },
    opens: step.diameter,
    work: placeWork(c, floorOf, (h, r, z) => {
      if (radius === 0) return { kind: 'cycle', how: { how: 'dwell', seconds } };
      const ring = { x: h.x, y: h.y, radius, from: Math.min(r, z + cone + ABOVE), to: z };
      const share = insideShare(step.diameter, tool.diameter);
      return { kind: 'path', passes: [helixDown(ring, Math.max(0.01, perTurn), r, 'cut', share)] };
    }),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
