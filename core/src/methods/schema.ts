import { z } from 'zod';

/** What of a hole an operation of a method makes. */
export const HOLE_PARTS = [
  'hole',
  'pointed steps',
  'flat steps',
  'countersink',
  'chamfer',
  'thread',
] as const;
export type HolePart = (typeof HOLE_PARTS)[number];

/** How closely the print wants a hole's diameter: as a drill makes it, as a reamer of H7 makes it, or otherwise close. */
export const FITS = ['drilled', 'reamed', 'bored'] as const;
export type FitWish = (typeof FITS)[number];

/** Families that methods make, and what their features are called. */
export const FAMILY_WORDS = {
  hole: 'holes',
  slot: 'slots',
  channel: 'channels',
  'face-groove': 'grooves in a face',
  't-slot': 'T-slots',
  dovetail: 'dovetails',
  'bore-groove': 'grooves in a bore',
  'wall-groove': 'grooves in a wall',
  face: 'faces',
  outline: 'outlines',
  step: 'steps',
  pocket: 'pockets',
  chamfer: 'chamfers',
  'rounded-edge': 'rounded edges',
  'sharp-edge': 'sharp edges',
  'rising-edge': 'edges that rise and fall',
} as const;
export type MethodFamily = keyof typeof FAMILY_WORDS;
export const METHOD_FAMILIES = Object.keys(FAMILY_WORDS) as [MethodFamily, ...MethodFamily[]];

/** Families that a method makes as areas: what lies between holes, slots and grooves. */
const AREA_FAMILIES = ['face', 'outline', 'step', 'pocket'] as const satisfies readonly MethodFamily[];
export type AreaFamily = (typeof AREA_FAMILIES)[number];
export const isAreaFamily = (f: string): f is AreaFamily => AREA_FAMILIES.some((a) => a === f);

/** Families that a method makes as edges. */
const EDGE_FAMILIES = [
  'chamfer',
  'rounded-edge',
  'sharp-edge',
  'rising-edge',
] as const satisfies readonly MethodFamily[];
export type EdgeFamily = (typeof EDGE_FAMILIES)[number];
export const isEdgeFamily = (f: string): f is EdgeFamily => EDGE_FAMILIES.some((e) => e === f);

/** Families that a method makes as slots, grooves or channels. */
export type GrooveFamily = Exclude<MethodFamily, 'hole' | AreaFamily | EdgeFamily>;
const GROOVE_FAMILIES: readonly string[] = METHOD_FAMILIES.slice(1).filter(
  (f) => !isAreaFamily(f) && !isEdgeFamily(f),
);
export const isGrooveFamily = (f: string): f is GrooveFamily => GROOVE_FAMILIES.includes(f);

/** What the features of a family are to a kind of operation. */
export function sortOf(f: MethodFamily): 'holes' | 'grooves' | 'areas' | 'edges' {
  if (isAreaFamily(f)) return 'areas';
  if (isEdgeFamily(f)) return 'edges';
  return isGrooveFamily(f) ? 'grooves' : 'holes';
}

/** How many ends of a slot or channel are open: `closed`, `one` or `both`. */
export const END_KINDS = ['closed', 'one', 'both'] as const;

/** Whether a number lies in a range; both ends count. */
export const within = (v: number, r: { from?: number; to?: number } | undefined): boolean =>
  v >= (r?.from ?? -Infinity) - 1e-6 && v <= (r?.to ?? Infinity) + 1e-6;

const range = z.object({ from: z.number().optional(), to: z.number().optional() });

/** A number for an operation: itself, or a sum of the feature's sizes such as `diameter - 0.2` (mm). */
export const relationSchema = z.union([z.number(), z.string().min(1).max(80)]);

export const methodOperationSchema = z.object({
  kind: z.string().min(1).max(40),
  /** Kinds that make the same where the shop has no tool for the first, best first. */
  or: z.array(z.string().min(1).max(40)).max(5).optional(),
  /** Left out where the hole has no such part; made once for each where it has several. */
  part: z.enum(HOLE_PARTS).default('hole'),
  /** Numbers of the operation by their keys; the others are worked out. */
  set: z.record(z.string(), relationSchema).default({}),
  /** Left out where what came before has made it already, and, with a word, where it cannot be had. */
  ifNeeded: z.boolean().optional(),
});
export type MethodOperation = z.infer<typeof methodOperationSchema>;

/** A way to make features of some sort: when it applies, and which operations make them, in order. Lengths in mm. */
export const methodSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(60),
  family: z.enum(METHOD_FAMILIES),
  /** All that is said must hold. */
  when: z.object({
    threaded: z.boolean().optional(),
    fit: z.array(z.enum(FITS)).optional(),
    /** A step wider than what is drilled, or a countersink. */
    stepped: z.boolean().optional(),
    through: z.boolean().optional(),
    /** Blind with a flat floor. */
    flatFloor: z.boolean().optional(),
    diameter: range.optional(),
    /** Of the thread its major diameter. */
    major: range.optional(),
    /** Of a slot, groove or channel its width; of a T-slot or dovetail that of its mouth. */
    width: range.optional(),
    ends: z.array(z.enum(END_KINDS)).optional(),
    /** Depth in diameters, or in widths. */
    ratio: range.optional(),
    materials: z.array(z.string()).optional(),
  }),
  /** Only taken where somebody chooses it; else it is taken by itself where it is the best that can be done. */
  onRequest: z.boolean().default(false),
  operations: z.array(methodOperationSchema).min(1).max(20),
});
export type Method = z.infer<typeof methodSchema>;
