import { fullWidthCut } from '../../cutting/material.ts';
import { first } from '../../lists.ts';
import { stretchesOf } from '../../motion/stretches.ts';
import type { Pass, Work } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { hitInWords } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { LEAD_SHARE } from '../grooves/planned.ts';
import { aboveFoot } from '../grooves/reach.ts';
import { radiusInControl, TAKEN_UP } from '../radius-in-control.ts';
import type { KindContext, Parameters, PlanResult, Remark } from '../kind.ts';
import { AREA_CHOICES, FINISH_STOCK, FLUTE_SHARE, NARROW_STEP, STEPOVER } from './numbers.ts';

/** A cutter at least this wide, of the one that is taken, may stand in for it. */
const NEARLY_AS_WIDE = 0.75;
/** Of the feed, on a way down. */
const RAMP_SHARE = 0.7;
/** Walls that a cutter runs along are touched, and chords of round walls lie inside them, mm. */
const BESIDE_WALL = -0.03;
/** How far a chord of its way may lie inside the arc: less than what counts as touching, mm. */
const SAGITTA = 0.01;

/** How an area is cut, as far as it is one for all of a size: mm. */
export interface AreaWay {
  perLayer: number;
  stepover: number;
  /** Left on walls by roughing. */
  stock: number;
  /** Times along the finished walls. */
  rounds: number;
  isClimb: boolean;
  /** The control compensates for the cutter's radius along finished walls: see {@link WallCut}. */
  approach: number | null;
  /** R level: above everything, since between its passes the cutter goes anywhere. */
  r: number;
}

/** The tool that is taken, and those that would do. */
export interface Found {
  tool: Tool;
  others: readonly Tool[];
}

/** What is cut at one area: its passes, and how low the tip goes; or why that cannot be. */
export type AreaPasses =
  { passes: readonly Pass[]; floor: number; remarks?: readonly Remark[] } | { missing: string };

/** How many of the tools that would do are tried. */
const TRIED = 6;

/**
 * Plans with the tool that was found, or with the first of the others whose whole outline has room on all of its way where that one's has not.
 * What somebody chose is not put aside.
 */
export function planFirst(
  c: Pick<KindContext, 'chosen'>,
  { tool, others }: Found,
  plan: (tools: Found) => PlanResult,
): PlanResult {
  const own = plan({ tool, others });
  if (!('missing' in own) || c.chosen === tool.id) return own;
  for (const other of others.slice(0, TRIED)) {
    const result = plan({ tool: other, others: others.filter((t) => t !== other) });
    if (!('missing' in result)) return result;
  }
  return own;
}

/** Asks how areas are cut, has each one's passes made, and looks whether the tool's whole outline has room on all of them. */
export function planPasses(
  c: KindContext,
  parameters: Parameters,
  { tool, others }: Found,
  passesOf: (view: AreaView, way: AreaWay) => AreaPasses,
  {
    hasWalls = true,
    isNarrow = false,
    mostDown = Infinity,
    remarks: before = [],
  }: {
    hasWalls?: boolean;
    /** It clears in narrow steps, as deep as its flutes are long. */
    isNarrow?: boolean;
    /** Usual for it, mm. */
    mostDown?: number;
    remarks?: readonly Remark[];
  } = {},
): PlanResult {
  const remarks: Remark[] = [...before];
  const full = fullWidthCut(c.material, tool);
  const most = Math.min(isNarrow ? Infinity : full.depth, mostDown, FLUTE_SHARE * tool.fluteLength);
  const usual = Math.max(0.05, Math.floor(20 * most) / 20);
  const perLayer = Math.max(0.01, parameters.length('perPass', 'down a layer', usual, 'method'));
  const walls = hasWalls ? askWalls(parameters, tool, isNarrow ? NARROW_STEP : STEPOVER) : NO_WALLS;
  if (perLayer > tool.fluteLength + 1e-6)
    remarks.push({
      rule: 'pass-too-deep',
      severity: 'error',
      message: `${c.say(perLayer)} a layer is more than the flutes of ${tool.description} are long (${c.say(tool.fluteLength)}).`,
    });
  // A long cutter is fed slower: the table goes by how far it stands out.
  const numbers = cuttingNumbers(c, parameters, tool, tool.stickOut);
  remarks.push(...numbers.remarks);
  if (walls.approach !== null) remarks.push(radiusInControl(c, tool, MADE[first(c.areas).shape.side]));
  const work: Work[] = [];
  for (const v of c.areas) {
    const r = Math.max(c.space.setup.top, v.entryZ, v.metalZ) + c.setup.retract;
    const made = passesOf(v, { ...walls, perLayer, r });
    const missing = 'missing' in made ? made.missing : null;
    const own = 'missing' in made ? null : workOf(v, made, r);
    const hit = own && whyHits(c, tool, v, own);
    if (!own || hit)
      return {
        missing: `${v.label}: ${missing ?? hit ?? `${tool.description} has no room in it.`}`,
        holes: [v.label],
      };
    work.push(own);
    if (!('missing' in made)) remarks.push(...(made.remarks ?? []));
  }
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    feeds: {
      cut: (isNarrow ? 1 : full.feedShare) * numbers.feed,
      ramp: RAMP_SHARE * full.feedShare * numbers.feed,
      finish: numbers.feed,
      lead: Math.min(c.machine.maxFeed, LEAD_SHARE * numbers.feed),
    },
    work,
    parameters: parameters.list,
    remarks,
    // A much smaller one would do as well, and take many times as long.
    alternatives: [tool, ...others]
      .filter((t) => t.diameter >= NEARLY_AS_WIDE * tool.diameter)
      .map((t) => t.id),
  };
}

/** What an area's walls are those of. */
const MADE = { closed: 'pocket', open: 'step', outside: 'outline', top: 'step' } as const;
type WallWay = Pick<AreaWay, 'stepover' | 'stock' | 'rounds' | 'isClimb' | 'approach'>;
const NO_WALLS: WallWay = { stepover: 0, stock: 0, rounds: 0, isClimb: true, approach: null };

function askWalls(parameters: Parameters, tool: Tool, share: number): WallWay {
  const stepover = parameters.length('stepover', 'step sideways', share * tool.diameter, 'method');
  const stock = Math.max(0, parameters.length('finishStock', 'left on walls', FINISH_STOCK, 'method'));
  const spring = Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  const cutting = parameters.choice('cutting', 'cutting', AREA_CHOICES.cutting, 'climb', 'method');
  const rounds = (stock > 0 ? 1 : 0) + spring;
  const byControl =
    rounds > 0 &&
    parameters.choice('compensation', 'cutter radius', AREA_CHOICES.compensation, 'computed', 'method') !==
      'computed';
  return {
    stepover: Math.max(0.01, stepover),
    stock,
    rounds,
    approach: byControl ? tool.diameter / 2 + TAKEN_UP : null,
    isClimb: cutting === 'climb',
  };
}

function workOf(
  v: AreaView,
  { passes: [pass, ...rest], floor }: { passes: readonly Pass[]; floor: number },
  r: number,
): Work | null {
  if (!pass) return null;
  return {
    feature: v.feature.id,
    label: v.label,
    x: pass.start[0],
    y: pass.start[1],
    r,
    z: floor,
    entryZ: v.entryZ,
    metalZ: v.metalZ,
    motion: { kind: 'path', passes: [pass, ...rest] },
  };
}

/** Where a tool on its whole way would be in the finished part; null where nowhere. */
function whyHits(c: KindContext, tool: Tool, v: AreaView, work: Work): string | null {
  const discs = aboveFoot(c.discs(tool), v.shape.floorRadius);
  for (const [from, to] of stretchesOf(work, SAGITTA)) {
    const hit = c.space.partAlong(discs, from, to, BESIDE_WALL);
    if (hit) return hitInWords(c, tool, hit);
  }
  return null;
}
