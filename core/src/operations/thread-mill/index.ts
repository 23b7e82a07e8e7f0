import { first } from '../../lists.ts';
import { insideShare } from '../../motion/circles.ts';
import {
  goesUp,
  leadShare,
  passRadii,
  THREAD_LEADS,
  threadBands,
  threadMoves,
  type ThreadLead,
} from '../../motion/thread-helix.ts';
import type { Pass } from '../../motion/work.ts';
import { minorLimits6H } from '../../threads/standards.ts';
import type { Thread } from '../../threads/thread.ts';
import type { Tool } from '../../tools/schema.ts';
import { firstTooth } from '../../tools/kinds/thread-mill.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { chooseTool } from '../choose-tool.ts';
import { mainDepth, startOfThread } from '../drill/index.ts';
import type { HoleView } from '../hole-view.ts';
import {
  Parameters,
  placeWork,
  type KindContext,
  type OperationKind,
  type PlanResult,
  type Remark,
} from '../kind.ts';

/** Room beside the cutter when it goes down and up on the axis (N61), and below its tip in a blind hole, mm. */
const BESIDE = 0.2;
const BELOW = 0.2;
/** A cutter nearly as wide as its thread cuts a wrong profile: of the major diameter at most. */
const MOST_SHARE = 0.75;
/** Pitches up to which so many passes are usual, mm. */
const PASSES = [
  { upTo: 1.5, passes: 1 },
  { upTo: 3, passes: 2 },
  { upTo: Infinity, passes: 3 },
] as const;
/** The way in is fed at this share, ways in the air at this one. */
const IN_SHARE = 0.5;
const AIR_SHARE = 2;

/** Mills a thread inside: the cutter goes round the axis and along it in step with the lead. */
export const threadMillKind: OperationKind = {
  kind: 'thread-mill',
  label: 'thread mill',
  toolKinds: ['thread-mill'],
  rank: 5,
  numbers: {
    threadDepth: 'full thread',
    passes: 'passes',
    springPasses: 'spring passes',
    fit: 'pitch \u2300 wider by',
  },
  choices: { cut: ['climb', 'conventional'], leads: THREAD_LEADS },
  plan: planThreadMill,
};

function planThreadMill(c: KindContext): PlanResult {
  const { thread } = c;
  const hole = first(c.holes);
  if (!thread) return { missing: 'No thread is confirmed for this size.' };
  if (thread.form === 'pipe-tapered')
    return { missing: `${thread.designation} is tapered: no method mills tapered threads yet.` };
  const parameters = new Parameters(c);
  const opened = c.opened > 0 ? c.opened : thread.tapDrill;
  const leads = parameters.choice('leads', 'in and out by', THREAD_LEADS, 'half circle', 'method');
  const cut = parameters.choice('cut', 'cuts', ['climb', 'conventional'], 'climb', 'method');
  const fit = parameters.length('fit', 'pitch \u2300 wider by', 0, 'method', 'for the gauge');
  const major = thread.majorDiameter + fit;
  const lead = thread.pitch;
  const printed = c.print.threadDepth;
  const typed = c.decision.overrides[c.key]?.['threadDepth'];
  const said = typeof typed === 'number' ? typed : printed;
  // Below the lowest groove: half a tooth, and what the way in or out goes deeper.
  const under = (t: Tool): number => firstTooth(t) + lead * leadShare(leads);
  /** How deep full thread may go with a tool, below the thread's start. */
  const room = (t: Tool, h: HoleView): number =>
    h.through
      ? h.depth - startOfThread(h) + thread.pitch / 2
      : mainDepth(c, h) - startOfThread(h) - BELOW - under(t);
  const full = (t: Tool, h: HoleView): number => (said === undefined ? room(t, h) : said);
  const tipOf = (t: Tool, h: HoleView): number => startOfThread(h) + full(t, h) + under(t);
  const need = {
    kind: 'thread-mill',
    maxDiameter: Math.min(opened - 2 * BESIDE, MOST_SHARE * thread.majorDiameter),
    widest: true,
    threadForm: {
      pitch: thread.pitch,
      angleDeg: thread.form === 'pipe-parallel' ? 55 : 60,
      tapered: false,
    },
  } as const;
  // Behind its teeth it must be thin enough to be led round in the hole.
  const isThin = (t: Tool, h: HoleView): boolean =>
    tipOf(t, h) <= t.fluteLength + 1e-6 ||
    (t.neckDiameter ?? t.shankDiameter) / 2 + (major - t.diameter) / 2 <= opened / 2 - BESIDE / 2;
  const fits = c.tools.filter((t) => c.holes.every((h) => isThin(t, h)));
  const found = chooseTool({ ...c, tools: fits }, need, (t, h) => ({
    tip: tipOf(t, h),
    orbit: (major - t.diameter) / 2,
    allowed: { radius: major / 2 + 0.05, ...(h.through ? { open: 0.45 * Math.min(opened, major) } : {}) },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const short = c.holes.find((h) => full(tool, h) > room(tool, h) + 1e-6);
  if (short && !short.through)
    return {
      missing: `${thread.designation} with ${c.say(full(tool, short))} of full thread and ${tool.description} needs ${c.say(tipOf(tool, short) + BELOW)} of full diameter; the hole has ${c.say(mainDepth(c, short))}. ${
        leads === 'half circle' ? 'Go in by a quarter circle, thread' : 'Thread'
      } ${c.say(Math.max(0, room(tool, short)))} deep, or deepen the hole.`,
    };
  const none = c.holes.find((h) => full(tool, h) < thread.pitch - 1e-6);
  if (none)
    return {
      missing: `${thread.designation} would have ${c.say(Math.max(0, full(tool, none)))} of full thread in ${none.label}, less than one pitch. Deepen the hole, or say a greater depth.`,
    };
  const depth = parameters.length(
    'threadDepth',
    'full thread',
    full(tool, hole),
    printed !== undefined ? 'print' : 'model',
    printed !== undefined ? 'from the print' : hole.through ? 'right through' : 'as deep as the hole allows',
  );
  parameters.derived('diameter', 'major \u2300', major, thread.designation, 'print');
  parameters.derived('pitch', 'pitch', thread.pitch, 'along in one turn', 'table');
  parameters.derived('depth', 'tip below entry', tipOf(tool, hole), 'half a tooth and the way in below it');
  const usual = PASSES.find((p) => thread.pitch <= p.upTo + 1e-6)?.passes ?? 1;
  const count = (key: string, label: string, value: number): number =>
    Math.max(0, Math.min(20, Math.round(parameters.number(key, label, value, 'method'))));
  const passes = Math.max(1, count('passes', 'passes', usual));
  const spring = count('springPasses', 'spring passes', 0);
  // Inside a climbing cutter goes counter-clockwise, for either hand (handbook, Thread milling).
  const clockwise = cut === 'conventional';
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  const mill: Mill = { thread, tool, major, opened, passes, spring, clockwise, leads };
  parameters.shown('turns', 'turns', turnsInWords(mill, full(tool, hole)));
  return {
    tool,
    speed,
    feed,
    feeds: {
      thread: feed,
      finish: feed,
      ramp: IN_SHARE * feed,
      lead: Math.min(c.machine.maxFeed, AIR_SHARE * feed),
    },
    work: placeWork(
      c,
      (h) => tipOf(tool, h),
      (h, r) => ({ kind: 'path', passes: [threadPath(mill, h, r, full(tool, h))] }),
    ),
    parameters: parameters.list,
    remarks: [...numbers.remarks, ...minorRemarks(thread, opened, c.say)],
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}

/** Rounding of a drawn diameter, mm. */
const DRAWN = 0.005;

/** A hole outside the limits of the thread's minor diameter fails its plug gauge, whatever is milled into it (ISO 965-1, 6H). */
function minorRemarks(thread: Thread, opened: number, say: (mm: number) => string): Remark[] {
  if (thread.form !== 'metric') return [];
  const { min, max } = minorLimits6H(thread.majorDiameter, thread.pitch);
  if (opened >= min - DRAWN && opened <= max + DRAWN) return [];
  return [
    {
      rule: 'minor-limits',
      severity: 'warning',
      message: `${thread.designation} 6H has a minor diameter of ${say(min)} to ${say(max)}; the hole is opened to ${say(opened)}. Open it to within these.`,
    },
  ];
}

/** What a thread is cut by. */
interface Mill {
  thread: Thread;
  tool: Tool;
  major: number;
  /** Diameter that is open before. */
  opened: number;
  passes: number;
  spring: number;
  clockwise: boolean;
  leads: ThreadLead;
}

/** How far the lowest groove is from where the thread has run out above the entry, mm: half a pitch beyond. */
const bandsOf = ({ thread: { pitch }, tool }: Mill, full: number): ReturnType<typeof threadBands> =>
  threadBands(full + pitch / 2, pitch, pitch, tool.threadForm?.rows ?? 1);

function turnsInWords(m: Mill, full: number): string {
  const { offsets, turns } = bandsOf(m, full);
  const way = goesUp({ hand: m.thread.hand, clockwise: m.clockwise }) ? 'up' : 'down';
  return `${offsets.length > 1 ? `${offsets.length} bands of ` : ''}${turns} ${way}`;
}

/** The whole way in one hole, down from R: from what is open to full depth, then the spring passes; between passes it is on the axis. */
function threadPath(m: Mill, h: HoleView, r: number, full: number): Pass {
  const { tool, major, thread } = m;
  const low = h.entryZ - startOfThread(h) - full - firstTooth(tool);
  const wall = (major - tool.diameter) / 2;
  const radii = passRadii(Math.min(wall, Math.max(0, (m.opened - tool.diameter) / 2)), wall, m.passes);
  const { offsets, turns } = bandsOf(m, full);
  const moves = [...radii, ...Array.from({ length: m.spring }, () => wall)].flatMap((radius, n) =>
    offsets.flatMap((offset) =>
      threadMoves(
        {
          x: h.x,
          y: h.y,
          radius,
          lead: thread.pitch,
          hand: thread.hand,
          clockwise: m.clockwise,
          low: low + offset,
          turns,
          angle: 0,
          leads: m.leads,
        },
        {
          in: 'ramp',
          turns: n < m.passes ? 'thread' : 'finish',
          share: insideShare(2 * radius + tool.diameter, tool.diameter),
        },
      ),
    ),
  );
  return { start: [h.x, h.y, r], moves };
}
