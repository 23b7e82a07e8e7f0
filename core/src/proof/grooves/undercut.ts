import { mouthOf, offMiddle, pastEnd, topOf, type GrooveShape } from '../../features/groove-shape.ts';
import { besidePath } from '../../geometry/parallel.ts';
import type { ProfilePoint } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { chordsOf, type KnownMotion } from '../chords.ts';
import { beyondWalls } from '../../operations/grooves/fit.ts';

/** How much wider than it is a groove may be cut: both ends of a radius are rounded, mm. */
const SLACK = 0.01;
/** Heights of a motion that count as one, mm. */
const LEVEL = 1e-4;

/** What is wrong with a motion inside an undercut: a rule and what it does, in words. */
export interface Undercutting {
  rule: string;
  what: string;
}

/** Whether a groove is wider somewhere than its mouth. */
export const isUndercut = (shape: GrooveShape): boolean =>
  shape.levels.some((l) => Math.max(l.halfTop, l.halfBottom) > mouthOf(shape) + SLACK);

/** Whether a cutter at a place stands under what is beside the mouth: it could not be lifted there. */
export function isUnder(
  shape: GrooveShape,
  { diameter }: Tool,
  [x, y, z]: readonly [number, number, number],
): boolean {
  if (z > topOf(shape) - SLACK) return false;
  const { beyond } = besidePath(shape.path, [x, y]);
  const end = beyond === 'start' ? shape.ends[0] : beyond === 'end' ? shape.ends[1] : null;
  const isOut =
    beyond !== null &&
    end?.open === true &&
    pastEnd(shape.path, [x, y], beyond) > diameter / 2 + end.beyond - SLACK;
  return !isOut && offMiddle(shape, [x, y]) + diameter / 2 > mouthOf(shape) + SLACK;
}

/** Whether a motion goes under what is beside the mouth anywhere on its way. */
export const goesUnder = (shape: GrooveShape, tool: Tool, m: KnownMotion): boolean =>
  isUndercut(shape) &&
  chordsOf(m).some(({ from, to }) =>
    [0, 0.25, 0.5, 0.75, 1].some((t) =>
      isUnder(shape, tool, [
        from[0] + t * (to[0] - from[0]),
        from[1] + t * (to[1] - from[1]),
        from[2] + t * (to[2] - from[2]),
      ]),
    ),
  );

/**
 * What is wrong with a fed or rapid motion of a cutter in a groove that is wider than its mouth; null where nothing is. Straight grooves are
 * gone along straight; up and down is for where the cutter can be lifted.
 */
export function undercutting(
  shape: GrooveShape,
  m: KnownMotion,
  tool: Tool,
  profile: readonly ProfilePoint[],
  say: (mm: number) => string,
): Undercutting | null {
  const isIn = goesUnder(shape, tool, m);
  if (isIn && Math.abs(m.from[2] - m.to[2]) > LEVEL) {
    const isUp = m.to[2] > m.from[2];
    return isUnder(shape, tool, isUp ? m.from : m.to)
      ? {
          rule: 'up-or-down-in-undercut',
          what: `goes ${isUp ? 'up' : 'down'} to Z ${say(m.to[2])} where it stands under the part: it is wider than the mouth. Go out ${shape.bore === undefined ? (shape.isOneSided ? 'into the air before the wall' : 'past an open end') : 'to the axis'} first, at one level.`,
        }
      : null;
  }
  if (isIn && m.kind === 'arc' && shape.bore === undefined && !shape.isOneSided)
    return {
      rule: 'arc-in-undercut',
      what: `goes on an arc inside a slot that is wider than its mouth. Go straight along it.`,
    };
  for (const c of chordsOf(m))
    for (const p of [c.from, c.to]) {
      const worst = beyondWalls(shape, profile, p);
      if (worst && worst.by > SLACK)
        return {
          rule: 'beyond-wall',
          what: `stands ${say(worst.by)} beyond the wall at Z ${say(worst.z)} (${say(worst.r)} of it beside its axis). Check the path and the tool.`,
        };
    }
  return null;
}
