import { first } from '../../lists.ts';
import { bottomOf } from '../../features/groove-shape.ts';
import { parallelPath } from '../../geometry/parallel.ts';
import type { Segment } from '../../geometry/path.ts';
import { fullWidthCut } from '../../cutting/material.ts';
import { fallAt, rampAngleDeg, wayOf } from '../../motion/grooves/ramp.ts';
import type { Tool } from '../../tools/schema.ts';
import type { ToolNeed } from '../../tools/find.ts';
import type { Work } from '../../motion/work.ts';
import { chooseAmong, shortOf, type Chosen } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { partsOf, type GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type Planned, type PlanResult, type Remark } from '../kind.ts';
import { grooveWork, LEAD_SHARE } from './planned.ts';
import { stripPasses, type StripCut } from './passes.ts';
import { pastEnds, whyInPart } from './reach.ts';

/** How much wider than the groove a cutter may be measured to be, and how much narrower and still as wide as it, mm. */
const WIDER = 0.005;
const NARROWER = 0.012;
/** Of the width: the narrowest cutter that is worth while, and the widest that leaves room to finish the walls. */
const LEAST_SHARE = 0.35;
const MOST_SHARE = 0.95;
/** Wider than this a cutter is taken for no groove, mm. */
const WIDEST = 20;
/** Below an exit, mm. */
const BREAK_THROUGH = 0.5;
/** Steepest ramp where the cutter says nothing, degrees. */
const USUAL_RAMP = 3;
/** Left on each wall, and never more than this share of the room beside the cutter. */
const FINISH_STOCK = 0.2;
const STOCK_SHARE = 0.4;
/** From one way round to the next, of the cutter. */
const STEPOVER = 0.45;
/** Deeper than this many diameters a wall is finished in layers: a cutter that long bends in one go. */
const ONE_ROUND = 2.5;
/** Of its flutes, the most that a layer takes. */
const FLUTE_SHARE = 0.9;
/** A groove deeper than this many cutters is cleared in circles where there is room for them: of the cutter, the circle's least radius. */
const CIRCLES_FROM = 1.5;
const CIRCLE_ROOM = 0.08;
/** Of the cutter: a circle's step, and the widest circle that leaves no core. */
const CIRCLE_STEP = 0.1;
/** Above the metal, where a way down begins, mm. */
const ABOVE = 0.5;
/** How much longer than the cutter's radius the straight way is on which the control takes it up, mm. */
const TAKEN_UP = 1;
const RAMP_SHARE = 0.7;
const PLUNGE_SHARE = 0.3;
/** A throat between leaning flanks stays clear of their upper edges by so much, mm. */
const CLEAR_OF_FLANKS = 0.2;
/** Corners of a cutter and a floor that count as one, mm. */
const SAME_CORNER = 0.02;

/** Numbers that a method may give to what cuts a slot, groove or channel. */
export const STRIP_NUMBERS = {
  depth: 'floor below top',
  breakThrough: 'break-through',
  perPass: 'down a pass',
  finishStock: 'left on walls',
  springPasses: 'spring passes',
  startAbove: 'begins above the top',
  stepover: 'step sideways',
} as const;
export const STRIP_CHOICES = {
  cutter: ['any', 'as wide as it', 'narrower'],
  rough: ['by itself', 'layers', 'circles'],
  cutting: ['climb', 'conventional'],
  compensation: ['computed', 'in the control'],
} as const;

/** What is cut of a groove: its middle line, how wide and how deep. */
interface Strip {
  path: readonly Segment[];
  width: number;
  floor: number;
  through: boolean;
}

/** The strip itself, or the throat over a wider head. */
function stripOf({ shape }: GrooveView): Strip {
  const top = first(shape.levels);
  const isLeaning = top.halfTop !== top.halfBottom;
  return {
    path: top.path ?? shape.path,
    width: 2 * Math.min(top.halfTop, top.halfBottom) - (isLeaning ? 2 * CLEAR_OF_FLANKS : 0),
    floor: bottomOf(shape),
    through: shape.through,
  };
}

/** Plans a cut of one width along a middle line: of slots, grooves, channels and throats. */
export function planStrip(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const strip = stripOf(view);
  const isThroat = partsOf(view).includes('throat');
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  parameters.derived('width', isThroat ? 'throat' : 'width', strip.width, 'in the model', 'model');
  const model = view.entryZ - strip.floor;
  const depth = strip.through
    ? model
    : parameters.length('depth', 'floor below top', isThroat ? model - 0.2 : model, 'model', 'below the top');
  const beyond = strip.through
    ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'cutter below exit')
    : 0;
  const foot = isThroat ? 0 : view.shape.floorRadius;
  // Each goes to its own floor: sizes count as one over a few hundredths of depth, or whatever their depth is.
  const deepOf = (v: GrooveView): number => v.entryZ - stripOf(v).floor + depth - model + beyond;
  const tipOf = (t: Tool, v: GrooveView): number =>
    v.entryZ - deepOf(v) - (strip.through ? (t.cornerRadius ?? 0) : 0);
  const found = chooseCutter(c, parameters, strip.width, foot, strip.through || isThroat, (t, v) => {
    const short = shortOf(c, t, v.label, v.metalZ - v.entryZ + deepOf(v), v.metalZ - v.entryZ);
    if (short) return short;
    const { path } = stripOf(v);
    const off = Math.max(0, (strip.width - t.diameter) / 2);
    const walls = [parallelPath(path, -off, v.shape.closed), parallelPath(path, off, v.shape.closed)];
    if (walls.some((w) => w === null))
      return `${v.label}: its bends are too tight to lead a cutter round them.`;
    return whyInPart(c, t, v, walls as Segment[][], tipOf(t, v));
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const off = Math.max(0, (strip.width - tool.diameter) / 2);
  const isFull = off < NARROWER;
  const limit = tool.rampAngleDeg ?? USUAL_RAMP;
  const way = wayOf(strip.path);
  const full = fullWidthCut(c.material, tool);
  const usual = Math.max(0.05, Math.floor(20 * full.depth) / 20);
  const perPass = Math.max(0.01, parameters.length('perPass', 'down a pass', usual, 'method'));
  const stock = isFull
    ? 0
    : Math.max(
        0,
        parameters.length(
          'finishStock',
          'left on walls',
          Math.min(FINISH_STOCK, Math.floor(100 * STOCK_SHARE * off) / 100),
          'method',
        ),
      );
  if (stock > off)
    remarks.push({
      rule: 'no-room-for-stock',
      severity: 'error',
      message: `${c.say(stock)} is to be left on each wall, and the cutter has ${c.say(off)} of room beside it. Leave less, or take a narrower cutter.`,
    });
  const spring = isFull
    ? 0
    : Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  const stepover = isFull
    ? STEPOVER * tool.diameter
    : Math.max(0.01, parameters.length('stepover', 'step sideways', STEPOVER * tool.diameter, 'method'));
  const room = off - stock;
  const couldCircle = !isFull && !view.shape.closed && room <= tool.diameter / 2;
  const wouldCircle = depth > CIRCLES_FROM * tool.diameter && room > CIRCLE_ROOM * tool.diameter;
  const rough = couldCircle
    ? parameters.choice('rough', 'roughing', STRIP_CHOICES.rough, 'by itself', 'method')
    : 'layers';
  const inCircles = rough === 'circles' || (rough === 'by itself' && couldCircle && wouldCircle);
  const isClimb = isFull
    ? true
    : parameters.choice('cutting', 'cutting', STRIP_CHOICES.cutting, 'climb', 'method') === 'climb';
  const rounds = isFull ? 0 : (stock > 0 ? 1 : 0) + spring;
  // A control that is given helices in short lines is not asked to shift them too.
  const ways = c.machine.helices ? STRIP_CHOICES.compensation : (['computed'] as const);
  const byControl =
    rounds > 0 &&
    parameters.choice('compensation', 'cutter radius', ways, 'computed', 'method') !== 'computed';
  const above = Math.max(0.05, parameters.length('startAbove', 'begins above the top', ABOVE, 'method'));
  // A cutter goes straight down only where it cuts nothing.
  const isOpened = c.opened >= tool.diameter - 0.01;
  const needsRamp = !isOpened && !hasFreeEnd(c, c.grooves, tool, (v) => tipOf(tool, v));
  const fall = Math.min(perPass, fallAt(Math.min(limit, 89), way));
  if (needsRamp) {
    if (fall < 0.02)
      return {
        missing: `${view.label} has ${c.say(way)} of way to ramp down along for ${tool.description}: too little. Drill a hole to go in by first, or take a narrower cutter.`,
      };
    parameters.shown('ramp', 'ramp angle', `${rampAngleDeg(fall, way).toFixed(2)}°`);
  }
  if (perPass > tool.fluteLength + 1e-6)
    remarks.push({
      rule: 'pass-too-deep',
      severity: 'error',
      message: `${c.say(perPass)} a pass is more than the flutes of ${tool.description} are long (${c.say(tool.fluteLength)}).`,
    });
  // A long cutter is fed slower: the table goes by how far it stands out.
  const numbers = cuttingNumbers(c, parameters, tool, tool.stickOut);
  remarks.push(...numbers.remarks);
  const cuts: Work[] = [];
  for (const v of c.grooves) {
    const { path } = stripOf(v);
    const z = tipOf(tool, v);
    const past = pastEnds(c, v, path, tool, z);
    const r = Math.max(v.entryZ, v.metalZ) + c.setup.retract;
    const cut: StripCut = {
      middle: { path, closed: v.shape.closed, past: [past[0].by, past[1].by] },
      isFree: [past[0].isFree, past[1].isFree],
      diameter: tool.diameter,
      off: isFull ? 0 : off,
      stock,
      r,
      top: Math.max(v.entryZ, v.metalZ),
      floor: z,
      perPass,
      wallLayer: Math.min(FLUTE_SHARE * tool.fluteLength, ONE_ROUND * tool.diameter),
      ramp: limit,
      stepover,
      circleLayer: FLUTE_SHARE * tool.fluteLength,
      circling: inCircles ? CIRCLE_STEP * tool.diameter : null,
      rounds,
      isClimb,
      above,
      control: byControl ? { approach: tool.diameter / 2 + TAKEN_UP } : null,
      openTo: isOpened ? c.openedTo(v.label) : null,
    };
    const passes = stripPasses(cut);
    const [pass, ...walls] = passes ?? [];
    if (!pass)
      return {
        missing: `${v.label}: its bends are too tight to lead a cutter round them.`,
        holes: [v.label],
      };
    cuts.push(grooveWork(v, [pass, ...walls], r, z));
  }
  if (byControl) remarks.push(radiusRemark(tool, c.say(tool.diameter / 2)));
  const planned: Planned = {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    feeds: {
      cut: (inCircles ? 1 : full.feedShare) * numbers.feed,
      ramp: RAMP_SHARE * full.feedShare * numbers.feed,
      plunge: PLUNGE_SHARE * numbers.feed,
      finish: numbers.feed,
      lead: Math.min(c.machine.maxFeed, LEAD_SHARE * numbers.feed),
    },
    opens: strip.width,
    work: cuts,
    parameters: parameters.list,
    remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
  return planned;
}

/** Where the control compensates, the operator must know which number to change, and which way. */
function radiusRemark(tool: Tool, radius: string): Remark {
  const d = tool.number === null ? 'its D' : `D${tool.number}`;
  return {
    rule: 'radius-in-control',
    severity: 'note',
    message: `${d} holds the radius of ${tool.description}, ${radius}. A smaller one makes the groove wider, by twice as much.`,
    onSheet: `${d} = ${radius}, radius. groove too narrow: make ${d} smaller`,
  };
}

const hasFreeEnd = (
  c: KindContext,
  views: readonly GrooveView[],
  tool: Tool,
  z: (v: GrooveView) => number,
): boolean => views.every((v) => pastEnds(c, v, stripOf(v).path, tool, z(v)).some((p) => p.isFree));

/** The cutter as wide as the groove, or a narrower one, as the method wants it; by itself the first that there is. */
function chooseCutter(
  c: KindContext,
  parameters: Parameters,
  width: number,
  foot: number,
  isAnyCorner: boolean,
  whyNot: (tool: Tool, view: GrooveView) => string | null,
): Chosen {
  const way = parameters.choice('cutter', 'cutter', STRIP_CHOICES.cutter, 'any', 'method');
  const corner = (t: Tool): boolean =>
    foot > 0
      ? Math.abs((t.cornerRadius ?? 0) - foot) <= SAME_CORNER
      : isAnyCorner || (t.cornerRadius ?? 0) <= SAME_CORNER;
  const mills = { ...c, tools: c.tools.filter((t) => t.kind !== 'end-mill' || corner(t)) };
  const asked = {
    inMetal: (_: Tool, v: GrooveView): number => v.metalZ - v.entryZ + v.depth,
    whyNot,
  };
  const exact: ToolNeed = {
    kind: 'end-mill',
    minDiameter: width - NARROWER,
    maxDiameter: width + WIDER,
    widest: true,
  };
  const narrower: ToolNeed = {
    kind: 'end-mill',
    minDiameter: Math.min(LEAST_SHARE * width, WIDEST / 2),
    maxDiameter: Math.min(MOST_SHARE * width, WIDEST),
    widest: true,
  };
  const wide = way === 'narrower' ? null : chooseAmong(mills, exact, c.grooves, asked);
  if (wide && (!('missing' in wide) || way === 'as wide as it')) return wide;
  const slim = chooseAmong(mills, narrower, c.grooves, asked);
  // Where there is one of its width alone, what keeps that from it says more.
  const isThere = ({ minDiameter = 0, maxDiameter = Infinity }: ToolNeed): boolean =>
    mills.tools.some((t) => t.kind === 'end-mill' && t.diameter >= minDiameter && t.diameter <= maxDiameter);
  if (wide && 'missing' in slim && isThere(exact) && !isThere(narrower)) return wide;
  if (!('missing' in slim) || foot === 0) return slim;
  return { ...slim, missing: `${slim.missing} Its corner must be the floor's own, R${c.say(foot)}.` };
}
