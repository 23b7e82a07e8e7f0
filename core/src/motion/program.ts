import type { DerivedSetup, PlannedOperation } from '../job/derive.ts';
import { boxOnTheWay } from '../job/keep-out.ts';
import { zeroInWords } from '../job/setup-frame.ts';
import type { PlannedHole } from '../operations/kind.ts';
import { formatLength } from '../units/length.ts';
import type { Tool } from '../tools/schema.ts';

export interface MotionHole extends PlannedHole {
  /** Go back up to the clearance level after this hole instead of staying at R. */
  lift: boolean;
}

export interface MotionOperation {
  id: string;
  /** Such as `A SPOT A1-A6`. */
  title: string;
  operation: PlannedOperation;
  holes: MotionHole[];
}

/** What the machine is to do, free of any dialect. Program coordinates, mm. */
export interface MotionProgram {
  name: string;
  units: 'mm' | 'inch';
  workOffset: string;
  zero: string;
  clearanceZ: number;
  visits: { tool: Tool; operations: MotionOperation[] }[];
}

/** Says whether a tool of that radius can go straight from one place to another, program coordinates. */
export type ClearPath = (from: readonly [number, number, number], to: readonly [number, number, number], radius: number) => boolean;

/** The motion of one setup. Without a way to look at the part every hole lifts: slow but safe. */
export function motionProgram(setup: DerivedSetup, name: string, units: 'mm' | 'inch', clearPath: ClearPath = () => false): MotionProgram {
  const { frame } = setup;
  const clearanceZ = frame.top + setup.setup.clearance;
  const visits: MotionProgram['visits'] = [];
  const isFree: ClearPath = (from, to, radius) => boxOnTheWay(frame.keepOuts, from, to, radius) === null && clearPath(from, to, radius);
  for (const o of setup.operations) {
    const last = visits[visits.length - 1];
    const visit = last?.tool.id === o.tool.id ? last : { tool: o.tool, operations: [] };
    if (visit !== last) visits.push(visit);
    visit.operations.push({ id: o.id, title: titleOf(o), operation: o, holes: withLifts(o, isFree) });
  }
  return {
    name,
    units,
    workOffset: setup.setup.workOffset,
    zero: zeroInWords(setup.setup, (mm) => `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`),
    clearanceZ,
    visits,
  };
}

function withLifts(o: PlannedOperation, clearPath: ClearPath): MotionHole[] {
  return o.holes.map((h, i) => {
    const next = o.holes[i + 1];
    if (!next) return { ...h, lift: true };
    const z = Math.max(h.r, next.r);
    return { ...h, lift: !clearPath([h.x, h.y, z], [next.x, next.y, z], o.tool.diameter / 2) };
  });
}

function titleOf(o: PlannedOperation): string {
  const numbers = o.holes.map((h) => Number(h.label.slice(o.tag.length))).sort((a, b) => a - b);
  const ranges: string[] = [];
  for (let i = 0; i < numbers.length; i++) {
    let k = i;
    while (numbers[k + 1] === numbers[k]! + 1) k++;
    ranges.push(k > i ? `${o.tag}${numbers[i]}-${o.tag}${numbers[k]}` : `${o.tag}${numbers[i]}`);
    i = k;
  }
  return `${o.tag} ${o.label} ${ranges.join(' ')}`;
}
