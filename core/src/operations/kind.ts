import type { MachineProfile } from '../code/profiles/schema.ts';
import type { Material } from '../cutting/material.ts';
import type { SizeDecision } from '../plan/plan.ts';
import type { Setup } from '../setup/setup.ts';
import type { CycleHow, FeedRole, Work } from '../motion/work.ts';
import type { AreaShape } from '../features/area/shape.ts';
import type { EdgeProfile } from '../features/edge/shape.ts';
import type { Thread } from '../threads/thread.ts';
import type { ToolNeed } from '../tools/find.ts';
import type { Tool, ToolKind } from '../tools/schema.ts';
import type { Callout } from '../callout/callout.ts';
import type { Space } from '../space/space.ts';
import type { Disc, ProfilePoint } from '../tools/profile.ts';
import { relation } from '../methods/relation.ts';
import type { AreaView } from './area-view.ts';
import type { BossView } from './boss-view.ts';
import type { EdgeView } from './edge-view.ts';
import type { GroovePart, GrooveView } from './groove-view.ts';
import { drilledStep, type HoleView, type PlacedStep } from './hole-view.ts';

/** Where a number comes from. */
export type Source = 'model' | 'print' | 'method' | 'table' | 'machine' | 'typed';

/** One number of an operation, as the section and the table show it. Lengths in mm. */
export interface Parameter {
  key: string;
  label: string;
  /** `speed`: rpm; `feed`: mm/min. */
  type: 'length' | 'choice' | 'number' | 'speed' | 'feed';
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
  /** What the operator must know of it, in a few words: it stands in the program as a comment. */
  onSheet?: string;
}

/** What an operation kind is given to plan one size in one setup. */
export interface KindContext {
  setup: Setup;
  /** The size's holes seen from this setup; the first stands for all. */
  holes: HoleView[];
  /** The same of a size of bosses; then there are no holes. */
  bosses: BossView[];
  /** The same of a size of slots, grooves or channels. */
  grooves: GrooveView[];
  /** The same of a size of faces, steps, pockets or outlines. */
  areas: AreaView[];
  /** The same of a size of chamfers, rounded or sharp edges. */
  edges: EdgeView[];
  /** Width by which the job wants all sharp edges broken, across the top, mm; null: it says nothing of them. */
  edgeBreak: number | null;
  decision: SizeDecision;
  thread: Thread | null;
  /** What the print says; the holes above are laid out by it already. */
  print: Callout;
  tools: readonly Tool[];
  material: Material;
  machine: MachineProfile;
  /** What is in the way in this setup. */
  space: Space;
  /** A tool's whole outline as it stands in the machine. */
  discs(tool: Tool): readonly Disc[];
  /** The same as the lines that it is turned from. */
  outline(tool: Tool): readonly ProfilePoint[];
  /** Share of all feeds at which the program runs: a first part may run slow. */
  pace: number;
  /** Tool ids to be taken before others that would do as well, likeliest first. */
  favour: readonly string[];
  /** Id of the tool that was chosen for this operation, to be taken before all others that do. */
  chosen?: string;
  /** Tells which tools would do, the one that is taken among them. */
  fits?(tools: readonly Tool[]): void;
  /** A length for messages, in the job's unit with the unit. */
  say(mm: number): string;
  /** The method mills the hole's thread: its hole is the thread's own, whatever taps there are. */
  isThreadMilled: boolean;
  /** The step of the hole that this operation makes, where it is one of several. */
  step: PlacedStep | null;
  /** Numbers that the method gives it, by parameter. */
  set: Readonly<Record<string, number | string>>;
  /** Diameter that the operations before have opened here, mm; 0: the metal is solid. */
  opened: number;
  /** Z down to which it stands open at a feature, by label; null where it does not. */
  openedTo(label: string): number | null;
  /** Diameter of the rim that the operations before have left at the entry, mm; 0: none, or it is to be broken all the same. */
  rim: number;
  /** Key of the typed parameters: the kind, with the step's number where there are several. */
  key: string;
}

export interface Planned {
  tool: Tool;
  speed: number;
  /** mm/min: of a cycle, and of whatever in a path has no feed of its own. */
  feed: number;
  /** Feeds of a path's moves by what they are for, mm/min. */
  feeds?: Partial<Record<FeedRole, number>>;
  work: Work[];
  parameters: Parameter[];
  remarks: Remark[];
  /** Diameter that stands open afterwards down to where it went, mm: what follows need not cut it again. */
  opens?: number;
  /** How far above the lowest place of its tip that ends, mm: the point of a drill. */
  opensAbove?: number;
  /** Diameter that a rim at the entry has afterwards, mm: it need not be broken again. */
  rim?: number;
  /** Z down to which it went at features that it leaves to the setup on their other side from there on, by label. */
  leaves?: ReadonlyMap<string, number>;
  /** Ids of all tools that would do, for whoever wants to choose another. */
  fits?: string[];
  /** Ids of tools that would do as well: a setup takes the fewest that do all its work. */
  alternatives?: string[];
}

/** Why an operation cannot be made; of some holes only, where they are named by label. */
export interface Missing {
  missing: string;
  holes?: string[];
  /** The tool that would do, where the shop lacks one. */
  need?: ToolNeed;
}

/**
 * What became of planning: an operation; why it cannot be made (of some holes only, where they are named by label); or that it is not
 * needed, with the reason where somebody might miss it.
 */
export type PlanResult = Planned | Missing | { none: string | null };

/** Sorts of features that a kind of operation may be given. */
export type CutSort = 'holes' | 'bosses' | 'grooves' | 'areas' | 'edges';

export interface OperationKind {
  kind: string;
  /** It has a meaning for these only. */
  cuts: readonly CutSort[];
  label: string;
  toolKinds: readonly ToolKind[];
  /** Rules of remarks that operations before it make, and that hold no more once it has run. */
  settles?: readonly string[];
  /** Kinds with lower ranks come first in a program. */
  rank: number;
  /** It makes a hole where there was metal; the others start, open or finish one. */
  opensSolid?: boolean;
  /** It mills threads: the way of whoever wants one milled. */
  millsThreads?: boolean;
  /** What it makes has a flat floor, whatever made it before. */
  leavesFlat?: boolean;
  /** What of a slot, groove or channel it makes. */
  makes?: readonly GroovePart[];
  /** Which areas it makes, by where their walls stand. */
  makesAreas?: readonly AreaShape['side'][];
  /** Which edges it makes, by what they are in the model; `behind`: those that look away from the tool; `rising`: those that are not level. */
  makesEdges?: readonly (EdgeProfile['kind'] | 'behind' | 'rising')[];
  /** It makes the chamfer at a hole's entry that the model has, where nothing else is asked of it. */
  breaksRims?: boolean;
  /** Numbers that a method may give it: key and what it is called. */
  numbers: Readonly<Record<string, string>>;
  /** Choices that a method may make for it. */
  choices?: Readonly<Record<string, readonly string[]>>;
  plan(context: KindContext): PlanResult;
}

/** Resolves typed parameters over worked-out ones. */
export class Parameters {
  readonly list: Parameter[] = [];
  constructor(private readonly context: KindContext) {}

  length(key: string, label: string, value: number, source: Source, relation?: string): number {
    const typed = this.typed(key);
    const given = setNumber(this.context, key);
    const use = typeof typed === 'number' ? typed : (given ?? value);
    this.list.push({
      key,
      label,
      type: 'length',
      value: use,
      source: typeof typed === 'number' ? 'typed' : given === null ? source : 'method',
      relation: given === null ? relation : this.inWords(key, relation),
      editable: true,
    });
    return use;
  }

  choice<T extends string>(key: string, label: string, choices: readonly T[], value: T, source: Source): T {
    const typed = this.typed(key);
    const found = choices.find((c) => c === typed);
    const given = choices.find((c) => c === this.context.set[key]);
    this.list.push({
      key,
      label,
      type: 'choice',
      choices,
      value: found ?? given ?? value,
      source: found ? 'typed' : given ? 'method' : source,
      editable: true,
    });
    return found ?? given ?? value;
  }

  /** A plain number: a count, a share, seconds. Said in the label. */
  number(key: string, label: string, value: number, source: Source): number {
    const typed = this.typed(key);
    const use = typeof typed === 'number' ? typed : (setNumber(this.context, key) ?? value);
    this.list.push({
      key,
      label,
      type: 'number',
      value: use,
      source: typeof typed === 'number' ? 'typed' : source,
      editable: true,
    });
    return use;
  }

  /** A speed, rpm, or a feed, mm/min; the key says which. */
  rate(key: 'speed' | 'feed', label: string, value: number, source: Source): number {
    const typed = this.typed(key);
    const use = typeof typed === 'number' ? typed : value;
    this.list.push({
      key,
      label,
      type: key,
      value: use,
      source: typeof typed === 'number' ? 'typed' : source,
      editable: true,
    });
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

  /** A method's sum as it stands there; a plain number says nothing more than itself. */
  private inWords(key: string, relation: string | undefined): string | undefined {
    const given = this.context.set[key];
    return typeof given === 'string' ? given : relation;
  }

  private typed(key: string): number | string | boolean | undefined {
    return this.context.decision.overrides[this.context.key]?.[key];
  }
}

/** A number that the method gives an operation, worked out for its first hole, mm; null where it gives none. */
export function setNumber(
  c: Pick<KindContext, 'set' | 'step' | 'holes' | 'grooves' | 'areas' | 'edges' | 'thread'>,
  key: string,
): number | null {
  const given = c.set[key];
  if (given === undefined) return null;
  const [hole] = c.holes;
  const [groove] = c.grooves;
  const [area] = c.areas;
  const step = c.step ?? (hole ? drilledStep(hole) : null);
  return relation(given, {
    diameter: step?.shape === 'cylinder' ? step.diameter : null,
    depth: hole?.depth ?? groove?.depth ?? area?.depth ?? null,
    width: groove?.width ?? null,
    pitch: c.thread?.pitch ?? null,
    major: c.thread?.majorDiameter ?? null,
  });
}

/** The style of tap that was typed, else the one that the print asks for; undefined where either will do. */
export function tapStyle(c: Pick<KindContext, 'decision' | 'print'>): 'forming' | undefined {
  const typed = c.decision.overrides['tap']?.['style'];
  if (typed !== undefined) return typed === 'forming' ? 'forming' : undefined;
  return c.print.wishes?.includes('formed') ? 'forming' : undefined;
}

/** R level of a hole: above whatever metal may stand over it. */
export function retractLevel(c: KindContext, hole: HoleView, least = 0): number {
  return Math.max(hole.entryZ, hole.metalZ) + Math.max(c.setup.retract, least);
}

/** The size's holes, for a tool that goes `depthOf` below each entry and moves there as `motionOf` says, from R down to `z`. */
export function placeWork(
  c: KindContext,
  depthOf: (hole: HoleView) => number,
  motionOf: (hole: HoleView, r: number, z: number) => Work['motion'],
  leastRetract = 0,
): Work[] {
  return c.holes.map((h) => {
    const r = retractLevel(c, h, leastRetract);
    const z = h.entryZ - depthOf(h);
    return {
      feature: h.feature.id,
      label: h.label,
      x: h.x,
      y: h.y,
      r,
      z,
      entryZ: h.entryZ,
      metalZ: h.metalZ,
      motion: motionOf(h, r, z),
    };
  });
}

/** The size's holes made by a cycle, for a tool that goes `depthOf` below each entry. */
export const placeHoles = (
  c: KindContext,
  how: CycleHow,
  depthOf: (hole: HoleView) => number,
  leastRetract = 0,
): Work[] => placeWork(c, depthOf, () => ({ kind: 'cycle', how }), leastRetract);
