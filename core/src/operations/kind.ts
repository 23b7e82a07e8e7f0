import type { MachineProfile } from '../code/profiles/schema.ts';
import type { Material } from '../cutting/material.ts';
import type { SizeDecision } from '../job/plan.ts';
import type { Setup } from '../job/setup.ts';
import type { Thread } from '../threads/thread.ts';
import type { Tool, ToolKind } from '../tools/schema.ts';
import type { HoleView, PlacedStep } from './hole-view.ts';

export const CYCLES = ['G81', 'G82', 'G83', 'G73', 'G84', 'G74'] as const;
export type Cycle = (typeof CYCLES)[number];

/** Where a number comes from. */
export type Source = 'model' | 'print' | 'method' | 'table' | 'machine' | 'typed';

/** One number of an operation, as the section and the table show it. Lengths in mm. */
export interface Parameter {
  key: string;
  label: string;
  type: 'length' | 'choice' | 'number';
  value: number | string;
  choices?: readonly string[];
  source: Source;
  /** In words: "1.2 below exit". */
  relation?: string;
  editable: boolean;
}

export type Severity = 'error' | 'warning' | 'note';

export interface Remark {
  rule: string;
  severity: Severity;
  message: string;
}

/** What an operation kind is given to plan one size in one setup. */
export interface KindContext {
  setup: Setup;
  /** The size's holes seen from this setup; the first stands for all. */
  holes: HoleView[];
  decision: SizeDecision;
  thread: Thread | null;
  tools: readonly Tool[];
  material: Material;
  machine: MachineProfile;
  /** Z of the stock's top, program coordinates. */
  stockTop: number;
  /** Metal may stand above a hole's own level. */
  standsProud: boolean;
  /** A length for messages, in the job's unit with the unit. */
  say(mm: number): string;
  /** The step of the hole that this operation makes, where it is one of several. */
  step: PlacedStep | null;
  /** Key of the typed parameters: the kind, with the step's number where there are several. */
  key: string;
}

export interface PlannedHole {
  feature: string;
  label: string;
  x: number;
  y: number;
  /** R level and tool tip at the bottom, program Z. */
  r: number;
  z: number;
  entryZ: number;
}

export interface Planned {
  tool: Tool;
  cycle: Cycle;
  speed: number;
  /** mm/min. */
  feed: number;
  peck?: number;
  dwellSeconds?: number;
  holes: PlannedHole[];
  parameters: Parameter[];
  remarks: Remark[];
}

export type PlanResult = Planned | { missing: string };

export interface OperationKind {
  kind: string;
  label: string;
  toolKinds: readonly ToolKind[];
  cycles: readonly Cycle[];
  /** Kinds with lower ranks come first in a program. */
  rank: number;
  plan(context: KindContext): PlanResult;
}

/** Resolves typed parameters over worked-out ones. */
export class Parameters {
  readonly list: Parameter[] = [];
  constructor(private readonly context: KindContext) {}

  length(key: string, label: string, value: number, source: Source, relation?: string): number {
    const typed = this.typed(key);
    const use = typeof typed === 'number' ? typed : value;
    this.list.push({ key, label, type: 'length', value: use, source: typeof typed === 'number' ? 'typed' : source, relation, editable: true });
    return use;
  }

  choice<T extends string>(key: string, label: string, choices: readonly T[], value: T, source: Source): T {
    const typed = this.typed(key);
    const found = choices.find((c) => c === typed);
    this.list.push({ key, label, type: 'choice', choices, value: found ?? value, source: found ? 'typed' : source, editable: true });
    return found ?? value;
  }

  /** A plain number: a count, a share, seconds. Said in the label. */
  number(key: string, label: string, value: number, source: Source): number {
    const typed = this.typed(key);
    const use = typeof typed === 'number' ? typed : value;
    this.list.push({ key, label, type: 'number', value: use, source: typeof typed === 'number' ? 'typed' : source, editable: true });
    return use;
  }

  seconds(key: string, label: string, value: number, source: Source): number {
    return this.number(key, `${label}, s`, value, source);
  }

  /** A text that follows from others. */
  shown(key: string, label: string, value: string): void {
    this.list.push({ key, label, type: 'choice', value, source: 'method', editable: false });
  }

  /** A number that follows from others and cannot be typed. */
  derived(key: string, label: string, value: number, relation: string, source: Source = 'method'): void {
    this.list.push({ key, label, type: 'length', value, source, relation, editable: false });
  }

  private typed(key: string): number | string | boolean | undefined {
    return this.context.decision.overrides[this.context.key]?.[key];
  }
}

/** R level of a hole: above its entry, or above the block's top where metal still stands over it. */
export function retractLevel(c: KindContext, hole: HoleView, least = 0): number {
  const top = c.standsProud ? Math.max(hole.entryZ, c.stockTop) : hole.entryZ;
  return top + Math.max(c.setup.retract, least);
}

/** The size's holes with R and the tool's lowest place, for a tool that goes `depthOf` below each entry. */
export function placeHoles(c: KindContext, depthOf: (hole: HoleView) => number, leastRetract = 0): PlannedHole[] {
  return c.holes.map((h) => ({ feature: h.feature.id, label: h.label, x: h.x, y: h.y, r: retractLevel(c, h, leastRetract), z: h.entryZ - depthOf(h), entryZ: h.entryZ }));
}
