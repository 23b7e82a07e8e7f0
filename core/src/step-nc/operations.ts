import type { CycleHow, Work } from '../motion/work.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import { FALSE, Item, TRUE, type Ref, type Value } from '../part21/value.ts';
import type { GeometryWriter } from './geometry.ts';

/** What an operation's entity says after the parameters that all drilling, or all milling, operations share. */
type Own = (o: PlannedOperation, work: Work) => readonly (number | null | typeof TRUE)[];

const dwellOf = (how: CycleHow | null): number | null =>
  how && 'seconds' in how && how.seconds ? how.seconds : null;
const peckOf = (how: CycleHow | null): number | null => (how && 'peck' in how && how.peck ? how.peck : null);
const howOf = ({ motion }: Work): CycleHow | null => (motion.kind === 'cycle' ? motion.how : null);

/** Spindle stopped at the bottom, depth of a test cut, waiting position. */
const bored: Own = (_, work) => {
  const how = howOf(work)?.how;
  return [how === 'stop-out' || how === 'shift-out' ? TRUE : FALSE, null, null];
};

/** Drilling operations of ISO 14649-11 by kind of ours. */
const DRILLING: Readonly<Record<string, [type: string, own?: Own]>> = {
  spot: ['CENTER_DRILLING'],
  centre: ['CENTER_DRILLING'],
  pilot: ['DRILLING'],
  drill: ['DRILLING'],
  'core-drill': ['DRILLING'],
  'corner-hole': ['DRILLING'],
  'entry-hole': ['DRILLING'],
  counterbore: ['COUNTER_SINKING'],
  countersink: ['COUNTER_SINKING'],
  'rim-break': ['COUNTER_SINKING'],
  ream: ['REAMING', bored],
  bore: ['BORING', bored],
  tap: ['TAPPING', () => [FALSE]],
};

/** Milling operations by kind of ours; the others cut walls and floor. */
const MILLING: Readonly<Record<string, 'plane' | 'side' | 'bottom and side'>> = {
  'face-mill': 'plane',
  floor: 'plane',
  'wall-mill': 'side',
  'thread-mill': 'side',
  'outside-thread-mill': 'side',
  'edge-mill': 'side',
  'edge-round': 'side',
  'edge-behind': 'side',
  'edge-follow': 'side',
  'back-rim-break': 'side',
  'helical-countersink': 'side',
};
const MILLING_OWN = {
  plane: { type: 'PLANE_FINISH_MILLING', own: 2 },
  side: { type: 'SIDE_FINISH_MILLING', own: 3 },
  'bottom and side': { type: 'BOTTOM_AND_SIDE_FINISH_MILLING', own: 4 },
};

const MM_PER_MIN_TO_M_PER_S = 1 / 60_000;

/** What the machine says to all operations: its functions, and how far a drill backs off to break a chip, mm. */
export interface MachineSays {
  functions: Ref;
  backOff: number;
}

/**
 * What an operation of ours does at one feature, as an operation of ISO 14649-11. Feeds in m/s, speeds in 1/s (clockwise as seen from the
 * spindle is negative), lengths in mm as the file's are. A tool's way is left to whoever reads it: no toolpath is given.
 */
export function writeOperation(
  w: GeometryWriter,
  o: PlannedOperation,
  work: Work,
  tool: Ref,
  machine: MachineSays,
): Ref {
  const shared: Value[] = [
    null,
    null,
    `${work.label} ${o.label}`,
    work.r,
    null,
    tool,
    technology(w, o),
    machine.functions,
    null,
  ];
  const depth = work.entryZ - work.z;
  const drilling = DRILLING[o.kind];
  if (drilling && work.motion.kind === 'cycle') {
    const how = howOf(work);
    const [type, own] = drilling;
    const stepped = type === 'DRILLING' ? peckOf(how) : null;
    const back = how?.how === 'full-retract' ? depth : machine.backOff;
    const steps = [back, stepped, stepped, null];
    const cut = [depth, null, dwellOf(how), null, null];
    return stepped === null
      ? w.add(type, ...shared, ...cut, ...(own?.(o, work) ?? []))
      : w.add('MULTISTEP_DRILLING', ...shared, ...cut, ...steps);
  }
  const { type, own } = MILLING_OWN[MILLING[o.kind] ?? 'bottom and side'];
  return w.add(type, ...shared, null, null, null, depth, ...Array.from({ length: own - 1 }, () => null));
}

/** Speed and feed; a tap's feed goes with its spindle. */
function technology(w: GeometryWriter, o: PlannedOperation): Ref {
  const isLeft = o.tool.thread?.hand === 'left';
  const isInStep = DRILLING[o.kind]?.[0] === 'TAPPING' ? TRUE : FALSE;
  return w.add(
    'MILLING_TECHNOLOGY',
    o.feed * MM_PER_MIN_TO_M_PER_S,
    new Item('TCP'),
    null,
    ((isLeft ? 1 : -1) * o.speed) / 60,
    null,
    isInStep,
    isInStep,
    isInStep,
    null,
  );
}
