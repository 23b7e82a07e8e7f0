import { TAKEN_UP } from '../radius-in-control.ts';
import { fullWidthCut } from '../../cutting/material.ts';
import type { Tool } from '../../tools/schema.ts';
import type { KindContext, Parameters, Remark } from '../kind.ts';
import type { StripCut } from './passes.ts';
import { CUTTERS, NARROWER } from './strip-cutter.ts';

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
/** Choices that a method may make for it. */
export const STRIP_CHOICES = {
  cutter: CUTTERS,
  rough: ['by itself', 'layers', 'circles'],
  cutting: ['climb', 'conventional'],
  compensation: ['computed', 'in the control'],
} as const;

/** How a strip is cut, as far as it is one for all of a size. */
export type StripWay = Pick<
  StripCut,
  | 'off'
  | 'stock'
  | 'perPass'
  | 'wallLayer'
  | 'stepover'
  | 'circling'
  | 'circleLayer'
  | 'rounds'
  | 'isClimb'
  | 'above'
  | 'control'
>;

/** Asks how a strip is cut by a cutter that has `off` of room beside it. What speaks against what was typed is added to the remarks. mm. */
export function askWay(
  c: KindContext,
  parameters: Parameters,
  remarks: Remark[],
  tool: Tool,
  { off, depth, isClosed }: { off: number; depth: number; isClosed: boolean },
): StripWay {
  const isFull = off < NARROWER;
  const usual = Math.max(0.05, Math.floor(20 * fullWidthCut(c.material, tool).depth) / 20);
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
  const couldCircle = !isFull && !isClosed && room <= tool.diameter / 2;
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
  if (perPass > tool.fluteLength + 1e-6)
    remarks.push({
      rule: 'pass-too-deep',
      severity: 'error',
      message: `${c.say(perPass)} a pass is more than the flutes of ${tool.description} are long (${c.say(tool.fluteLength)}).`,
    });
  return {
    off: isFull ? 0 : off,
    stock,
    perPass,
    wallLayer: Math.min(FLUTE_SHARE * tool.fluteLength, ONE_ROUND * tool.diameter),
    stepover,
    circling: inCircles ? CIRCLE_STEP * tool.diameter : null,
    circleLayer: FLUTE_SHARE * tool.fluteLength,
    rounds,
    isClimb,
    above,
    control: byControl ? { approach: tool.diameter / 2 + TAKEN_UP } : null,
  };
}
