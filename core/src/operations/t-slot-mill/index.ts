import { first, last } from '../../lists.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { LEVEL_ORDERS, levelTips, MOST_OVERLAP } from '../grooves/levels.ts';
import { tallest } from '../grooves/side.ts';
import { underWork, whyNotUnder } from '../grooves/under.ts';
import type { UnderLevel } from '../grooves/under-passes.ts';
import { sideCut } from '../grooves/planned.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult, type Remark } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** Levels overlap by so much, and so much is left on walls, ceiling and floor for a last way round, mm. */
const OVERLAP = 0.5;
const FINISH_STOCK = 0.2;
/** Of the cutter: from one way along to the next. */
const STEPOVER = 0.25;
/** How much higher than the head a cutter may be measured to be, mm. */
const HIGHER = 0.005;
/** Room between neck and mouth, mm. */
const NECK_ROOM = 0.2;

const CHOICES = {
  order: LEVEL_ORDERS,
  reference: ['lower face', 'upper face'],
  cutting: ['climb', 'conventional'],
} as const;

/** Cuts the head of a T-slot under its throat, level by level, straight in and out by its open ends (handbook, N72). */
export const tSlotMillKind: OperationKind = {
  kind: 't-slot-mill',
  cuts: ['grooves'],
  label: 'T-slot head',
  toolKinds: ['t-cutter'],
  rank: 2.5,
  makes: ['head'],
  numbers: {
    overlap: 'levels overlap',
    finishStock: 'left on walls',
    faceStock: 'left on ceiling and floor',
    stepover: 'step sideways',
    springPasses: 'spring passes',
  },
  choices: CHOICES,
  plan,
};

function plan(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const [throat, head] = [first(view.shape.levels), last(view.shape.levels)];
  if (view.shape.levels.length < 2) return { missing: `${view.label} has no head under a throat.` };
  const [half, mouth] = [head.halfTop, throat.halfTop];
  const height = head.top - head.bottom;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  parameters.derived('width', 'head width', 2 * half, 'in the model', 'model');
  parameters.derived('height', 'head height', height, 'in the model', 'model');
  const overlap = Math.max(0, parameters.length('overlap', 'levels overlap', OVERLAP, 'method'));
  const order = parameters.choice('order', 'levels', LEVEL_ORDERS, 'downward', 'method');
  // The widest that still leaves its neck room in the mouth at either wall.
  const need = {
    kind: 't-cutter',
    minDiameter: half + 0.5,
    maxDiameter: 2 * half + HIGHER,
    widest: true,
  } as const;
  const offOf = (t: Tool): number => Math.max(0, half - t.diameter / 2);
  const found = chooseAmong(c, need, c.grooves, {
    inMetal: (t, v) => v.metalZ - v.entryZ + Math.min(v.depth, t.neckLength ?? 0),
    whyNot: (t, v) => whyNot(c, t, v, offOf(t), mouth),
  });
  if ('missing' in found) return found;
  const tool = tallest(c, found, height);
  const off = offOf(tool);
  const lap = Math.min(overlap, MOST_OVERLAP * tool.fluteLength);
  const isHigh = tool.fluteLength >= height - HIGHER;
  const stock = Math.max(
    0,
    parameters.length('finishStock', 'left on walls', Math.min(FINISH_STOCK, off / 2), 'method'),
  );
  const usualFace = isHigh ? 0 : Math.min(FINISH_STOCK / 2, (height - tool.fluteLength) / 3);
  const face = isHigh
    ? 0
    : Math.min(
        (height - tool.fluteLength) / 2,
        Math.max(0, parameters.length('faceStock', 'left on ceiling and floor', usualFace, 'method')),
      );
  const stepover = Math.max(
    0.05,
    parameters.length('stepover', 'step sideways', STEPOVER * tool.diameter, 'method'),
  );
  const spring = Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  const isClimb = parameters.choice('cutting', 'cutting', CHOICES.cutting, 'climb', 'method') === 'climb';
  const levelsOf = (v: GrooveView): UnderLevel[] => {
    const own = last(v.shape.levels);
    const rough = levelTips(own.top - face, own.bottom + face, tool.fluteLength, lap, order);
    const finish =
      face > 0
        ? levelTips(own.top, own.bottom, tool.fluteLength, 0, order).filter((z) => isEnd(z, own, tool))
        : rough;
    const isTwice = face > 0 || stock > 0;
    return [
      ...(isTwice
        ? rough.map((z): UnderLevel => ({ z, off: Math.max(0, off - stock), feed: 'cut', rounds: 1 }))
        : []),
      ...wallLevels(isTwice, rough, finish).map((z): UnderLevel => ({
        z,
        off,
        feed: 'finish',
        rounds: 1 + spring,
      })),
    ];
  };
  const deepest = levelsOf(view);
  parameters.shown('levels', 'levels in all', String(deepest.length));
  const reference = parameters.choice('reference', 'depth to', CHOICES.reference, 'lower face', 'method');
  const lowest = view.entryZ - head.bottom;
  parameters.derived(
    'depth',
    `cutter's ${reference} below top`,
    reference === 'lower face' ? lowest : lowest - tool.fluteLength,
    'at the last level',
    'model',
  );
  const work = underWork(c, tool, levelsOf, { stepover, isClimb });
  if ('missing' in work) return work;
  return sideCut(c, parameters, { tool, others: [found.tool, ...found.others] }, work, remarks);
}

/** Walls are finished at every level; where ceiling and floor are left too, those levels are gone to once more. */
function wallLevels(isTwice: boolean, rough: readonly number[], finish: readonly number[]): number[] {
  if (!isTwice) return [...rough];
  const between = rough.filter((z) => !finish.some((f) => Math.abs(f - z) < 1e-6));
  return [...new Set([...between, ...finish])];
}

/** A level at the ceiling or on the floor. */
const isEnd = (z: number, head: { top: number; bottom: number }, tool: Tool): boolean =>
  Math.abs(z + tool.fluteLength - head.top) < 1e-6 || Math.abs(z - head.bottom) < 1e-6;

function whyNot(c: KindContext, tool: Tool, view: GrooveView, off: number, mouth: number): string | null {
  const head = last(view.shape.levels);
  const say = (mm: number): string => c.say(mm);
  if (tool.fluteLength > head.top - head.bottom + HIGHER)
    return `${view.label}: ${tool.description} is ${say(tool.fluteLength)} high, and the head ${say(head.top - head.bottom)}.`;
  const neck = (tool.neckDiameter ?? tool.shankDiameter) / 2;
  if (neck + off > mouth - NECK_ROOM)
    return `${view.label}: at the wall the neck of ${tool.description} (\u2300${say(2 * neck)}) stands ${say(off)} beside the middle, and the mouth is \u2300${say(2 * mouth)} wide. Take a wider cutter or a slimmer neck.`;
  const deep = view.metalZ - view.entryZ + (head.top - head.bottom) + (view.entryZ - head.top);
  const short = shortOf(c, tool, view.label, deep, view.metalZ - view.entryZ);
  if (short) return short;
  return whyNotUnder(c, view, tool, off, [head.top - tool.fluteLength, head.bottom]);
}
