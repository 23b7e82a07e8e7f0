import type { Feature } from '../features/family.ts';
import { featureSizes } from '../features/sets.ts';
import { deriveJob } from '../job/derive.ts';
import type { Row } from '../job/row.ts';
import type { Method, MethodOperation } from '../methods/schema.ts';
import type { Move } from '../motion/work.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import type { Tool } from '../tools/schema.ts';
import { BOUNDS, endMill, LIBRARY, plan, usual, type Typed } from './fixtures.ts';

type Of<F extends Feature['family']> = Extract<Feature, { family: F }>;
const UP: [number, number, number] = [0, 0, 1];
const base = { solid: 0, faces: [], reachableFrom: [UP], axis: UP };
const SHUT = { open: false, beyond: 0 };
const OPEN = { open: true, beyond: 0 };

/** A slot along X in the middle of the made-up part, its top at 0. */
export function slot(part: Partial<Of<'slot'>> = {}, open: 0 | 1 | 2 = 0): Of<'slot'> {
  return {
    ...base,
    id: 'S1',
    family: 'slot',
    kind: open === 0 ? 'closed' : open === 1 ? 'open-one-end' : 'open-both-ends',
    width: 8,
    length: 60,
    depth: 6,
    bottom: 'flat',
    centre: [50, 40, 0],
    direction: [1, 0, 0],
    ends: [open === 2 ? OPEN : SHUT, open === 0 ? SHUT : OPEN],
    ...part,
  };
}

/** A ring about the middle of the part. */
export const ringGroove = (radius: number, width: number, depth: number): Of<'face-groove'> => ({
  ...base,
  id: 'G1',
  family: 'face-groove',
  shape: 'ring',
  width,
  depth,
  centrelineLength: 2 * Math.PI * radius,
  centreline: [
    {
      kind: 'arc',
      from: [50 + radius, 40, 0],
      to: [50 + radius, 40, 0],
      centre: [50, 40, 0],
      radius,
      turn: 2 * Math.PI,
    },
  ],
  at: [50 + radius, 40, 0],
});

/** A T-slot along X, 12 wide and 9 deep over a head of 21 by 8; open at its low end unless said otherwise. */
export const tSlot = (part: Partial<Of<'t-slot'>> = {}): Of<'t-slot'> => ({
  ...base,
  id: 'T1',
  family: 't-slot',
  direction: [1, 0, 0],
  mouthWidth: 12,
  mouthDepth: 9,
  headWidth: 21,
  headHeight: 8,
  length: 60,
  openEnds: 1,
  ends: [OPEN, SHUT],
  throat: [-30, 19.5],
  at: [30, 40, 0],
  ...part,
});

/** A dovetail along X, open at both ends. */
export const dovetail = (part: Partial<Of<'dovetail'>> = {}): Of<'dovetail'> => ({
  ...base,
  id: 'D1',
  family: 'dovetail',
  direction: [1, 0, 0],
  mouthWidth: 18,
  bottomWidth: 18 + 14 / Math.tan(Math.PI / 3),
  depth: 7,
  angle: 60,
  length: 100,
  openEnds: 2,
  ends: [OPEN, OPEN],
  at: [50, 40, 0],
  ...part,
});

/** A groove all along the front wall. */
export const wallGroove = (part: Partial<Of<'wall-groove'>> = {}): Of<'wall-groove'> => ({
  ...base,
  id: 'W1',
  family: 'wall-groove',
  width: 5,
  depth: 4,
  loop: 'open',
  length: 100,
  side: 'outside',
  at: [50, 0, -15],
  mouth: [{ kind: 'line', from: [100, 0, -15], to: [0, 0, -15] }],
  ends: [OPEN, OPEN],
  edges: [],
  ...part,
});

const MILLS: Tool[] = [
  ...[4, 6, 8, 12].map((d, i) => ({ ...endMill(50 + i, d), rampAngleDeg: 5 })),
  usual('t-cutter', 60, 18, { fluteLength: 6, neckDiameter: 8, neckLength: 24 }),
  usual('t-cutter', 61, 25, { fluteLength: 4, neckDiameter: 12, neckLength: 45 }),
  usual('dovetail-cutter', 62, 16, { fluteLength: 8, neckDiameter: 6.5, neckLength: 20, pointAngleDeg: 60 }),
];

/** The row of one slot, groove or channel in a fresh plan, with what is typed and decided for its size. */
export function grooveRow(
  feature: Feature,
  {
    typed = {},
    tools = MILLS,
    method,
    operations,
    methods = [],
    more = [],
    chosen,
  }: {
    typed?: Typed;
    tools?: Tool[];
    method?: string;
    operations?: MethodOperation[];
    methods?: Method[];
    /** Features beside it, such as the hole that it is in. */
    more?: Feature[];
    /** Tool ids by the operations for which they are chosen. */
    chosen?: Record<string, string>;
  } = {},
): Row {
  const p = plan();
  for (const s of featureSizes([...more, feature]))
    if (s.features.includes(feature))
      p.sizes[s.key] = { overrides: typed, method, operations, tools: chosen };
  const [material] = LIBRARY.materials;
  const cutting = ['t-cutter', 'dovetail-cutter'].map((kind) => ({
    kinds: [kind],
    vc: 60,
    carbideFactor: 2,
    feedShare: 0.003,
    maxFeedPerTurn: 0.1,
  }));
  const library = {
    ...LIBRARY,
    tools: [...LIBRARY.tools, ...tools],
    methods,
    materials: [{ ...material!, cutting: [...material!.cutting, ...cutting] }],
  };
  const job = deriveJob({ features: [...more, feature], bounds: BOUNDS, plan: p, library });
  return job.rows.find((r) => r.size.features.includes(feature))!;
}

/** All moves of an operation's first work, after where it begins. */
export const movesOf = (o: PlannedOperation): Exclude<Move, { kind: 'dwell' }>[] => {
  const motion = o.work[0]!.motion;
  if (motion.kind !== 'path') throw new RangeError('no path');
  return motion.passes.flatMap((p) => p.moves).flatMap((m) => (m.kind === 'dwell' ? [] : [m]));
};
