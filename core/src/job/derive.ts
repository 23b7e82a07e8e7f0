import { formatCallout, type Callout } from '../callout/callout.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import type { Material } from '../cutting/material.ts';
import { isHole, type Feature } from '../features/family.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { narrowest } from '../features/hole/recognise.ts';
import { familyOf } from '../features/registry.ts';
import { featureSizes, type FeatureSize } from '../features/sets.ts';
import { dot } from '../geometry/vec.ts';
import { farSideSteps, methodFor, type MethodStep } from '../methods/methods.ts';
import type { Bounds } from '../model/solid-model.ts';
import { viewHole, type HoleView } from '../operations/hole-view.ts';
import type { KindContext, Planned, Remark } from '../operations/kind.ts';
import { operationKind } from '../operations/registry.ts';
import { shortestTour } from '../order/tour.ts';
import { LEAD_THREADS, type Thread } from '../threads/thread.ts';
import { formatLength } from '../units/length.ts';
import type { Library } from './library.ts';
import { applyCorrections, type Corrected } from '../corrections/apply.ts';
import { boxInTheWay } from './keep-out.ts';
import type { Plan, SizeDecision } from './plan.ts';
import type { Setup } from './setup.ts';
import { setupFrames, type PartBox, type SetupFrame } from './setup-frame.ts';
import { sequence } from './sequence.ts';

export interface PlannedOperation extends Planned {
  id: string;
  kind: string;
  label: string;
  rank: number;
  setupId: string;
  tag: string;
  sizeKey: string;
  /** Key of its typed parameters in the plan. */
  key: string;
  /** Place among the operations of its size. */
  position: number;
}

/** `optional`: nothing in the model asks for it (a sharp edge). */
export type RowState = 'planned' | 'open' | 'left out' | 'unreachable' | 'optional';

/** A row of the worksheet: one size of feature, and how it is made. */
export interface Row {
  size: FeatureSize;
  tag: string;
  state: RowState;
  callout: Callout;
  calloutText: string;
  thread: Thread | null;
  /** Guesses that wait for the programmer's word. */
  guesses: string[];
  setupId: string | null;
  method: string | null;
  holes: HoleView[];
  operations: PlannedOperation[];
  /** Features left out because something that holds the part is in the way. */
  blocked: { label: string; feature: string; reason: string }[];
  /** Why it is open, unreachable or left out; each says the mend. */
  reasons: string[];
  remarks: Remark[];
}

export interface DerivedSetup {
  setup: Setup;
  frame: SetupFrame;
  /** In the order in which they run. */
  operations: PlannedOperation[];
}

export interface DerivedJob {
  rows: Row[];
  setups: DerivedSetup[];
  machine: MachineProfile;
  material: Material;
  /** What the programmer's corrections did. */
  corrected: Pick<Corrected, 'by' | 'lost'>;
  /** Features planned, and all. */
  coverage: { planned: number; total: number };
}

export interface DeriveInput {
  /** As recognised: the plan's corrections are applied here. */
  features: Feature[];
  bounds: Bounds;
  /** The part's box along any axes; from its bounds where it is not given. */
  partBox?: PartBox;
  plan: Plan;
  library: Library;
}

/** Everything that follows from the part and the plan: sizes, operations in order, and what is still open. */
export function deriveJob({ features: recognised, bounds, partBox, plan, library }: DeriveInput): DerivedJob {
  const machine = library.machines.find((m) => m.id === plan.machineId);
  const material = library.materials.find((m) => m.id === plan.materialId);
  if (!machine)
    throw new RangeError(`The plan names the machine "${plan.machineId}", which the shop does not have. Choose one of: ${library.machines.map((m) => m.name).join(', ')}.`);
  if (!material)
    throw new RangeError(`The plan names the material "${plan.materialId}", which the shop does not have. Choose one of: ${library.materials.map((m) => m.name).join(', ')}.`);
  const placed = setupFrames(plan.setups, partBox ?? bounds);
  const frames = plan.setups.map((setup, i) => ({ setup, frame: placed[i]! }));
  const { features, by, lost } = applyCorrections(recognised, plan.corrections, plan.units);
  const rows = featureSizes(features).map((size) => deriveRow(size, frames, plan, library, machine, material));
  const operations = rows.flatMap((r) => r.operations);
  const setups = frames.map(({ setup, frame }) => ({
    setup,
    frame,
    operations: sequence(
      operations.filter((o) => o.setupId === setup.id),
      plan.toolOrder,
    ),
  }));
  return {
    rows,
    setups,
    machine: {
      ...machine,
      commentStyle: plan.codeOptions.commentStyle ?? machine.commentStyle,
      lineNumbers: { ...machine.lineNumbers, on: plan.codeOptions.lineNumbers ?? machine.lineNumbers.on },
    },
    material,
    corrected: { by, lost },
    coverage: {
      planned: count(rows, (r) => r.state === 'planned' || r.state === 'left out') - rows.reduce((n, r) => n + r.blocked.length, 0),
      total: count(rows, (r) => r.state !== 'optional'),
    },
  };
}

const count = (rows: Row[], which: (r: Row) => boolean): number => rows.filter(which).reduce((n, r) => n + r.size.features.length, 0);
const isReached = (f: Feature, { frame }: SetupFrame): boolean => f.reachableFrom.some((d) => dot(d, frame.z) > 0.9999);

const EMPTY: SizeDecision = { overrides: {} };

function deriveRow(size: FeatureSize, frames: { setup: Setup; frame: SetupFrame }[], plan: Plan, library: Library, machine: MachineProfile, material: Material): Row {
  const decision = plan.sizes[size.key] ?? EMPTY;
  const thread = decision.thread ?? null;
  const holes = size.features.filter(isHole);
  const first = holes[0];
  const row: Row = {
    size,
    tag: size.tag,
    state: 'open',
    callout: { through: false },
    calloutText: familyOf(size.features[0]!).describe(size.features[0]!, (mm) => formatLength(mm, plan.units)),
    thread,
    guesses: [],
    setupId: null,
    method: null,
    holes: [],
    operations: [],
    blocked: [],
    reasons: [],
    remarks: [],
  };
  if (decision.leftOut) return { ...row, state: 'left out', reasons: [decision.leftOut] };
  const home = frames.find(({ frame }) => size.features.every((f) => isReached(f, frame)));
  row.setupId = home?.setup.id ?? null;
  if (size.family === 'sharp-edge') return { ...row, state: 'optional', reasons: ['Sharp in the model: nothing asks for a break.'] };
  if (!home) {
    const none = size.features.every((f) => f.reachableFrom.length === 0);
    const reason = none
      ? 'No straight tool reaches it from outside: the part itself is in the way.'
      : `No setup looks at it: turn the part so that ${sideNames(size.features[0]!)} is up, or add a setup.`;
    return { ...row, state: 'unreachable', reasons: [reason] };
  }
  if (!first) return { ...row, reasons: ['Recognised and shown; no method makes it yet. Program it elsewhere and leave it out here with that as the reason.'] };
  row.setupId = null;
  const callout = calloutOf(first, decision, thread);
  row.callout = callout;
  row.calloutText = formatCallout(callout, plan.units);
  row.guesses = decision.thread === undefined ? first.threadCandidates.map((c) => c.designation) : [];
  const say = (mm: number): string => `${formatLength(mm, plan.units)} ${plan.units === 'mm' ? 'mm' : 'in'}`;
  const base = { decision, thread, tools: library.tools, material, machine, say };
  const planIn = (where: { setup: Setup; frame: SetupFrame }, steps: (h: HoleView) => MethodStep[]): void => {
    const views = holes.map((f, i) => viewHole(f, labelOf(size, i), where.frame.frame)!);
    if (row.setupId === null) [row.setupId, row.holes] = [where.setup.id, views];
    const seen = new Map<string, number>();
    for (const step of steps(views[0]!)) {
      const nth = (seen.get(step.kind) ?? 0) + 1;
      seen.set(step.kind, nth);
      const key = nth === 1 ? step.kind : `${step.kind} ${nth}`;
      const kind = operationKind(step.kind);
      const context: KindContext = {
        ...base,
        setup: where.setup,
        holes: views,
        stockTop: where.frame.stock.max[2],
        standsProud: where.frame.body.standsProud,
        step: step.step,
        key,
      };
      const result = kind.plan(context);
      if ('missing' in result) row.reasons.push(result.missing);
      else {
        const id = `${where.setup.id}/${size.tag}/${key}`;
        row.operations.push({
          ...result,
          holes: inTravelOrder(result.holes),
          id,
          kind: kind.kind,
          label: kind.label,
          rank: kind.rank,
          setupId: where.setup.id,
          tag: size.tag,
          sizeKey: size.key,
          key,
          position: row.operations.length,
        });
        row.remarks.push(...result.remarks);
      }
    }
  };
  const view = viewHole(first, 'x', home.frame.frame)!;
  const method = methodFor(view, thread);
  row.method = method.name;
  planIn(home, (h) => method.steps(h, thread));
  if (view.farSteps.length > 0) planFarSide(row, holes, home, frames, planIn);
  leaveOutBlocked(row, frames, say);
  row.remarks.push(...compareWithPrint(callout, decision, view, say));
  row.remarks.push(...threadFit(thread, first, say));
  if (row.reasons.length > 0) {
    // A row is made whole or not at all: half a hole in the program is a trap.
    row.operations = [];
    row.blocked = [];
    return row;
  }
  return { ...row, state: 'planned' };
}

/**
 * Leaves out, of all the row's operations, the holes where a tool would stand in a jaw, a clamp or a keep-out box. What is in the way in
 * one setup is left out of the others too: a hole is made whole or not at all.
 */
function leaveOutBlocked(row: Row, frames: { setup: Setup; frame: SetupFrame }[], say: (mm: number) => string): void {
  const seen = new Set<string>();
  for (const o of row.operations) {
    const { keepOuts } = frames.find(({ setup }) => setup.id === o.setupId)!.frame;
    for (const h of o.holes) {
      const box = seen.has(h.label) ? null : boxInTheWay(keepOuts, h.x, h.y, h.z, Math.max(o.tool.diameter, o.tool.shankDiameter) / 2);
      if (!box) continue;
      seen.add(h.label);
      row.blocked.push({
        label: h.label,
        feature: h.feature,
        reason: `${h.label}: T${o.tool.number ?? '–'} ${o.tool.description} would go to Z ${say(h.z)} beside ${box.name}, whose top is at Z ${say(box.max[2])}. Move the holding, or make it in another setup.`,
      });
    }
  }
  if (row.blocked.length === 0) return;
  for (const o of row.operations) o.holes = o.holes.filter((h) => !seen.has(h.label));
  if (row.operations.every((o) => o.holes.length === 0)) row.reasons.push(row.blocked[0]!.reason);
  else row.remarks.push(...row.blocked.map((b) => ({ rule: 'holding', severity: 'warning' as const, message: b.reason })));
}

function planFarSide(
  row: Row,
  holes: HoleFeature[],
  home: { setup: Setup },
  frames: { setup: Setup; frame: SetupFrame }[],
  planIn: (where: { setup: Setup; frame: SetupFrame }, steps: (h: HoleView) => MethodStep[]) => void,
): void {
  const opposite = frames.find(({ setup, frame }) => setup.id !== home.setup.id && holes.every((f) => viewHole(f, 'x', frame.frame)));
  if (!opposite) {
    row.remarks.push({ rule: 'far-side', severity: 'warning', message: 'The step on the far side is not made: add a setup with that side up.' });
    return;
  }
  const setupId = row.setupId;
  planIn(opposite, farSideSteps);
  row.setupId = setupId;
}

export const labelOf = (size: FeatureSize, index: number): string => `${size.tag}${index + 1}`;

const sideNames = (f: Feature): string =>
  f.reachableFrom
    .map((d) => ['X', 'Y', 'Z'].map((n, i) => (Math.abs(d[i]!) > 0.999 ? `${d[i]! > 0 ? '+' : '-'}${n}` : '')).join('') || `(${d.map((v) => v.toFixed(3)).join(', ')})`)
    .join(' or ');

/** First the hole nearest the front left, then the shortest way on. */
function inTravelOrder(holes: Planned['holes']): Planned['holes'] {
  if (holes.length < 3) return holes;
  const start = holes.reduce((m, h, i) => (h.x + h.y < holes[m]!.x + holes[m]!.y - 1e-9 ? i : m), 0);
  const rest = [holes[start]!, ...holes.filter((_, i) => i !== start)];
  return shortestTour(rest.map((h) => [h.x, h.y] as const)).order.map((i) => rest[i]!);
}

/** The callout as typed, or as the model has it. */
function calloutOf(f: HoleFeature, decision: SizeDecision, thread: Thread | null): Callout {
  const straight = f.stack.flatMap((s) => (s.shape === 'cylinder' ? [s] : []));
  const out: Callout = { through: f.kind === 'through' };
  if (thread) out.thread = thread;
  else out.diameter = narrowest(f);
  if (decision.threadDepth !== undefined) [out.depth, out.through] = [decision.threadDepth, false];
  else if (f.kind === 'blind') out.depth = f.depth;
  const first = straight[0];
  if (first && f.role === 'counterbored' && first.diameter > narrowest(f) + 1e-6) out.counterbore = { diameter: first.diameter, depth: first.length };
  const cone = f.stack[0];
  if (cone?.shape === 'cone' && f.role === 'countersunk') out.countersink = { diameter: cone.startDiameter, angleDeg: cone.angle };
  return out;
}

function compareWithPrint(c: Callout, decision: SizeDecision, v: HoleView, say: (mm: number) => string): Remark[] {
  if (decision.threadDepth === undefined || v.through) return [];
  if (!c.thread && Math.abs(decision.threadDepth - v.depth) > 0.05) {
    return [
      {
        rule: 'print-and-model',
        severity: 'warning',
        message: `The print says ${say(decision.threadDepth)} deep, the model ${say(v.depth)}. The print's depth is drilled; check which is right.`,
      },
    ];
  }
  if (c.thread && decision.threadDepth + LEAD_THREADS.bottoming * c.thread.pitch > v.depth) {
    return [{ rule: 'print-and-model', severity: 'error', message: `${say(decision.threadDepth)} of thread does not fit into a hole ${say(v.depth)} deep.` }];
  }
  return [];
}

function threadFit(thread: Thread | null, f: HoleFeature, say: (mm: number) => string): Remark[] {
  if (!thread) return [];
  const drawn = narrowest(f);
  if (drawn <= thread.majorDiameter + 0.02 && drawn >= thread.majorDiameter - 1.35 * thread.pitch) return [];
  return [
    {
      rule: 'thread-and-hole',
      severity: 'error',
      message: `${thread.designation} does not go into a hole drawn at ⌀${say(drawn)}: its tap drill is ${say(thread.tapDrill)}. Check the callout.`,
    },
  ];
}
