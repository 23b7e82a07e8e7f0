import { pointLength } from '../../../cutting/depths.ts';
import { BREAK_THROUGH } from '../../../operations/drill/index.ts';
import { drilledStep } from '../../../operations/hole-view.ts';
import { USUAL_POINT } from '../../../tools/kinds/drill.ts';
import { DEPTH_TOLERANCE, isAsPlanned, type CheckContext, type Finding } from '../check.ts';
import {
  drillsOf,
  finding,
  isPilot,
  MUCH_BEYOND,
  pointOf,
  type DepthCheck,
  type DepthLine,
} from './common.ts';

/** A drill's full diameter to the hole's depth, its tip no deeper than a flat floor; a pilot's no mark below its drill. */
export const drillDepths: DepthCheck = (m, c) => (isPilot(m) ? pilotFindings(m, c) : drillDepth(m, m.tip, c));

/** A pilot leaves no mark below its drill, whatever was planned or typed; its depth is otherwise the plan's. */
function pilotFindings(m: DepthLine, c: CheckContext): Finding[] {
  const { tool } = m;
  const after = drillsOf(m, c);
  // What a drill leaves at the pilot's rim lies above its tip by the point of that diameter.
  const highest = Math.min(
    ...after.map((o) =>
      Math.max(
        o.call.z,
        o.call.z + pointLength(tool.diameter, o.tool.pointAngleDeg ?? USUAL_POINT) - pointOf(tool),
      ),
    ),
  );
  const over = after.length > 0 ? highest - m.call.z : 0;
  if (over > DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'pilot-too-deep',
        `the pilot goes ${c.say(over)} below what the drill after it leaves, and marks the floor. Write ${c.word('Z', highest)} at the lowest.`,
        'error',
      ),
    ];
  return isAsPlanned(m) || !m.planned ? [] : [offPlan(m, m.planned.hole.z, c)];
}

function offPlan(m: DepthLine, z: number, c: CheckContext): Finding {
  const over = z - m.call.z;
  return finding(
    m,
    'pilot-depth',
    `the pilot goes ${c.say(Math.abs(over))} ${over > 0 ? 'deeper' : 'less deep'} than planned. Write ${c.word('Z', z)}.`,
    over > 0 ? 'error' : 'warning',
  );
}

function drillDepth(m: DepthLine, tip: number, c: CheckContext): Finding[] {
  const { view: v, tool } = m;
  const point = pointOf(tool);
  const main = drilledStep(v);
  const own = v.steps.find((s) => s.shape === 'cylinder' && Math.abs(s.diameter - tool.diameter) < 0.02);
  const step = own ?? main;
  const full = tip - point;
  const isMain = step === main;
  const end = isMain ? v.depth : (step?.end ?? v.depth);
  if (v.through && isMain) return throughDepth(m, full - end, end + point, c);
  const pointed = v.bottom.shape === 'cone' && isMain;
  const floor =
    v.bottom.shape === 'cone' && isMain ? v.depth + pointLength(tool.diameter, v.bottom.angle) : end;
  const over = pointed ? Math.max(full - v.depth, 0) : tip - floor;
  const short = pointed ? v.depth - full : floor - tip;
  const right = c.word('Z', v.entryZ - (pointed ? v.depth + point : floor));
  const typed = isAsPlanned(m) ? ', as typed' : '';
  if (over > DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'too-deep',
        `the drill goes ${c.say(over)} deeper than the hole${typed}. ${right} would be right: the ${pointed ? 'full diameter' : 'tip'} then ends ${c.say(pointed ? v.depth : floor)} below the entry.`,
      ),
    ];
  if (short > DEPTH_TOLERANCE && isMain)
    return [
      finding(
        m,
        'too-shallow',
        `the drill stops ${c.say(short)} short of the hole's depth${typed}. ${right} would be right.`,
      ),
    ];
  return [];
}

/** Past an exit by more than is planned, or not through. `past`: how far the full diameter is past it; `least`: the tip's depth to get there. */
function throughDepth(m: DepthLine, past: number, least: number, c: CheckContext): Finding[] {
  const v = m.view;
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'breakThrough')?.value;
  const planned = typeof typed === 'number' ? typed : BREAK_THROUGH;
  const right = c.word('Z', v.entryZ - least - planned);
  if (past < -DEPTH_TOLERANCE)
    return [
      finding(
        m,
        'not-through',
        `the drill's full diameter ends ${c.say(-past)} above the exit. ${right} goes through with ${c.say(planned)} of break-through.`,
        'error',
      ),
    ];
  const over = past - planned;
  if (over <= 5 * DEPTH_TOLERANCE) return [];
  return [
    finding(
      m,
      'too-far-through',
      `the drill goes ${c.say(past)} past the exit, ${c.say(over)} more than planned, into what lies below. ${right} would do.`,
      over > MUCH_BEYOND ? 'error' : 'warning',
    ),
  ];
}
