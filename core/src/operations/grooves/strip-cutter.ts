import type { Tool } from '../../tools/schema.ts';
import type { ToolNeed } from '../../tools/find.ts';
import { chooseAmong, type Chosen } from '../choose-tool.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext, Parameters } from '../kind.ts';

/** How much wider than the groove a cutter may be measured to be, and how much narrower and still as wide as it, mm. */
const WIDER = 0.005;
export const NARROWER = 0.012;
/** Of the width: the narrowest cutter that is worth while, and the widest that leaves room to finish the walls. */
const LEAST_SHARE = 0.35;
const MOST_SHARE = 0.95;
/** Wider than this a cutter is taken for no groove, mm. */
const WIDEST = 20;
/** Corners of a cutter and a floor that count as one, mm. */
const SAME_CORNER = 0.02;

/** How wide a cutter is to be against its groove. */
export const CUTTERS = ['any', 'as wide as it', 'narrower'] as const;

/** The cutter as wide as the groove, or a narrower one, as the method wants it; by itself the first that there is. */
export function chooseCutter(
  c: KindContext,
  parameters: Parameters,
  width: number,
  foot: number,
  isAnyCorner: boolean,
  whyNot: (tool: Tool, view: GrooveView) => string | null,
): Chosen {
  const way = parameters.choice('cutter', 'cutter', CUTTERS, 'any', 'method');
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
