import { toolKind } from '../../../tools/kinds/registry.ts';
import { wideTo } from '../../milled.ts';
import { DEPTH_TOLERANCE, toolName } from '../check.ts';
import { finding, inSolid, MUCH_BEYOND, pointOf, type DepthCheck } from './common.ts';

/** Reamers, boring bars and plunging mills: no deeper than the hole is that wide, nor into what no drill has opened; as deep as planned. */
export const boredDepths: DepthCheck = (m, c) => {
  const { view: v, tool, tip } = m;
  const solid = toolKind(tool.kind).needsHole && !v.through ? inSolid(m, pointOf, c) : [];
  if (solid.length > 0) return solid;
  // The print may have it a little wider than the model.
  const slack = 0.03 + Math.max(0, m.row?.print.tolerance?.upper ?? 0);
  const floor = wideTo(v.steps, tool.diameter, v.through, slack);
  if (tip > floor + DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-deep',
        `${toolName(tool)} goes ${c.say(tip - floor)} deeper than the hole is that wide. ${c.word('Z', v.entryZ - floor)} at the lowest.`,
        'error',
      ),
    ];
  const planned = m.planned?.hole.z;
  if (planned !== undefined && m.call.z > planned + DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-shallow',
        `${toolName(tool)} stops ${c.say(m.call.z - planned)} above where it is to go. Write ${c.word('Z', planned)}.`,
      ),
    ];
  return v.through && planned !== undefined && planned - m.call.z > MUCH_BEYOND
    ? [
        finding(
          m,
          'too-far-through',
          `${toolName(tool)} goes ${c.say(planned - m.call.z)} farther past the exit than planned. Write ${c.word('Z', planned)}.`,
          'error',
        ),
      ]
    : [];
};
