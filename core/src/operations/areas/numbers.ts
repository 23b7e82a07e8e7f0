import { levelsDown } from '../../motion/grooves/ramp.ts';
import type { KindContext, Remark } from '../kind.ts';
import type { ToolNeed } from '../../tools/find.ts';
import type { Tool } from '../../tools/schema.ts';

/** Left on each wall by roughing, mm, and the next way sideways, of the cutter. */
export const FINISH_STOCK = 0.2;
export const STEPOVER = 0.45;
/** Below an exit, mm. */
export const BREAK_THROUGH = 0.5;
/** Above the metal, where a way down begins, mm. */
export const ABOVE = 0.5;
/** Of its flutes, the most that a layer takes; deeper than this many diameters a wall is finished in layers. */
export const FLUTE_SHARE = 0.9;
const ONE_ROUND = 2.5;
/** Corners of a cutter and a floor that count as one, mm. */
export const SAME_CORNER = 0.02;
/** Steepest way down where the cutter says nothing, degrees. */
export const USUAL_RAMP = 3;

/** Numbers that a method may give to what clears an area. */
export const AREA_NUMBERS = {
  depth: 'floor below top',
  breakThrough: 'break-through',
  perPass: 'down a layer',
  stepover: 'step sideways',
  finishStock: 'left on walls',
  springPasses: 'spring passes',
} as const;
export const AREA_CHOICES = {
  cutting: ['climb', 'conventional'],
  compensation: ['computed', 'in the control'],
} as const;
/** How a cutter comes down into a closed area that is not opened before. */
export const ENTRIES = ['down its way', 'helix'] as const;
/** How a closed area is roughed: in layers of the cutter's whole width, or to the depth of its flutes in narrow steps. */
export const ROUGHING = ['layers', 'narrow steps'] as const;
/** One narrow step, of the cutter. */
export const NARROW_STEP = 0.1;
/** Whose the corners are that a wide cutter does not get into. */
export const CORNERS = ['narrower cutter', 'this cutter'] as const;

/** Levels at which a wall is finished, from the highest down: a long cutter bends where it takes all of it in one go. */
export function wallLevels(top: number, floor: number, tool: Tool): number[] {
  return levelsDown(top, floor, Math.min(FLUTE_SHARE * tool.fluteLength, ONE_ROUND * tool.diameter));
}

/** No wider a cutter is taken where an inside corner is sharp, mm: its radius stays there. */
const FOR_SHARP = 10;

/** The cutter for walls with a smallest inside corner; null: they have none. mm. */
export const cutterFor = (corner: number | null): ToolNeed => ({
  kind: 'end-mill',
  widest: true,
  ...(corner === null ? {} : { maxDiameter: corner === 0 ? FOR_SHARP : 2 * corner + 0.005 }),
});

/** What no round cutter makes is said. */
export const sharpCorner = (c: KindContext, label: string, tool: Tool): Remark => ({
  rule: 'sharp-corner',
  severity: 'warning',
  message: `${label} has a sharp inside corner, and ${tool.description} leaves R${c.say(tool.diameter / 2)} there. Take a narrower cutter, or give the corner a radius.`,
});
