import { insideShare, roundAt } from '../../motion/circles.ts';
import { widestHeight } from '../../tools/kinds/back-chamfer-cutter.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import type { HoleView } from '../hole-view.ts';
import { Parameters, placeWork, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

const WIDTH = 0.3;
/** How far the widest place of the cutter stays below the exit, mm. */
const CLEAR = 0.3;
/** Room round the head on its way through the hole, and round the neck while it cuts, mm. */
const ROOM = 0.15;

/** Breaks the far rim of a through hole from this side: the cutter is let down on the axis, goes out, round, back in, and up. */
export const backRimBreakKind: OperationKind = {
  kind: 'back-rim-break',
  cuts: ['holes'],
  label: 'back rim break',
  toolKinds: ['back-chamfer-cutter'],
  rank: 3,
  numbers: { width: 'width', clearance: 'head below the exit' },
  plan: planBackRim,
};

const slopeOf = (t: Tool): number => Math.tan(((t.pointAngleDeg ?? 90) * Math.PI) / 360);

/** Radius on which the cutter is led round so that its back cone leaves the rim, mm; null where head or neck have no room. */
function orbitOf(tool: Tool, exit: number, narrowest: number, width: number, clear: number): number | null {
  const [head, neck] = [tool.diameter / 2, (tool.neckDiameter ?? tool.diameter) / 2];
  const orbit = exit / 2 + width - (head - clear * slopeOf(tool));
  const flank = head - neck;
  const fits =
    head + ROOM <= narrowest / 2 &&
    orbit + neck + ROOM <= narrowest / 2 &&
    clear * slopeOf(tool) + width <= flank + 1e-9;
  return fits && orbit > 0 ? orbit : null;
}

function planBackRim(c: KindContext): PlanResult {
  const [hole] = c.holes;
  if (!hole) return { none: null };
  if (!hole.through) return { none: 'A blind hole has no far rim.' };
  const steps = [...hole.steps, ...hole.farSteps];
  const last = steps[steps.length - 1];
  if (last?.shape !== 'cylinder')
    return { none: 'The model has its far rim broken: nothing is added to it.' };
  const exit = last.diameter;
  const narrowest = Math.min(...steps.map((s) => (s.shape === 'cylinder' ? s.diameter : s.endDiameter)));
  const parameters = new Parameters(c);
  const width = parameters.length('width', 'width', WIDTH, 'method', 'across the far face');
  const clear = parameters.length('clearance', 'head below the exit', CLEAR, 'method');
  const orbit = (t: Tool): number | null => orbitOf(t, exit, narrowest, width, clear);
  const usable = c.tools.filter((t) => t.kind === 'back-chamfer-cutter' && orbit(t) !== null);
  const below = (t: Tool): number => clear + widestHeight(t);
  const tipOf = (t: Tool, h: HoleView): number => h.depth + below(t);
  const need = { kind: 'back-chamfer-cutter', maxDiameter: narrowest - 2 * ROOM, widest: true } as const;
  if (usable.length === 0)
    return {
      missing: `No back chamfer cutter goes through ⌀${c.say(narrowest)} and breaks its far rim by ${c.say(width)}.`,
      need: { ...need, reach: hole.depth + 5 },
    };
  const found = chooseTool({ ...c, tools: usable }, need, (t, h): Cut => ({
    tip: tipOf(t, h),
    allowed: { radius: (orbit(t) ?? 0) + t.diameter / 2 + 0.05, open: 0.45 * narrowest },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const radius = orbit(tool) ?? 0;
  const angleDeg = tool.pointAngleDeg ?? 90;
  parameters.derived('rim', 'far rim ⌀', exit + 2 * width, `⌀${c.say(exit)} + 2 × ${c.say(width)}`);
  parameters.derived('depth', 'tip below entry', tipOf(tool, hole), `${c.say(below(tool))} below exit`);
  const numbers = cuttingNumbers(c, parameters, tool, 0);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    feeds: { cut: feed, lead: Math.min(c.machine.maxFeed, 2 * feed), finish: feed },
    work: placeWork(
      c,
      (h) => tipOf(tool, h),
      (h, r, z) => {
        const ring = { x: h.x, y: h.y, radius, from: r, to: z };
        const share = insideShare(exit + 2 * width, tool.diameter - 2 * clear * slopeOf(tool));
        return { kind: 'path', passes: [roundAt(ring, r, 1, 'finish', share)] };
      },
    ).map((w, i) => {
      const h = c.holes[i];
      const rim = { diameter: exit + 2 * width, angleDeg, below: true };
      return h ? { ...w, wanted: [{ ...rim, z: h.entryZ - h.depth }] } : w;
    }),
    parameters: parameters.list,
    remarks: [
      ...numbers.remarks,
      {
        rule: 'below-the-part',
        severity: 'note',
        message: `The head goes ${c.say(below(tool))} below the exit: parallels and table must be clear of it.`,
        onSheet: `clear below: ${c.say(below(tool))}`,
      },
    ],
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
