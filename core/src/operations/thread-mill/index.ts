import { first } from '../../lists.ts';
import { taperedLength, threadSizes } from '../../threads/shape.ts';
import type { Thread } from '../../threads/thread.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseTool } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
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
import { millPasses, underGroove, wallRadius, type Mill } from './mill.ts';
import {
  askedThread,
  compensationRemarks,
  depthOf,
  formNeed,
  isLessThanOnePitch,
  isTimed,
  minorRemarks,
  shownNumbers,
  THREAD_CHOICES,
  THREAD_NUMBERS,
  threadFeeds,
  typedPasses,
  typedWay,
  widestTooth,
} from './numbers.ts';

/** Room beside the cutter when it goes down and up on the axis (N61), and below its tip in a blind hole, mm. */
const BESIDE = 0.2;
const BELOW = 0.2;
/** A cutter nearly as wide as its thread cuts a wrong profile: of the major diameter at most. */
const MOST_SHARE = 0.75;

/** Mills a thread inside: the cutter goes round the axis and along it in step with the lead. */
export const threadMillKind: OperationKind = {
  kind: 'thread-mill',
  cuts: ['holes'],
  label: 'thread mill',
  toolKinds: ['thread-mill'],
  rank: 5,
  millsThreads: true,
  numbers: THREAD_NUMBERS,
  choices: THREAD_CHOICES,
  plan: planThreadMill,
};

function planThreadMill(c: KindContext): PlanResult {
  const asked = askedThread(c);
  if ('missing' in asked) return asked;
  const { thread, usualLength, said } = asked;
  const hole = first(c.holes);
  const parameters = new Parameters(c);
  const before = c.opened > 0 ? c.opened : thread.tapDrill;
  const way = {
    ...typedWay(parameters, 'inside', c.machine),
    side: 'inside',
    thread,
    before,
    aside: 0,
  } as const;
  /** How deep full thread may go with a tool, below the thread's start. */
  const room = (t: Tool, h: HoleView): number =>
    h.through
      ? h.depth - startOfThread(h) + thread.pitch / 2
      : mainDepth(c, h) - startOfThread(h) - BELOW - underGroove({ ...way, tool: t });
  const full = (t: Tool, h: HoleView): number => said ?? Math.min(room(t, h), usualLength);
  const tipOf = (t: Tool, h: HoleView): number =>
    startOfThread(h) + full(t, h) + underGroove({ ...way, tool: t });
  const need = {
    kind: 'thread-mill',
    maxDiameter: Math.min(before - 2 * BESIDE, MOST_SHARE * thread.majorDiameter),
    widest: true,
    threadForm: formNeed(thread),
  } as const;
  const { major } = threadSizes(thread);
  const found = chooseTool(c, need, (t, h) => ({
    tip: tipOf(t, h),
    // What the cutter's own taper is wider above, it is nearer to the axis below.
    orbit: wallRadius({ ...way, tool: t }, t.threadForm?.tapered ? full(t, h) : 0),
    fault: tooThick(t, wallRadius({ ...way, tool: t }), before, tipOf(t, h), c.say),
    allowed: {
      radius: (major + way.fit) / 2 + 0.05,
      ...(h.through ? { open: 0.45 * Math.min(before, major) } : {}),
    },
  }));
  if ('missing' in found) return found;
  const { tool } = found;
  const short = c.holes.find((h) => !h.through && full(tool, h) > room(tool, h) + 1e-6);
  if (short)
    return {
      missing: `${thread.designation} with ${c.say(full(tool, short))} of full thread and ${tool.description} needs ${c.say(tipOf(tool, short) + BELOW)} of full diameter; the hole has ${c.say(mainDepth(c, short))}. ${
        way.leads === 'half circle' ? 'Go in by a quarter circle, thread' : 'Thread'
      } ${c.say(Math.max(0, room(tool, short)))} deep, or deepen the hole.`,
    };
  const none = c.holes.find((h) => isLessThanOnePitch(thread, full(tool, h)));
  if (none)
    return {
      missing: `${thread.designation} would have ${c.say(Math.max(0, full(tool, none)))} of full thread in ${none.label}, less than one pitch. Deepen the hole, or say a greater depth.`,
    };
  const deep = full(tool, hole);
  const depth = depthOf(parameters, deep, asked, depthInWords(thread, hole, deep));
  const mill: Mill = { ...way, tool, ...typedPasses(parameters, way, depth, isTimed(c)) };
  shownNumbers(parameters, mill, full(tool, hole), tipOf(tool, hole));
  const numbers = cuttingNumbers(c, parameters, tool, depth);
  const { speed, feed } = numbers;
  return {
    tool,
    speed,
    feed,
    feeds: threadFeeds(parameters, feed, c.machine),
    work: placeWork(
      c,
      (h) => tipOf(tool, h),
      (h, r) => ({
        kind: 'path',
        passes: millPasses(mill, {
          x: h.x,
          y: h.y,
          startZ: h.entryZ - startOfThread(h),
          full: full(tool, h),
          r,
        }),
      }),
    ),
    parameters: parameters.list,
    remarks: [
      ...numbers.remarks,
      ...minorRemarks(thread, before, c.say),
      ...lengthRemarks(thread, usualLength, full(tool, hole), c.say),
      ...compensationRemarks(mill, c.say),
    ],
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}

/** On the axis all teeth have room, and behind them the tool is thin enough to be led round in the hole; else why not. */
function tooThick(
  t: Tool,
  orbit: number,
  before: number,
  tip: number,
  say: (mm: number) => string,
): string | null {
  const teeth = widestTooth(t);
  if (teeth > before - 2 * BESIDE + 1e-6)
    return `the teeth of ${t.description} are \u2300${say(teeth)} at their widest, and the hole is opened to \u2300${say(before)}. Add a narrower one.`;
  const neck = t.neckDiameter ?? t.shankDiameter;
  if (tip <= t.fluteLength + 1e-6 || neck / 2 + orbit <= before / 2 - BESIDE / 2) return null;
  return `${t.description} has teeth up to ${say(t.fluteLength)} and is \u2300${say(neck)} above them, too thick to be led round in \u2300${say(before)}. Add one with a longer or slimmer neck.`;
}

function depthInWords(thread: Thread, hole: HoleView, full: number): string {
  if (thread.form === 'pipe-tapered' && Math.abs(full - (taperedLength(thread) ?? 0)) < 1e-6)
    return "the standard's length";
  return hole.through ? 'right through' : 'as deep as the hole allows';
}

/** A tapered thread shorter than the standard's may not seal. */
function lengthRemarks(thread: Thread, usual: number, full: number, say: (mm: number) => string): Remark[] {
  if (thread.form !== 'pipe-tapered' || full >= usual - 0.01) return [];
  return [
    {
      rule: 'short-taper',
      severity: 'warning',
      message: `${thread.designation} has ${say(full)} of full thread; the standard's length is ${say(usual)}. Check that the fitting seals.`,
    },
  ];
}
