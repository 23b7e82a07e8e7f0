import { first } from '../../lists.ts';
import { bottomOf } from '../../features/groove-shape.ts';
import { parallelPath } from '../../geometry/parallel.ts';
import type { Segment } from '../../geometry/path.ts';
import { fullWidthCut } from '../../cutting/material.ts';
import { fallAt, rampAngleDeg, wayOf } from '../../motion/grooves/ramp.ts';
import type { Tool } from '../../tools/schema.ts';
import type { Pass, Work } from '../../motion/work.ts';
import { shortOf } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { partsOf, type GrooveView } from '../groove-view.ts';
import { radiusInControl } from '../radius-in-control.ts';
import { Parameters, type KindContext, type PlanResult, type Remark } from '../kind.ts';
import { grooveWork, LEAD_SHARE } from './planned.ts';
import { stripPasses, type StripCut } from './passes.ts';
import { pastEnds, whyInPart } from './reach.ts';
import { chooseCutter } from './strip-cutter.ts';
import { askWay } from './strip-way.ts';

/** Below an exit, mm. */
const BREAK_THROUGH = 0.5;
/** Steepest ramp where the cutter says nothing, degrees. */
const USUAL_RAMP = 3;
const RAMP_SHARE = 0.7;
const PLUNGE_SHARE = 0.3;
/** More ways down a ramp than this are no ramp: a hole to go in by is quicker. */
const MOST_PASSES = 80;
/** A throat between leaning flanks stays clear of their upper edges by so much, mm. */
const CLEAR_OF_FLANKS = 0.2;
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
  const way = wayOf(strip.path);
  const limitOf = (t: Tool): number => Math.min(t.rampAngleDeg ?? USUAL_RAMP, 89);
  // A cutter goes straight down only where it cuts nothing.
  const isOpened = (t: Tool): boolean => c.opened >= t.diameter - 0.01;
  const needsRamp = (t: Tool): boolean => !isOpened(t) && !hasFreeEnd(c, c.grooves, t, (v) => tipOf(t, v));
  const whyNoWayDown = (t: Tool): string | null =>
    needsRamp(t) && depth / fallAt(limitOf(t), way) > MOST_PASSES
      ? `${view.label} has ${c.say(way)} of way to ramp down along for ${t.description}: too little. Drill a hole to go in by first.`
      : null;
  const found = chooseCutter(c, parameters, strip.width, foot, strip.through || isThroat, (t, v) => {
    const short = shortOf(c, t, v.label, v.metalZ - v.entryZ + deepOf(v), v.metalZ - v.entryZ);
    if (short) return short;
    const { path } = stripOf(v);
    const off = Math.max(0, (strip.width - t.diameter) / 2);
    const walls = [parallelPath(path, -off, v.shape.closed), parallelPath(path, off, v.shape.closed)];
    if (walls.some((w) => w === null))
      return `${v.label}: its bends are too tight to lead a cutter round them.`;
    return whyInPart(c, t, v, walls as Segment[][], tipOf(t, v)) ?? whyNoWayDown(t);
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const off = Math.max(0, (strip.width - tool.diameter) / 2);
  const limit = limitOf(tool);
  const how = askWay(c, parameters, remarks, tool, { off, depth, isClosed: view.shape.closed });
  if (needsRamp(tool)) {
    const fall = Math.min(how.perPass, fallAt(limit, way));
    parameters.shown('ramp', 'ramp angle', `${rampAngleDeg(fall, way).toFixed(2)}°`);
  }
  // A long cutter is fed slower: the table goes by how far it stands out.
  const numbers = cuttingNumbers(c, parameters, tool, tool.stickOut);
  remarks.push(...numbers.remarks);
  const full = fullWidthCut(c.material, tool);
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
      ...how,
      ramp: limit,
      r,
      top: Math.max(v.entryZ, v.metalZ),
      floor: z,
      openTo: isOpened(tool) ? c.openedTo(v.label) : null,
    };
    const passes = stripPasses(cut);
    const [pass, ...walls] = passes ?? [];
    if (walls.some((w) => startHits(c, tool, w)))
      return {
        missing: `${v.label}: above its top there is no room for the straight way on which the control takes the radius up. Let the radius be computed.`,
        holes: [v.label],
      };
    if (!pass)
      return {
        missing: `${v.label}: its bends are too tight to lead a cutter round them.`,
        holes: [v.label],
      };
    cuts.push(grooveWork(v, [pass, ...walls], r, z));
  }
  if (how.control) remarks.push(radiusInControl(c, tool, 'groove'));
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    feeds: {
      cut: (how.circling === null ? full.feedShare : 1) * numbers.feed,
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
}

/** Whether the first two ways of a wall, above the part, meet it. */
function startHits(c: KindContext, tool: Tool, { moves }: Pass): boolean {
  const [away, on] = moves;
  if (away?.kind !== 'line' || on?.kind !== 'line') return false;
  return c.space.partAlong(c.discs(tool), away.to, on.to) !== null;
}

const hasFreeEnd = (
  c: KindContext,
  views: readonly GrooveView[],
  tool: Tool,
  z: (v: GrooveView) => number,
): boolean => views.every((v) => pastEnds(c, v, stripOf(v).path, tool, z(v)).some((p) => p.isFree));
