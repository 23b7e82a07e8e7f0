import { insideShare, roundAt } from '../../motion/circles.ts';
import { coneOf, tipForRim } from '../../tools/cone.ts';
import { coneHeight } from '../../tools/kinds/kind.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool, type Cut } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { entryCone, type HoleView } from '../hole-view.ts';
import { Parameters, placeWork, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Width of a broken rim where nothing else is said, and how far the cutter's tip goes below the cone it cuts, mm. */
const WIDTH = 0.3;
const CLEAR = 0.3;
/** A rim of the model's is as wide within this; where it has none, one this much wider than the edge is broken, mm on diameter. */
const SAME_RIM = 0.05;
const LEAST_RIM = 0.2;
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
  cuts: ['holes'],
  label: 'rim break',
  toolKinds: ['chamfer-mill'],
  rank: 3,
  breaksRims: true,
  settles: ['spot-rim'],
  numbers: { width: 'width', clearance: 'tip below the cone', dwell: 'dwell, s' },
  plan: planRimBreak,
};

/** The cone that a rim is to have: its diameter at the entry, that of the wall where it ends, and its angle; null: as the cutter's. */
interface Rim {
  wide: number;
  wall: number;
  angleDeg: number | null;
}

/** The model's own chamfer; else so much wider than the hole, or than its thread where that is wider. mm. */
function rimOf(c: KindContext, h: HoleView, width: number): Rim {
  const cone = entryCone(h);
  if (cone) return { wide: cone.startDiameter, wall: cone.endDiameter, angleDeg: cone.angle };
  const first = h.steps[0];
  const wall = first?.shape === 'cylinder' ? first.diameter : (first?.startDiameter ?? 0);
  const edge = h.steps.length === 1 ? Math.max(wall, c.thread?.majorDiameter ?? 0) : wall;
  return { wide: edge + 2 * width, wall, angleDeg: null };
}

/**
 * Chamfers: straight down the tip goes as deep as the rim is wide; round along the rim it goes `v + c` deep, and its centre runs
 * `rt + c·tan(a)` off the wall (handbook, edges). Null where it does not fit.
 */
function wayOf(tool: Tool, { wide, wall, angleDeg }: Rim, clear: number): Way | null {
  const cone = coneOf(tool);
  if (angleDeg !== null && Math.abs(cone.angleDeg - angleDeg) > 0.5) return null;
  if (USABLE * tool.diameter >= wide && cone.diameter < wall) return { tip: tipForRim(tool, wide), orbit: 0 };
  const slope = Math.tan((cone.angleDeg * Math.PI) / 360);
  const orbit = wall / 2 - (cone.diameter / 2 + clear * slope);
  const deep = (wide - wall) / 2 / slope + clear;
  const height = coneHeight(tool.diameter, cone.diameter, cone.angleDeg);
  return orbit >= LEAST_ORBIT && deep <= USABLE * height ? { tip: deep, orbit } : null;
}

function planRimBreak(c: KindContext): PlanResult {
  const [hole] = c.holes;
  if (!hole) return { none: null };
  const modelled = entryCone(hole);
  if (modelled && hole.feature.role === 'countersunk') return { none: null };
  if (c.holes.some((h) => h.entryDrop > 0.05))
    return { missing: 'Its entry is slanted: a rim of one width needs a cutter that follows it in Z.' };
  const covered = c.holes.find((h) => h.metalZ > h.entryZ + 0.05);
  if (covered)
    return {
      missing: `${covered.label}: ${c.say(covered.metalZ - covered.entryZ)} of metal may stand above its rim (${covered.metalFrom ?? 'stock'}). Take that away first.`,
    };
  const parameters = new Parameters(c);
  const width = modelled
    ? (modelled.startDiameter - modelled.endDiameter) / 2
    : parameters.length('width', 'width', WIDTH, 'method', 'across the top');
  const clear = parameters.length('clearance', 'tip below the cone', CLEAR, 'method');
  const rim = rimOf(c, hole, width);
  // A spot has left it as wide already, or wide enough where the model has it sharp.
  if (c.rim >= (modelled ? rim.wide - SAME_RIM : rim.wide - 2 * width + LEAST_RIM)) return { none: null };
  const way = (tool: Tool, h: HoleView): Way | null => wayOf(tool, rimOf(c, h, width), clear);
  const usable = c.tools.filter((t) => t.kind === 'chamfer-mill' && c.holes.every((h) => way(t, h) !== null));
  const need = {
    kind: 'chamfer-mill',
    minDiameter: rim.wide / USABLE,
    ...(rim.angleDeg === null ? {} : { angleDeg: rim.angleDeg }),
  } as const;
  if (usable.length === 0)
    return {
      missing: `No chamfer mill${rim.angleDeg === null ? '' : ` of ${Math.round(rim.angleDeg)}°`} leaves a rim of ⌀${c.say(rim.wide)} on ⌀${c.say(rim.wall)}.`,
      need,
    };
  const found = chooseTool({ ...c, tools: usable }, { kind: 'chamfer-mill', widest: true }, (t, h): Cut => {
    const { tip, orbit } = way(t, h) ?? { tip: 0, orbit: 0 };
    return { tip, orbit, allowed: { radius: rimOf(c, h, width).wide / 2 + 0.05 } };
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const { angleDeg, diameter: tipDiameter } = coneOf(tool);
  const { tip, orbit } = way(tool, hole) ?? { tip: 0, orbit: 0 };
  parameters.derived(
    'rim',
    'rim ⌀',
    rim.wide,
    modelled ? 'chamfer in the model' : `edge + 2 × ${c.say(width)}`,
    modelled ? 'model' : 'method',
  );
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
        return {
          kind: 'path',
          passes: [roundAt(ring, r, 1, 'finish', insideShare(rimOf(c, h, width).wide, contact))],
        };
      },
    ).map((w, i) => {
      const h = c.holes[i];
      return h
        ? { ...w, wanted: [{ z: h.entryZ, diameter: rimOf(c, h, width).wide, angleDeg, below: false }] }
        : w;
    }),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
