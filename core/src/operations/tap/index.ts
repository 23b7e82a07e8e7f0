import { first } from '../../lists.ts';
import {
  drillDepthForTap,
  engagementPercent,
  LEAD_THREADS,
  startsOf,
  tapDepth,
  type TapLead,
  type Thread,
} from '../../threads/thread.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool, type Chosen } from '../choose-tool.ts';
import { mainDepth, startOfThread } from '../drill/index.ts';
import type { HoleView } from '../hole-view.ts';
import {
  Parameters,
  placeHoles,
  tapStyle,
  type KindContext,
  type OperationKind,
  type PlanResult,
  type Remark,
} from '../kind.ts';

/** Room above the entry in which the spindle comes up to speed, in pitches. */
const APPROACH_PITCHES = 3;

/** Taps in step with the spindle, right or left hand. */
export const tapKind: OperationKind = {
  kind: 'tap',
  cuts: ['holes'],
  label: 'tap',
  toolKinds: ['tap'],
  rank: 5,
  numbers: { threadDepth: 'full thread', byMachine: 'of it by machine', peck: 'peck depth' },
  choices: { pecks: ['in one go', 'in pecks'] },
  plan: planTap,
};

function planTap(c: KindContext): PlanResult {
  const { thread } = c;
  const hole = first(c.holes);
  if (!thread) return { missing: 'No thread is confirmed for this size.' };
  if (thread.form === 'pipe-tapered') return { missing: `${thread.designation} is tapered.` };
  if (startsOf(thread) > 1)
    return { missing: `${thread.designation} has ${startsOf(thread)} starts, which no tap here cuts.` };
  const start = startOfThread(hole);
  const style = tapStyle(c);
  const chosen = chooseTap(c, thread, hole, start, style);
  if ('missing' in chosen) return chosen;
  const { tool } = chosen;
  const tapped = threadOf(tool);
  const { lead } = tapped;
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const room = (h: HoleView): number => tapRoom(c, h, thread.pitch, lead) - start;
  const most = room(hole) - LEAD_THREADS[lead] * thread.pitch;
  const printed = c.print.threadDepth;
  const full = parameters.length(
    'threadDepth',
    'full thread',
    printed ?? most,
    printed !== undefined ? 'print' : 'model',
    printed !== undefined ? 'from the print' : hole.through ? 'right through' : 'as deep as the hole allows',
  );
  // A depth from the print or typed holds for every hole; otherwise each is threaded as deep as it allows.
  const isDepthSaid = first(parameters.list).source !== 'model';
  // In a weak machine or a deep hole the tap only starts the thread; the rest is cut by hand.
  const byMachine = Math.min(
    full,
    parameters.length('byMachine', 'of it by machine', full, 'method', 'the rest by hand'),
  );
  const isPartial = byMachine < full - 1e-6;
  if (isPartial)
    remarks.push({
      rule: 'rest-by-hand',
      severity: 'note',
      message: `${thread.designation} is tapped ${c.say(byMachine)} deep; the rest to ${c.say(full)} is to be tapped by hand.`,
      onSheet: `tap by hand from ${c.say(byMachine)} to ${c.say(full)}`,
    });
  const depth = tapDepth(byMachine, thread.pitch, lead);
  parameters.derived(
    'depth',
    'tip below entry',
    start + depth,
    `${c.say(byMachine)} + ${LEAD_THREADS[lead]} threads lead`,
  );
  if (!hole.through)
    parameters.derived(
      'drilled',
      'full ⌀ drilled to',
      mainDepth(c, hole),
      'must be one pitch beyond the tip',
      mainDepth(c, hole) === hole.depth ? 'model' : 'typed',
    );
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  parameters.derived('pitch', 'pitch', thread.pitch, 'feed = pitch × speed', 'table');
  if (tapped.style === 'cutting')
    parameters.shown(
      'engagement',
      'engagement',
      `${Math.round(engagementPercent(thread.majorDiameter, thread.pitch, thread.tapDrill))} %`,
    );
  remarks.push(...numbers.remarks);
  if (!hole.through && lead === 'spiral-point')
    remarks.push({
      rule: 'chips-forward',
      severity: 'warning',
      message:
        'A spiral-point tap pushes its chips ahead: in a blind hole they pack at the bottom. Use a plug or bottoming tap.',
    });
  return {
    tool,
    speed,
    feed,
    work: placeHoles(
      c,
      { how: 'tap', hand: thread.hand, ...peckOf(c, parameters, thread) },
      (h) => startOfThread(h) + (isDepthSaid || isPartial ? depth : room(h)),
      APPROACH_PITCHES * thread.pitch,
    ),
    parameters: parameters.list,
    remarks,
  };
}

/** Pecks in step with the spindle, where the machine knows them and they are asked for; one major diameter deep unless typed. */
function peckOf({ machine }: KindContext, parameters: Parameters, thread: Thread): { peck?: number } {
  if (!machine.pecksTaps) return {};
  const pecks = parameters.choice('pecks', 'taps', ['in one go', 'in pecks'], 'in one go', 'method');
  if (pecks === 'in one go') return {};
  return { peck: parameters.length('peck', 'peck depth', thread.majorDiameter, 'method', 'major diameter') };
}

/** The thread of a tap; a tap without one is none. */
function threadOf({ thread, description }: Tool): NonNullable<Tool['thread']> {
  if (!thread) throw new RangeError(`${description} has no thread`);
  return thread;
}

/** How far below the entry a tap's tip may go: past the exit by its lead, or a pitch short of what is drilled, mm. */
const tapRoom = (c: KindContext, h: HoleView, pitch: number, lead: TapLead): number =>
  mainDepth(c, h) + (h.through ? LEAD_THREADS[lead] * pitch : -pitch);

/** A tap whose lead fits in what is drilled and whose flutes reach: plug first in blind holes, spiral point in through ones. */
function chooseTap(
  c: KindContext,
  thread: Thread,
  hole: HoleView,
  start: number,
  style: 'forming' | undefined,
): Chosen {
  const { threadDepth } = c.print;
  const typed = c.decision.overrides[c.key]?.['threadDepth'];
  const said = typeof typed === 'number' ? typed : threadDepth;
  const leads: TapLead[] = hole.through
    ? ['spiral-point', 'plug', 'semi-bottoming', 'bottoming', 'taper']
    : ['plug', 'semi-bottoming', 'bottoming'];
  const need = {
    kind: 'tap' as const,
    thread: {
      designation: thread.designation,
      hand: thread.hand,
      pitch: thread.pitch,
      majorDiameter: thread.majorDiameter,
      style,
      leads: leads as string[],
    },
  };
  const drilled = Math.min(...c.holes.map((h) => mainDepth(c, h))) - start;
  const least = said ?? Math.min(thread.majorDiameter, drilled);
  const fits = (lead: TapLead): boolean =>
    hole.through || drillDepthForTap(tapDepth(least, thread.pitch, lead), thread.pitch) <= drilled + 1e-6;
  const tools = c.tools.filter((t) => !t.thread || fits(t.thread.lead));
  const found = chooseTool({ ...c, tools }, need, (tool, h) => {
    const { lead } = threadOf(tool);
    const tip =
      said === undefined
        ? tapRoom(c, h, thread.pitch, lead)
        : startOfThread(h) + tapDepth(said, thread.pitch, lead);
    return {
      tip,
      allowed: {
        radius: thread.majorDiameter / 2 + 0.05,
        ...(h.through ? { open: 0.45 * Math.min(thread.tapDrill, thread.majorDiameter) } : {}),
      },
    };
  });
  // Of the taps at hand the one with the shortest lead comes nearest.
  const [best] = c.tools
    .flatMap(({ thread: t }) =>
      t?.designation === thread.designation && t.hand === thread.hand && leads.includes(t.lead)
        ? [t.lead]
        : [],
    )
    .sort((p, q) => LEAD_THREADS[p] - LEAD_THREADS[q]);
  const fitting = leads.filter(fits);
  const wanted = { ...need, thread: { ...need.thread, leads: fitting } };
  if ('tool' in found) return found;
  if (!best || fits(best))
    return found.need && fitting.length > 0
      ? { ...found, need: { ...found.need, thread: wanted.thread } }
      : found;
  const deep = drillDepthForTap(tapDepth(least, thread.pitch, best), thread.pitch);
  const possible = drilled - thread.pitch - LEAD_THREADS[best] * thread.pitch;
  const ways = [
    ...(possible > 0 ? [`thread ${c.say(possible)} deep`] : []),
    ...(fits('bottoming') ? ['add a bottoming tap'] : []),
    'deepen the hole',
  ];
  const mend = `${ways.slice(0, -1).join(', ')}${ways.length > 1 ? ' or ' : ''}${ways[ways.length - 1]}`;
  return {
    ...(fitting.length > 0 ? { need: wanted } : {}),
    missing: `${thread.designation} with ${c.say(least)} of full thread and a ${best.replace('-', ' ')} tap needs ${c.say(deep)} of full diameter; the hole has ${c.say(drilled)}. ${first(mend).toUpperCase()}${mend.slice(1)}.`,
  };
}
