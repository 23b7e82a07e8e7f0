import { speedAndFeed } from '../../cutting/material.ts';
import { drillDepthForTap, engagementPercent, LEAD_THREADS, tapDepth, type TapLead } from '../../threads/thread.ts';
import { findTool } from '../../tools/find.ts';
import { startOfThread } from '../drill/index.ts';
import type { HoleView } from '../hole-view.ts';
import { Parameters, placeHoles, type KindContext, type OperationKind, type PlanResult, type Remark } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** Room above the entry in which the spindle comes up to speed, in pitches. */
const APPROACH_PITCHES = 3;

/** Taps in step with the spindle; right hand G84, left hand G74. */
export const tapKind: OperationKind = {
  kind: 'tap',
  label: 'tap',
  toolKinds: ['tap'],
  cycles: ['G84', 'G74'],
  rank: 5,
  plan: planTap,
};

function planTap(c: KindContext): PlanResult {
  const { thread } = c;
  const hole = c.holes[0]!;
  if (!thread) return { missing: 'No thread is confirmed for this size.' };
  if (thread.form === 'pipe-tapered') return { missing: `${thread.designation} is tapered: it is milled or tapped by hand, which no method does yet.` };
  const start = startOfThread(hole);
  const style = c.decision.overrides['tap']?.['style'] === 'forming' ? ('forming' as const) : undefined;
  const chosen = chooseTap(c, hole, start, style);
  if ('missing' in chosen) return chosen;
  const { tool, lead } = chosen;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const room = (h: HoleView): number => (h.through ? h.depth + LEAD_THREADS[lead] * thread.pitch : h.depth - thread.pitch) - start;
  const most = room(hole) - LEAD_THREADS[lead] * thread.pitch;
  const printed = c.decision.threadDepth;
  const full = parameters.length(
    'threadDepth',
    'full thread',
    printed ?? most,
    printed !== undefined ? 'print' : 'model',
    printed !== undefined ? 'from the print' : hole.through ? 'right through' : 'as deep as the hole allows',
  );
  // A depth from the print or typed holds for every hole; otherwise each is threaded as deep as it allows.
  const isDepthSaid = parameters.list[0]!.source !== 'model';
  const depth = tapDepth(full, thread.pitch, lead);
  parameters.derived('depth', 'tip below entry', start + depth, `${c.say(full)} + ${LEAD_THREADS[lead]} threads lead`);
  if (!hole.through) parameters.derived('drilled', 'full ⌀ drilled to', hole.depth, 'must be one pitch beyond the tip', 'model');
  const { speed, feed, clamped } = speedAndFeed(tool, c.material, c.machine, depth);
  parameters.derived('pitch', 'pitch', thread.pitch, 'feed = pitch × speed', 'table');
  if (tool.thread!.style === 'cutting') parameters.shown('engagement', 'engagement', `${Math.round(engagementPercent(thread.majorDiameter, thread.pitch, thread.tapDrill))} %`);
  if (clamped) remarks.push({ rule: 'machine-limit', severity: 'note', message: `The machine's ${clamped} limit sets the tap's speed to ${speed} rpm; the feed follows.` });
  if (!hole.through && lead === 'spiral-point')
    remarks.push({
      rule: 'chips-forward',
      severity: 'warning',
      message: 'A spiral-point tap pushes its chips ahead: in a blind hole they pack at the bottom. Use a plug or bottoming tap.',
    });
  return {
    tool,
    cycle: thread.hand === 'left' ? 'G74' : 'G84',
    speed,
    feed,
    holes: placeHoles(c, (h) => startOfThread(h) + (isDepthSaid ? depth : room(h)), APPROACH_PITCHES * thread.pitch),
    parameters: parameters.list,
    remarks,
  };
}

/** A tap whose lead fits in what is drilled: plug first in blind holes, spiral point in through ones. */
function chooseTap(c: KindContext, hole: HoleView, start: number, style: 'forming' | undefined): { tool: Tool; lead: TapLead } | { missing: string } {
  const thread = c.thread!;
  const leads: TapLead[] = hole.through ? ['spiral-point', 'plug', 'bottoming'] : ['plug', 'bottoming'];
  const reach = c.decision.threadDepth !== undefined ? start + c.decision.threadDepth : undefined;
  const need = { kind: 'tap' as const, thread: { designation: thread.designation, hand: thread.hand, style, leads: leads as string[] }, reach };
  const any = findTool(c.tools, need, c.say);
  if ('missing' in any) return any;
  const drilled = Math.min(...c.holes.map((h) => h.depth)) - start;
  for (const lead of leads) {
    const found = findTool(c.tools, { ...need, thread: { ...need.thread, leads: [lead] } }, c.say);
    if ('missing' in found) continue;
    const full = c.decision.threadDepth ?? Math.min(thread.majorDiameter, drilled);
    if (hole.through || drillDepthForTap(tapDepth(full, thread.pitch, lead), thread.pitch) <= drilled + 1e-6) return { tool: found.tool, lead };
  }
  const lead = any.tool.thread!.lead;
  const full = c.decision.threadDepth ?? Math.min(thread.majorDiameter, drilled);
  const need2 = drillDepthForTap(tapDepth(full, thread.pitch, lead), thread.pitch);
  const possible = drilled - thread.pitch - LEAD_THREADS[lead] * thread.pitch;
  return {
    missing: `${thread.designation} with ${c.say(full)} of full thread and a ${lead.replace('-', ' ')} tap needs ${c.say(need2)} of full diameter; the hole has ${c.say(drilled)}. ${possible > 0 ? `Thread ${c.say(possible)} deep, add a bottoming tap, or deepen the hole.` : 'Add a bottoming tap or deepen the hole.'}`,
  };
}
