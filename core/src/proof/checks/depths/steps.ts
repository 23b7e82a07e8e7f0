import { rimAt, tipForRim } from '../../../tools/cone.ts';
import { entryCone, rimLevel } from '../../../operations/hole-view.ts';
import { inSolid, offBy, pointOf, type DepthCheck } from './common.ts';

/** A counterbore's floor where the model has it. */
export const counterboreDepths: DepthCheck = (m, c) => {
  const { view: v, tool, tip } = m;
  const solid = inSolid(m, pointOf, c);
  if (solid.length > 0) return solid;
  const step = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02);
  if (!step) return [];
  const floor = `the counterbore's floor, ${c.say(step.end)} below the entry`;
  return offBy(m, tip - step.end, 'counterbore-depth', floor, step.end, c);
};

/** A rim that is broken straight down: as wide as it is wanted; in a countersink of the model, as that is. */
export const rimDepths: DepthCheck = (m, c) => {
  const rim = m.planned?.hole.wanted?.[0];
  if (!rim) return countersinkDepths(m, c);
  const made = rimAt(m.tool, rim.z - m.call.z);
  const depth = m.view.entryZ - rim.z + tipForRim(m.tool, rim.diameter);
  const what = `the broken rim of \u2300${c.say(rim.diameter)}`;
  return offBy(m, (made - rim.diameter) / 2, 'rim-size', what, depth, c);
};

/** A countersink's rim as wide as the model has it. */
export const countersinkDepths: DepthCheck = (m, c) => {
  const { view: v, tool, tip } = m;
  const cone = entryCone(v);
  if (!cone) return [];
  const solid = inSolid(m, () => 0, c);
  if (solid.length > 0) return solid;
  const rim = rimAt(tool, tip - rimLevel(v));
  const wanted = tipForRim(tool, cone.startDiameter);
  const what = `the countersink's rim of \u2300${c.say(cone.startDiameter)}`;
  return offBy(m, (rim - cone.startDiameter) / 2, 'countersink-size', what, wanted, c);
};
