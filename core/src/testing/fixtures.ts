import { cycleOf, type CycleHow } from '../motion/work.ts';
import { RIGID_TAP_BUILT_IN } from '../code/profiles/shipped.ts';
import type { HoleFeature, StackStep } from '../features/hole/schema.ts';
import { featureSizes } from '../features/sets.ts';
import { deriveJob } from '../job/derive.ts';
import type { Library } from '../plan/library.ts';
import { newPlan, type Plan } from '../plan/plan.ts';
import { decisionFromCallout } from '../job/print.ts';
import type { Method, MethodOperation } from '../methods/schema.ts';
import type { PlannedOperation, Row } from '../job/row.ts';
import type { Bounds } from '../model/solid-model.ts';
import { threadCandidates } from '../threads/candidates.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool, ToolKind } from '../tools/schema.ts';

/** Small made-up parts and a small shop for tests of everything after recognition. */
export const BOUNDS: Bounds = { min: [0, 0, -30], max: [100, 80, 0] };

let count = 0;

export function hole(part: Partial<HoleFeature> & { stack?: StackStep[] } = {}): HoleFeature {
  const kind = part.kind ?? 'blind';
  const depth = part.depth ?? (kind === 'through' ? 30 : 20);
  const stack = part.stack ?? [{ shape: 'cylinder', diameter: 6.8, length: depth }];
  return {
    id: `H${++count}`,
    family: 'hole',
    solid: 0,
    faces: [],
    reachableFrom:
      kind === 'through'
        ? [
            [0, 0, 1],
            [0, 0, -1],
          ]
        : [[0, 0, 1]],
    kind,
    axis: [0, 0, 1],
    entry: [20, 20, 0],
    entryDrop: 0,
    depth,
    stack,
    bottom: kind === 'through' ? { shape: 'open' } : { shape: 'cone', angle: 118 },
    role: 'plain',
    threadCandidates: threadCandidates(stack, 'mm'),
    interrupted: false,
    ...part,
  };
}

/** An M6 cap head's hole: ⌀6.6 with a counterbore ⌀11, 6.8 deep, through unless said otherwise. */
export function counterbored(
  { floor = 6.8, diameter = 11 } = {},
  part: Partial<HoleFeature> = { kind: 'through' },
): HoleFeature {
  const depth = part.depth ?? (part.kind === 'through' ? 30 : 20);
  const stack: StackStep[] = [
    { shape: 'cylinder', diameter, length: floor },
    { shape: 'flat', startDiameter: diameter, endDiameter: 6.6 },
    { shape: 'cylinder', diameter: 6.6, length: depth - floor },
  ];
  return hole({ role: 'counterbored', stack, ...part });
}

const base = {
  tipDiameter: 0,
  overallLength: 160,
  stickOut: 130,
  holderId: 'h',
  cutterMaterial: 'hss' as const,
};

export const drill = (number: number, diameter: number, fluteLength = 90): Tool => ({
  ...base,
  id: `drill-${diameter}`,
  number,
  kind: 'drill',
  description: `drill ${diameter}`,
  diameter,
  sizeName: String(diameter),
  pointAngleDeg: 118,
  fluteLength,
  shankDiameter: diameter,
});

export const reamer = (number: number, diameter: number): Tool => ({
  ...drill(number, diameter, 60),
  id: `ream-${diameter}`,
  kind: 'reamer',
  description: `reamer ${diameter}`,
  pointAngleDeg: undefined,
});

export const endMill = (number: number, diameter: number, fluteLength = 40): Tool => ({
  ...drill(number, diameter, fluteLength),
  id: `mill-${diameter}`,
  kind: 'end-mill',
  description: `end mill ${diameter}`,
  pointAngleDeg: undefined,
  stickOut: fluteLength + 5,
  teeth: 4,
  cornerRadius: 0,
  rampAngleDeg: 5,
});

export const tap = (
  number: number,
  designation: string,
  majorDiameter: number,
  pitch: number,
  part: Partial<NonNullable<Tool['thread']>> = {},
): Tool => ({
  ...base,
  id: `tap-${designation}-${part.lead ?? 'plug'}-${part.hand ?? 'right'}`,
  number,
  kind: 'tap',
  description: `tap ${designation}`,
  diameter: majorDiameter,
  sizeName: designation,
  fluteLength: 40,
  shankDiameter: majorDiameter,
  thread: { designation, pitch, majorDiameter, hand: 'right', lead: 'plug', style: 'cutting', ...part },
});

/** A tool of its kind's usual shape, with what is said of it otherwise. */
export function usual(kind: ToolKind, number: number, diameter: number, part: Partial<Tool> = {}): Tool {
  const shape = toolKind(kind).usual({ kind, diameter });
  if (!shape) throw new RangeError(`no usual ${kind}`);
  return {
    ...base,
    ...shape,
    id: `${kind}-${diameter}`,
    number,
    kind,
    description: `${kind} ${diameter}`,
    ...part,
  };
}

export const TOOLS: Tool[] = [
  {
    ...base,
    id: 'spot-90',
    number: 1,
    kind: 'spot-drill',
    description: 'spot 90',
    diameter: 16,
    sizeName: '16',
    pointAngleDeg: 90,
    fluteLength: 30,
    shankDiameter: 16,
  },
  {
    ...base,
    id: 'spot-120',
    number: 2,
    kind: 'spot-drill',
    description: 'spot 120',
    diameter: 16,
    sizeName: '16',
    pointAngleDeg: 120,
    fluteLength: 30,
    shankDiameter: 16,
  },
  ...[4, 5, 5.5, 6, 6.6, 6.8, 8, 8.5, 10].map((d, i) => drill(3 + i, d)),
  {
    ...base,
    id: 'cbore-11',
    number: 20,
    kind: 'counterbore',
    description: 'counterbore 11',
    diameter: 11,
    sizeName: '11',
    fluteLength: 30,
    shankDiameter: 11,
  },
  {
    ...base,
    id: 'csk-90',
    number: 21,
    kind: 'countersink',
    description: 'countersink',
    diameter: 16,
    sizeName: '16',
    pointAngleDeg: 90,
    tipDiameter: 0.2,
    fluteLength: 16,
    shankDiameter: 10,
  },
  tap(30, 'M8x1.25', 8, 1.25),
  tap(31, 'M8x1.25', 8, 1.25, { lead: 'bottoming' }),
  tap(32, 'M8x1.25', 8, 1.25, { hand: 'left' }),
  tap(33, 'M6x1', 6, 1),
];

const cut = (kind: ToolKind, vc: number, feedShare: number) => ({
  kinds: [kind],
  vc,
  carbideFactor: 2,
  feedShare,
  maxFeedPerTurn: 0.35,
});

export const LIBRARY: Library = {
  tools: TOOLS,
  holders: [{ id: 'h', description: 'holder', steps: [{ diameter: 40, length: 50 }] }],
  materials: [
    {
      id: 'alu',
      name: 'aluminium',
      cutting: [
        cut('spot-drill', 60, 0.01),
        cut('drill', 60, 0.02),
        cut('reamer', 20, 0.03),
        cut('countersink', 20, 0.01),
        cut('counterbore', 20, 0.01),
        cut('tap', 15, 0),
        cut('end-mill', 100, 0.008),
        cut('boring-bar', 80, 0.003),
        cut('chamfer-mill', 100, 0.005),
        cut('back-chamfer-cutter', 100, 0.005),
        cut('centre-drill', 40, 0.01),
        cut('core-drill', 60, 0.02),
        cut('thread-mill', 100, 0.005),
      ],
      pecking: { chipBreakFrom: 3, fullRetractFrom: 5 },
      deepHoles: [],
    },
  ],
  machines: [RIGID_TAP_BUILT_IN],
  methods: [],
};

export const plan = (units: Plan['units'] = 'mm'): Plan => newPlan(units, 'alu', RIGID_TAP_BUILT_IN.id);

/** Numbers typed in place of those worked out: operation kind → parameter → mm or s. */
export type Typed = Record<string, Record<string, number | string>>;

/** The row of one feature in a fresh plan, with what is typed and decided for its size. */
export function rowOf(
  feature: HoleFeature,
  {
    typed = {},
    more = [],
    tools = [...TOOLS, ...more],
    callout,
    method,
    operations,
    chosen,
    methods = [],
  }: {
    typed?: Typed;
    more?: Tool[];
    tools?: Tool[];
    callout?: string;
    method?: string;
    operations?: MethodOperation[];
    /** Operation → id of the tool that was chosen for it. */
    chosen?: Record<string, string>;
    /** The shop's own methods. */
    methods?: Method[];
  } = {},
): Row {
  const p = plan();
  const decided = callout === undefined ? {} : decisionFromCallout(callout, 'mm');
  p.sizes[featureSizes([feature])[0]!.key] = {
    ...decided,
    overrides: typed,
    method,
    operations,
    tools: chosen,
  };
  const library = { ...LIBRARY, tools, methods };
  return deriveJob({ features: [feature], bounds: BOUNDS, plan: p, library }).rows[0]!;
}

/** The operation of a kind in a row; fails where there is none. */
export function made(row: Row, kind: string): PlannedOperation {
  const operation = row.operations.find((o) => o.kind === kind);
  if (!operation) throw new Error(`no ${kind} in ${row.operations.map((o) => o.kind).join(', ')}`);
  return operation;
}

/** How the first hole of an operation is made; a path has no such thing. */
export function howOf({ work }: Pick<PlannedOperation, 'work'>): CycleHow {
  const how = cycleOf(work);
  if (!how) throw new RangeError('the operation is no cycle');
  return how;
}

/** Depth of its pecks; undefined where it has none. */
export function peckOf(o: Pick<PlannedOperation, 'work'>): number | undefined {
  const how = howOf(o);
  return 'peck' in how ? how.peck : undefined;
}
