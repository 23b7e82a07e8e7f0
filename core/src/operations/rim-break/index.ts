import { insideShare, roundAt } from '../../motion/circles.ts';
import { coneOf, rimAt, tipForRim } from '../../tools/cone.ts';
import { coneHeight } from '../../tools/kinds/kind.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { entryCone, type HoleView } from '../hole-view.ts';
import { Parameters, placeWork, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Width of a broken rim where nothing else is said, and how far the cutter's tip goes below the cone it cuts, mm. */
const WIDTH = 0.3;
const CLEAR = 0.3;
/** Straight down a cone is used to this share of its diameter. */
const USABLE = 0.97;
/** Least radius on which a cutter is led round: nearer to the axis it only rubs, mm. */
const LEAST_ORBIT = 0.5;
/** Straight down it is fed at this share of what it may sideways. */
const PLUNGE_SHARE = 0.4;

/** How one tool breaks one rim. */
interface Way {
  /** Depth of its tip below the rim, mm. */
  tip: number;
  /** Radius on which it is led round; 0: straight down. */
  orbit: number;
}

/**
 * Breaks the rims of holes that the model has sharp, all sizes with one cutter: its depth follows each hole's diameter. Straight down where
 * it is wide enough, else round along the rim.
 */
export const rimBreakKind: OperationKind = {
  kind: 'rim-break',
  label: 'rim break',
  toolKinds: ['chamfer-mill'],
  rank: 3,
  numbers: { width: 'width', clearance: 'tip below the cone', dwell: 'dwell, s' },
  plan: planRimBreak,
};

/** Diameter of the sharp edge at a hole's entry, mm: the thread's where that is wider. */
function edgeOf(c: KindContext, h: HoleView): number {
  const first = h.steps[0];
  const own = first?.shape === 'cylinder' ? first.diameter : (first?.startDiameter ?? 0);
  return h.steps.length === 1 ? Math.max(own, c.thread?.majorDiameter ?? 0) : own;
}

/** Chamfers: Dc = D + 2w; round along the rim the tip goes v + c deep and the centre runs rt + c·tan(a) off the wall. Null: it does not fit. */
function wayOf(tool: Tool, edge: number, width: number, clear: number): Way | null {
  const rim = edge + 2 * width;
  const { diameter: tip, angleDeg } = coneOf(tool);
  const height = coneHeight(tool.diameter, tip, angleDeg);
  if (USABLE * tool.diameter >= rim && tip < edge) return { tip: tipForRim(tool, rim), orbit: 0 };
  const slope = Math.tan((angleDeg * Math.PI) / 360);
  const orbit = edge / 2 - (tip / 2 + clear * slope);
  const deep = width / slope + clear;
  return orbit >= LEAST_ORBIT && deep <= USABLE * height ? { tip: deep, orbit } : null;
}

function planRimBreak(c: KindContext): PlanResult {
  const [hole] = c.holes;
  if (!hole) return { none: null };
  if (entryCone(hole)) return { none: 'The model has its rim broken: nothing is added to it.' };
  if (c.holes.some((h) => h.entryDrop > 0.05))
    return { missing: 'Its entry is slanted: a rim of one width needs a cutter that follows it in Z.' };
  const parameters = new Parameters(c);
  const width = parameters.length('width', 'width', WIDTH, 'method', 'across the top');
  const clear = parameters.length('clearance', 'tip below the cone', CLEAR, 'method');
  const edge = edgeOf(c, hole);
  const way = (tool: Tool, h: HoleView): Way | null => wayOf(tool, edgeOf(c, h), width, clear);
  const usable = c.tools.filter((t) => t.kind === 'chamfer-mill' && c.holes.every((h) => way(t, h) !== null));
  const need = { kind: 'chamfer-mill', minDiameter: (edge + 2 * width) / USABLE } as const;
  if (usable.length === 0)
    return { missing: `No chamfer mill breaks a rim of ⌀${c.say(edge)} by ${c.say(width)}.`, need };
  const rimOf = (h: HoleView): number => edgeOf(c, h) + 2 * width;
  const found = chooseTool({ ...c, tools: usable }, { kind: 'chamfer-mill' }, (t, h): Cut => {
    const { tip, orbit } = way(t, h) ?? { tip: 0, orbit: 0 };
    return { tip, orbit, allowed: { radius: rimOf(h) / 2 + 0.05 } };
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const { angleDeg, diameter: tipDiameter } = coneOf(tool);
  const { tip, orbit } = way(tool, hole) ?? { tip: 0, orbit: 0 };
  parameters.derived('rim', 'rim ⌀', rimOf(hole), `⌀${c.say(edge)} + 2 × ${c.say(width)}`);
  parameters.derived('depth', 'tip below entry', tip, orbit > 0 ? 'cone and what is below it' : 'by the rim');
  const numbers = cuttingNumbers(c, parameters, tool, tip, orbit > 0 ? 1 : PLUNGE_SHARE);
  const { speed, feed } = numbers;
  const seconds = orbit > 0 ? 0 : parameters.seconds('dwell', 'dwell', 0.2, 'method');
  return {
    tool,
    speed,
    feed,
    feeds: { cut: feed, lead: Math.min(c.machine.maxFeed, 2 * feed), finish: feed },
    work: placeWork(
      c,
      (h) => way(tool, h)?.tip ?? 0,
      (h, r, z) => {
        const radius = way(tool, h)?.orbit ?? 0;
        if (radius === 0) return { kind: 'cycle', how: { how: 'dwell', seconds } };
        const ring = { x: h.x, y: h.y, radius, from: r, to: z };
        const contact = tipDiameter + 2 * clear * Math.tan((angleDeg * Math.PI) / 360);
        return { kind: 'path', passes: [roundAt(ring, r, 1, 'finish', insideShare(rimOf(h), contact))] };
      },
    ).map((w, i) => {
      const h = c.holes[i];
      return h ? { ...w, wanted: [{ z: h.entryZ, diameter: rimOf(h), angleDeg, below: false }] } : w;
    }),
    parameters: parameters.list,
    remarks: [
      ...numbers.remarks,
      ...(orbit === 0 && rimAt(tool, tip) > tool.diameter
        ? [{ rule: 'rim-size', severity: 'error' as const, message: 'The rim is wider than the cutter.' }]
        : []),
    ],
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
