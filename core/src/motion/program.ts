import { at } from '../lists.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import type { Setup } from '../setup/setup.ts';
import { zeroInWords, type SetupFrame } from '../setup/setup-frame.ts';
import { visitsOf } from '../order/sequence.ts';
import type { Space } from '../space/space.ts';
import type { Disc } from '../tools/profile.ts';
import type { Tool } from '../tools/schema.ts';
import { formatLength } from '../units/length.ts';
import { mustLift } from './link.ts';
import type { Work } from './work.ts';

export interface MotionWork extends Work {
  /** Go back up to the clearance level after it instead of staying at R. */
  lift: boolean;
}

export interface MotionOperation {
  id: string;
  /** Such as `A SPOT A1-A6`. */
  title: string;
  /** What the operator must know of it. */
  notes: string[];
  /** With which tool, and how fast. */
  operation: Pick<PlannedOperation, 'tool' | 'speed' | 'feed' | 'feeds'>;
  work: MotionWork[];
}

/** What stands at the head of a program beside its tools. */
export interface ProgramHead {
  /** The setup's place among the job's, from 0: each has its own program number, and subprograms of its own. */
  index: number;
  /** How far its program number is from the first's, where that is not the setup's place. */
  apart?: number;
  /** Material, stock, holding and side, in words. */
  lines: string[];
  /** Tags of what is not made here, with the reason in short. */
  notMade: string[];
}

/** What the machine is to do, free of any dialect. Program coordinates, mm. */
export interface MotionProgram {
  name: string;
  units: 'mm' | 'inch';
  workOffset: string;
  zero: string;
  clearanceZ: number;
  head: ProgramHead;
  visits: { tool: Tool; operations: MotionOperation[] }[];
}

/** What motion needs to see of the setup; null where the part is not known: then every hole lifts, slow but safe. */
export interface MotionSpace {
  space: Space;
  discs(tool: Tool): readonly Disc[];
}

/** A setup with its operations in the order in which they run. */
export interface SetupOperations {
  setup: Setup;
  frame: SetupFrame;
  operations: readonly PlannedOperation[];
}

/** The motion of one setup. */
export function motionProgram(
  setup: SetupOperations,
  name: string,
  units: 'mm' | 'inch',
  head: ProgramHead,
  look: MotionSpace | null = null,
): MotionProgram {
  const { frame } = setup;
  const say = (mm: number): string => `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`;
  return {
    name,
    units,
    workOffset: setup.setup.workOffset,
    zero: zeroInWords(setup.setup, say),
    clearanceZ: frame.top + setup.setup.clearance,
    head,
    visits: visitsOf(setup.operations).map(({ tool, operations }) => ({
      tool,
      operations: operations.map((o) => ({
        id: o.id,
        title: titleOf(o),
        notes: o.remarks.flatMap((r) => r.onSheet ?? []),
        operation: o,
        work: withLifts(o, look),
      })),
    })),
  };
}

function withLifts(o: PlannedOperation, look: MotionSpace | null): MotionWork[] {
  const discs = look?.discs(o.tool) ?? [];
  return o.work.map((w, i) => {
    const next = o.work[i + 1];
    return { ...w, lift: !next || mustLift(look?.space ?? null, discs, w, next) };
  });
}

function titleOf(o: PlannedOperation): string {
  const numbers = o.work.map((h) => Number(h.label.slice(o.tag.length))).sort((a, b) => a - b);
  const ranges: string[] = [];
  for (let i = 0; i < numbers.length; i++) {
    let k = i;
    while (numbers[k + 1] === at(numbers, k) + 1) k++;
    ranges.push(k > i ? `${o.tag}${numbers[i]}-${o.tag}${numbers[k]}` : `${o.tag}${numbers[i]}`);
    i = k;
  }
  return `${o.tag} ${o.label} ${ranges.join(' ')}`;
}
