import type { ToolNeed } from '../tools/find.ts';
import { chooseTool, type Chosen, type Cut } from './choose-tool.ts';
import type { HoleView, PlacedStep } from './hole-view.ts';
import type { KindContext, Parameters } from './kind.ts';

/** How far a tool that brings a hole to size goes past an exit, and how far it stays above a floor, mm. */
export interface SizingWay {
  breakThrough: number;
  clear: number;
}

/** A tool that brings an opened hole to size, and how deep it goes in each: past an exit, or clear of the floor. */
export function sizingTool(
  c: KindContext,
  parameters: Parameters,
  step: Extract<PlacedStep, { shape: 'cylinder' }>,
  need: ToolNeed,
  way: SizingWay,
): { found: Chosen; depth(hole: HoleView): number } {
  const through = c.holes[0]?.through ?? false;
  const clear = through
    ? -parameters.length('breakThrough', 'break-through', way.breakThrough, 'method', 'below exit')
    : parameters.length('clear', 'clear of the floor', way.clear, 'method', 'above the floor');
  const depth = (h: HoleView): number => h.depth - clear;
  const found = chooseTool(c, need, (t, h): Cut => ({
    tip: depth(h),
    allowed: {
      radius: Math.max(t.diameter, step.diameter) / 2 + 0.05,
      ...(h.through ? { open: 0.45 * step.diameter } : {}),
    },
  }));
  return { found, depth };
}
