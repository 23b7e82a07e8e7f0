import type { Tool } from '../../tools/schema.ts';
import type { Chosen } from '../choose-tool.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext, Parameters } from '../kind.ts';
import { LEVEL_ORDERS, levelCount, MOST_OVERLAP, type LevelOrder } from './levels.ts';

/** Levels overlap by so much, where a cutter is high enough for it, and so much is left on the wall for a last way round, mm. */
const OVERLAP = 0.5;
const FINISH_STOCK = 0.1;
/** Of the cutter: how far it goes into a wall at once. */
const STEPOVER = 0.1;

/** Numbers and choices of what cuts a groove into a wall or a bore. */
export const SIDE_NUMBERS = {
  overlap: 'levels overlap',
  finishStock: 'left on the wall',
  stepover: 'step into the wall',
  springPasses: 'spring passes',
} as const;
export const SIDE_CHOICES = {
  order: LEVEL_ORDERS,
  reference: ['lower face', 'upper face'],
  cutting: ['climb', 'conventional'],
} as const;

/** How a groove is cut into a wall. */
export interface SideWay {
  overlap: number;
  order: LevelOrder;
  stock: number;
  stepover: number;
  /** Ways round at the finished wall: none where nothing is left for them. */
  rounds: number;
  isClimb: boolean;
}

/** Asks how a groove is cut into a wall, and shows where the named face of the cutter stands. */
export function levelParameters(
  parameters: Parameters,
  view: GrooveView,
  tool: Tool,
  { inWall, height }: { inWall: number; height: number },
): SideWay {
  const isHigh = tool.fluteLength >= height - 0.006;
  const usual = Math.min(OVERLAP, tool.fluteLength / 4);
  const overlap = isHigh
    ? usual
    : Math.min(
        MOST_OVERLAP * tool.fluteLength,
        Math.max(0, parameters.length('overlap', 'levels overlap', usual, 'method')),
      );
  const order = isHigh
    ? 'downward'
    : parameters.choice('order', 'levels', LEVEL_ORDERS, 'downward', 'method');
  parameters.shown('levels', 'levels', String(levelCount(height, tool.fluteLength, overlap)));
  const stock = Math.min(
    inWall,
    Math.max(
      0,
      parameters.length('finishStock', 'left on the wall', Math.min(FINISH_STOCK, inWall / 3), 'method'),
    ),
  );
  const stepover = Math.max(
    0.02,
    parameters.length('stepover', 'step into the wall', STEPOVER * tool.diameter, 'method'),
  );
  const spring = Math.max(0, Math.round(parameters.number('springPasses', 'spring passes', 0, 'method')));
  const isClimb =
    parameters.choice('cutting', 'cutting', SIDE_CHOICES.cutting, 'climb', 'method') === 'climb';
  const reference = parameters.choice(
    'reference',
    'depth to',
    SIDE_CHOICES.reference,
    'lower face',
    'method',
  );
  parameters.derived(
    'face',
    `cutter's ${reference}, from Z 0`,
    view.entryZ - view.depth + (reference === 'lower face' ? 0 : tool.fluteLength),
    'at the last level',
    'model',
  );
  return { overlap, order, stock, stepover, rounds: (stock > 0 ? 1 : 0) + spring, isClimb };
}

/** Of the cutters that do, the one that needs the fewest levels; the one that somebody chose goes before. */
export function tallest(c: KindContext, found: Exclude<Chosen, { missing: string }>, height: number): Tool {
  const all = [found.tool, ...found.others];
  const chosen = all.find((t) => t.id === c.chosen);
  if (chosen) return chosen;
  const count = (t: Tool): number => levelCount(height, t.fluteLength, Math.min(OVERLAP, t.fluteLength / 4));
  return all.reduce((best, t) => (count(t) < count(best) ? t : best));
}
