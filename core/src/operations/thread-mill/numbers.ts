import { isClockwise, THREAD_LEADS } from '../../motion/thread-helix.ts';
import type { FeedRole } from '../../motion/work.ts';
import { minorLimits } from '../../threads/minor-limits.ts';
import { flankAngle, taperedLength, type ThreadSide } from '../../threads/shape.ts';
import type { Thread } from '../../threads/thread.ts';
import type { ToolNeed } from '../../tools/find.ts';
import type { MachineProfile } from '../../code/profiles/schema.ts';
import type { Tool } from '../../tools/schema.ts';
import { setNumber, type KindContext, type Missing, type Parameters, type Remark } from '../kind.ts';
import { angleAtStart, cutSizes, turnsInWords, type Mill } from './mill.ts';

/** Pitches up to which so many passes are usual, mm. */
const PASSES = [
  { upTo: 1.5, passes: 1 },
  { upTo: 3, passes: 2 },
  { upTo: Infinity, passes: 3 },
] as const;
/** The way in is fed at this share where nothing else is said, ways in the air at this one. */
const IN_SHARE = 0.5;
const AIR_SHARE = 2;
const LEAST_IN = 0.05;

/** What a method may say of it, inside and outside. */
export const THREAD_NUMBERS = {
  threadDepth: 'full thread',
  passes: 'passes',
  springPasses: 'spring passes',
  fit: 'pitch \u2300 wider by',
  startAngle: 'begins at, \u00b0',
  leadIn: 'way in, share of feed',
} as const;
export const THREAD_CHOICES = {
  cut: ['climb', 'conventional'],
  compensation: ['computed', 'in the control'],
  leads: THREAD_LEADS,
} as const;

/** The thread that is asked for, and how deep it is to be full: usually, by the print, and as somebody says; mm. */
export interface AskedThread {
  thread: Thread;
  usualLength: number;
  printed: number | undefined;
  said: number | undefined;
}

/** What is asked for, or why it cannot be had. */
export function askedThread(c: KindContext): AskedThread | Missing {
  const { thread } = c;
  if (!thread) return { missing: 'No thread is confirmed for this size.' };
  const usualLength = thread.form === 'pipe-tapered' ? taperedLength(thread) : Infinity;
  if (usualLength === null)
    return { missing: `${thread.designation} is in no table of tapered threads. Check its size.` };
  const printed = c.print.threadDepth;
  const typed = c.decision.overrides[c.key]?.['threadDepth'];
  return { thread, usualLength, printed, said: typeof typed === 'number' ? typed : printed };
}

/** The depth of full thread as a number to type over. `relation`: where it comes from when nobody says it. */
export const depthOf = (
  parameters: Parameters,
  full: number,
  { printed }: AskedThread,
  relation: string,
): number =>
  parameters.length(
    'threadDepth',
    THREAD_NUMBERS.threadDepth,
    full,
    printed !== undefined ? 'print' : 'model',
    printed !== undefined ? 'from the print' : relation,
  );

type Typed = Pick<Mill, 'clockwise' | 'leads' | 'fit' | 'byControl'>;

/** How it is cut, as far as no tool is needed to know it. */
export function typedWay(parameters: Parameters, side: ThreadSide, machine: MachineProfile): Typed {
  const { cut: cuts } = THREAD_CHOICES;
  // A control that is given a helix in short lines is not asked to shift them too.
  const compensation = machine.helices ? THREAD_CHOICES.compensation : (['computed'] as const);
  const byControl =
    parameters.choice('compensation', 'cutter radius', compensation, 'computed', 'method') !== 'computed';
  // The control takes the radius up in a straight move, which only a quarter begins with.
  const leads = parameters.choice(
    'leads',
    'in and out by',
    byControl ? (['quarter circle'] as const) : THREAD_LEADS,
    byControl ? 'quarter circle' : 'half circle',
    'method',
  );
  const cut = parameters.choice('cut', 'cuts', cuts, 'climb', 'method');
  const fit = parameters.length('fit', THREAD_NUMBERS.fit, 0, 'method', 'for the gauge');
  return { byControl, leads, clockwise: isClockwise(side, cut), fit };
}

/** Cutter that has the thread's profile. */
export const formNeed = (thread: Thread): NonNullable<ToolNeed['threadForm']> => ({
  pitch: thread.pitch,
  angleDeg: flankAngle(thread),
  tapered: thread.form === 'pipe-tapered',
});

/** How often it goes round, and where it begins: by the pitch, or as typed. */
export function typedPasses(
  parameters: Parameters,
  { thread }: Pick<Mill, 'thread'>,
  full: number,
  isTimed: boolean,
): Pick<Mill, 'passes' | 'spring' | 'startAngle'> {
  const usual = PASSES.find((p) => thread.pitch <= p.upTo + 1e-6)?.passes ?? 1;
  const count = (key: 'passes' | 'springPasses', value: number): number =>
    Math.max(0, Math.min(20, Math.round(parameters.number(key, THREAD_NUMBERS[key], value, 'method'))));
  const passes = Math.max(1, count('passes', usual));
  const spring = count('springPasses', 0);
  const anywhere = Math.round(10 * angleAtStart({ thread }, full)) / 10;
  const said = parameters.number('startAngle', THREAD_NUMBERS.startAngle, anywhere, 'method');
  return { passes, spring, startAngle: isTimed ? said : null };
}

/** Whether somebody says where the thread begins. */
export const isTimed = (c: KindContext): boolean =>
  c.decision.overrides[c.key]?.['startAngle'] !== undefined || setNumber(c, 'startAngle') !== null;

/** What follows from the numbers, for whoever looks. */
export function shownNumbers(parameters: Parameters, m: Mill, full: number, tip: number): void {
  const { major, minor } = cutSizes(m);
  const { designation, pitch } = m.thread;
  const isInside = m.side === 'inside';
  parameters.derived(
    'diameter',
    isInside ? 'major \u2300' : 'minor \u2300',
    isInside ? major : minor,
    designation,
    'print',
  );
  parameters.derived('pitch', 'pitch', pitch, 'along in one turn, each start', 'table');
  parameters.derived('depth', 'tip below entry', tip, 'half a tooth and the way in below it');
  parameters.shown('turns', 'turns', turnsInWords(m, full));
}

/** Feeds of its moves, mm/min. */
export function threadFeeds(
  parameters: Parameters,
  feed: number,
  machine: MachineProfile,
): Partial<Record<FeedRole, number>> {
  const share = parameters.number('leadIn', THREAD_NUMBERS.leadIn, IN_SHARE, 'method');
  return {
    thread: feed,
    finish: feed,
    ramp: Math.max(LEAST_IN, Math.min(1, share)) * feed,
    lead: Math.min(machine.maxFeed, AIR_SHARE * feed),
  };
}

/** Where the control compensates, the operator must know which number to change, and which way. */
export function compensationRemarks(m: Mill, say: (mm: number) => string): Remark[] {
  if (!m.byControl) return [];
  const d = m.tool.number === null ? 'its D' : `D${m.tool.number}`;
  const other = m.side === 'inside' ? 'bolt' : 'nut';
  const radius = say(m.tool.diameter / 2);
  return [
    {
      rule: 'radius-in-control',
      severity: 'note',
      message: `${d} holds the radius of ${m.tool.description}, ${radius}. If the ${other} or the go gauge does not enter, make it smaller: the pitch diameter changes by twice as much. If the no-go gauge enters, make it larger.`,
      onSheet: `${d} = ${radius}, radius. go gauge tight: make ${d} smaller`,
    },
  ];
}

/** Rounding of a drawn diameter, mm. */
const DRAWN = 0.005;

/** A hole outside the limits of the thread's minor diameter fails its plug gauge, whatever is milled into it. */
export function minorRemarks(thread: Thread, opened: number, say: (mm: number) => string): Remark[] {
  const limits = minorLimits(thread);
  if (!limits || (opened >= limits.min - DRAWN && opened <= limits.max + DRAWN)) return [];
  return [
    {
      rule: 'minor-limits',
      severity: 'warning',
      message: `${thread.designation} has a minor diameter of ${say(limits.min)} to ${say(limits.max)} (${limits.of}); the hole is opened to ${say(opened)}. Open it to within these.`,
    },
  ];
}

/** A pitch of full thread is the least that anybody calls one. */
export const isLessThanOnePitch = (thread: Thread, full: number): boolean => full < thread.pitch - 1e-6;

/** The widest of a cutter's teeth, mm: of a tapered one the topmost. */
export const widestTooth = (t: Tool): number => t.diameter + (t.threadForm?.tapered ? t.fluteLength / 16 : 0);
