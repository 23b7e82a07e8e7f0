import { startOfThread } from '../../../operations/drill/index.ts';
import { LEAD_THREADS } from '../../../threads/thread.ts';
import { DEPTH_TOLERANCE, toolName, type Finding } from '../check.ts';
import { drillsOf, finding, pointOf, type DepthCheck } from './common.ts';

/** A tap a pitch above what is drilled, and as deep as print or plan want full thread. */
export const tapDepths: DepthCheck = (m, c) => {
  const { view: v, tool } = m;
  if (!tool.thread) return [];
  const { pitch, lead } = tool.thread;
  const out: Finding[] = [];
  const start = startOfThread(v);
  const full = v.entryZ - m.call.z - start - LEAD_THREADS[lead] * pitch;
  const drilled = drillsOf(m, c).map((o) => o.call.z + pointOf(o.tool));
  const deepest = Math.min(...drilled);
  const over = drilled.length > 0 && !v.through ? deepest + pitch - m.call.z : 0;
  if (over > DEPTH_TOLERANCE)
    out.push(
      finding(
        m,
        'tap-too-deep',
        `the tap ends ${c.say(m.call.z - deepest)} above the drill's full diameter; it needs one pitch (${c.say(pitch)}). Write ${c.word('Z', m.call.z + over)} at the lowest, or drill ${c.say(over)} deeper.`,
        'error',
      ),
    );
  const typed = m.planned?.operation.parameters.find((p) => p.key === 'threadDepth')?.value;
  const printed = m.row?.print.threadDepth;
  const through = v.through ? v.depth - start : undefined;
  const asked = printed ?? through ?? (typeof typed === 'number' ? typed : undefined);
  // What is left to be tapped by hand is said on the sheet, and is no fault of the program.
  const started = m.planned?.operation.parameters.find((p) => p.key === 'byMachine')?.value;
  const isStarted = asked !== undefined && typeof started === 'number' && started < asked;
  const wanted = isStarted ? started : asked;
  if (wanted === undefined || wanted - full <= 2 * DEPTH_TOLERANCE) return out;
  const why = isStarted
    ? `${c.say(started)} are planned, the rest by hand`
    : printed !== undefined
      ? `the print asks for ${c.say(wanted)}`
      : v.through
        ? `the hole goes through at ${c.say(wanted)}`
        : `${c.say(wanted)} is planned`;
  const right = c.word('Z', v.entryZ - start - wanted - LEAD_THREADS[lead] * pitch);
  out.push(
    finding(
      m,
      v.through && printed === undefined ? 'tap-not-through' : 'thread-short',
      `${toolName(m.tool)} cuts ${c.say(Math.max(0, full))} of full thread; ${why}. ${right} would be right.`,
    ),
  );
  return out;
};
