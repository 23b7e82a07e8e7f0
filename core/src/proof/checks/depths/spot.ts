import { rimAt } from '../../../tools/cone.ts';
import { entryCone, rimLevel, type HoleView, type PlacedStep } from '../../../operations/hole-view.ts';
import type { Tool } from '../../../tools/schema.ts';
import { DEPTH_TOLERANCE, isAsPlanned, type CheckContext, type Finding } from '../check.ts';
import { finding, type DepthCheck, type DepthLine } from './common.ts';

/** A spot's rim as wide as planned, and no mark that stays. */
export const spotDepths: DepthCheck = (m, c) => spotFindings(m, rimAt(m.tool, m.tip - rimLevel(m.view)), c);

/** The widest that a spot's cone may be at a step's top: there it would leave a mark that nothing takes away. */
function spotMark(
  v: HoleView,
  tip: number,
  tool: Tool,
): { made: number; most: number; below: number } | null {
  for (const s of v.steps) {
    const most = s.shape === 'cone' ? s.startDiameter : s.diameter;
    const isFree = s === v.steps[0] && s.shape === 'cylinder' && v.steps.length === 1;
    const made = Math.min(rimAt(tool, Math.max(0, tip - s.top)), tool.diameter);
    // A plain hole's edge may be broken as wide as somebody likes.
    if (!isFree && tip > s.top && made > most + 2 * DEPTH_TOLERANCE) return { made, most, below: s.top };
  }
  return null;
}

function spotFindings(m: DepthLine, rim: number, c: CheckContext): Finding[] {
  const { view: v, tool } = m;
  if (isAsPlanned(m)) {
    const mark = spotMark(v, v.entryZ - m.call.z, tool);
    if (!mark) return [];
    const where = mark.below > 0 ? `, ${c.say(mark.below)} below the entry,` : '';
    return [
      finding(
        m,
        'spot-too-deep',
        `the spot leaves ⌀${c.say(mark.made)}${where} where the hole is ⌀${c.say(mark.most)}. Type a smaller rim.`,
      ),
    ];
  }
  const mend = m.planned ? ` Write ${c.word('Z', m.planned.hole.z)}.` : '';
  const metal = Math.max(v.entryZ - rimLevel(v), m.planned?.hole.metalZ ?? v.entryZ);
  if (m.call.z >= metal - DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'spot-in-air',
        `the spot stops at Z ${c.say(m.call.z)}, above the metal at ${c.say(metal)}: it cuts nothing.${mend}`,
      ),
    ];
  const wide = entryCone(v)?.startDiameter ?? widestAbove(v.steps) ?? Infinity;
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'rim')?.value;
  const planned = typeof typed === 'number' ? typed : null;
  const most = Math.min(planned ?? Infinity, wide, tool.diameter * 1.001);
  if (rim > most + 2 * DEPTH_TOLERANCE) {
    const than =
      rim > tool.diameter ? `the spot drill (⌀${c.say(tool.diameter)})` : `the ⌀${c.say(most)} wanted`;
    return [
      finding(m, 'spot-too-deep', `the spot leaves a rim of ⌀${c.say(rim)}, wider than ${than}.${mend}`),
    ];
  }
  if (planned !== null && rim < planned - 0.1)
    return [
      finding(
        m,
        'spot-too-shallow',
        `the spot leaves a rim of ⌀${c.say(rim)}; ⌀${c.say(planned)} is planned.${mend}`,
        rim < 0.3 * planned ? 'error' : 'warning',
      ),
    ];
  return [];
}

const widestAbove = (steps: PlacedStep[]): number | null => {
  const d = steps.slice(0, -1).flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  return d.length > 0 ? Math.max(...d) : null;
};
