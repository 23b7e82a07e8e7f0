import { at } from '../lists.ts';
import { z } from 'zod';
import { vec3Schema } from '../features/base.ts';
import { cross, dot, length, normalize, reject, scale, type Vec3, isAlong } from '../geometry/vec.ts';

export const SIDES = ['+Z', '-Z', '+X', '-X', '+Y', '-Y'] as const;
export type Side = (typeof SIDES)[number];

const unit = vec3Schema.refine((v) => Math.abs(length(v) - 1) < 1e-6, 'a direction must have length 1');

/** How the part stands in the machine: which of its directions is up (Z) and which points along X. */
export const attitudeSchema = z
  .object({ up: unit, x: unit })
  // A frame is made of them: they are square as figures are, not as surfaces.
  .refine((a) => Math.abs(dot(a.up, a.x)) < 1e-6, 'up and X must be square to each other');
export type Attitude = z.infer<typeof attitudeSchema>;

const place = z.union([z.literal(-1), z.literal(0), z.literal(1)]);

export const zeroSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('box'),
    of: z.enum(['stock', 'part']),
    /** Along the setup's X, Y, Z: -1 low side, 0 middle, 1 high side. */
    x: place,
    y: place,
    z: place,
    /** From there, along the setup's axes, mm. */
    offset: vec3Schema.default([0, 0, 0]),
  }),
  z.object({
    kind: z.literal('point'),
    /** In the part file's frame. */
    point: vec3Schema,
    /** What is there, such as "centre of A1" or "corner". */
    name: z.string().min(1).max(80),
    offset: vec3Schema.default([0, 0, 0]),
  }),
]);
export type Zero = z.infer<typeof zeroSchema>;

const allowance = z.number().min(0).max(500);

export const STOCK_KINDS = ['prepared', 'block', 'round-bar', 'outline', 'solid', 'left-over'] as const;

export const stockSchema = z.object({
  /**
   * `prepared`: outer faces and terraces are milled already. `block`: metal up to the stock's top everywhere. `round-bar`: a bar round the
   * part. `outline`: the part's outline from above, extruded. `solid`: another part file. `left-over`: what the setup before leaves.
   */
  kind: z.enum(STOCK_KINDS),
  /** Allowances on the six sides of the part's box, in the setup's own directions, mm. */
  xLow: allowance,
  xHigh: allowance,
  yLow: allowance,
  yHigh: allowance,
  zLow: allowance,
  zHigh: allowance,
  /** Round bar: its diameter and the setup's axis that it lies along. */
  diameter: z.number().positive().max(5000).default(50),
  barAxis: z.enum(['x', 'y', 'z']).default('z'),
  /** Outline: how far it stands outside the part's own, mm. */
  margin: allowance.default(0),
  /** Solid: the job whose part it is, with that part's box in the common frame. */
  solid: z
    .object({
      jobId: z.string().min(1).max(60),
      name: z.string().max(120),
      bounds: z.object({ min: vec3Schema, max: vec3Schema }),
    })
    .nullable()
    .default(null),
});
export type Stock = z.infer<typeof stockSchema>;

/** A box that tools keep out of. Corners along the setup's axes, measured from the part file's origin, mm. */
export const keepOutSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(60),
  kind: z.enum(['clamp', 'keep-out']),
  min: vec3Schema,
  max: vec3Schema,
});
export type KeepOut = z.infer<typeof keepOutSchema>;

export const viseSchema = z.object({
  /** Which sides of the stock the jaws hold. */
  sides: z.enum(['front-back', 'left-right']),
  /** Height of the jaws above their bed, mm. */
  jawHeight: z.number().positive().max(500),
  /** How much of the stock's height is between the jaws, mm. */
  grip: z.number().positive().max(500),
  /** Width of the jaws, mm. */
  jawWidth: z.number().positive().max(2000),
});

export const holdingSchema = z.object({
  vise: viseSchema.nullable().default(null),
  keepOuts: z.array(keepOutSchema).max(60).default([]),
});
export type Holding = z.infer<typeof holdingSchema>;

export const WORK_OFFSETS = ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'] as const;

export const setupSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(60),
  attitude: attitudeSchema,
  zero: zeroSchema,
  stock: stockSchema,
  holding: holdingSchema.default({ vise: null, keepOuts: [] }),
  workOffset: z.enum(WORK_OFFSETS),
  /** Above the highest of part, stock and holding, mm. */
  clearance: z.number().positive().max(500),
  /** Above each hole's entry, mm. */
  retract: z.number().positive().max(50),
});
export type Setup = z.infer<typeof setupSchema>;

const UP: Record<Side, Vec3> = {
  '+Z': [0, 0, 1],
  '-Z': [0, 0, -1],
  '+X': [1, 0, 0],
  '-X': [-1, 0, 0],
  '+Y': [0, 1, 0],
  '-Y': [0, -1, 0],
};
/** X of each attitude, so that the part is turned over in the fewest ways: -Z keeps X (turned over about X). */
const X: Record<Side, Vec3> = {
  '+Z': [1, 0, 0],
  '-Z': [1, 0, 0],
  '+X': [0, 1, 0],
  '-X': [0, -1, 0],
  '+Y': [-1, 0, 0],
  '-Y': [1, 0, 0],
};
const NAMES: Record<Side, string> = {
  '+Z': 'top up',
  '-Z': 'bottom up',
  '+X': 'right up',
  '-X': 'left up',
  '+Y': 'back up',
  '-Y': 'front up',
};

export const sideDirection = (side: Side): Vec3 => UP[side];

/** The side of the file's box that looks along a direction; null where none does. */
export const sideOf = (d: Vec3): Side | null => SIDES.find((s) => isAlong(UP[s], d)) ?? null;

/** The usual attitude with a direction up: X as for the six sides, else as near to the file's X as can be. */
export function attitudeFor(up: Vec3): Attitude {
  const side = sideOf(up);
  if (side) return { up: UP[side], x: X[side] };
  const hint: Vec3 = Math.abs(up[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const z = normalize(up);
  return { up: z, x: clean(normalize(reject(hint, z))) };
}

const clean = (v: Vec3): Vec3 => v.map((c) => (Math.abs(c) < 1e-12 ? 0 : c)) as Vec3;

/** An attitude from a direction up and one that X should follow; null where the two are the same. */
export function attitudeFrom(up: Vec3, xHint: Vec3): Attitude | null {
  const z = normalize(up);
  const across = reject(xHint, z);
  return length(across) < 1e-6 ? null : { up: clean(z), x: clean(normalize(across)) };
}

/** The plane through three points is up; it looks to the side of `outside`. Null where they lie in a line. */
export function upFromPoints([a, b, c]: [Vec3, Vec3, Vec3], outside: Vec3): Vec3 | null {
  const u: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const v: Vec3 = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const n = cross(u, v);
  if (length(n) < 1e-6 * Math.max(length(u), length(v)) ** 2 || length(n) === 0) return null;
  const d = normalize(n);
  return clean(dot(d, outside) < 0 ? scale(d, -1) : d);
}

/** The same attitude turned a quarter about Z, counter-clockwise seen from above: what was along X lies along Y. */
export const quarterTurn = ({ up, x }: Attitude): Attitude => ({ up, x: clean(scale(cross(up, x), -1)) });

/** The part turned over about the setup's X (which stays) or Y. */
export const turnOver = ({ up, x }: Attitude, about: 'x' | 'y'): Attitude => ({
  up: clean(scale(up, -1)),
  x: about === 'x' ? x : clean(scale(x, -1)),
});

/** Such as "top up"; "tilted" for a direction that is no side of the file's box. */
export function attitudeName({ up }: Attitude): string {
  const side = sideOf(up);
  return side ? NAMES[side] : 'tilted';
}

/** Setups that a job has at most. */
export const MOST_SETUPS = 12;

/** An id that no setup of the job has. */
export function freeSetupId(setups: readonly Pick<Setup, 'id'>[]): string {
  const used = new Set(setups.map((s) => s.id));
  let n = 1;
  while (used.has(`s${n}`)) n++;
  return `s${n}`;
}

export function newSetup(
  id: string,
  name: string,
  up: Side | Vec3,
  workOffset: Setup['workOffset'] = 'G54',
): Setup {
  return {
    id,
    name,
    attitude: attitudeFor(typeof up === 'string' ? UP[up] : up),
    zero: { kind: 'box', of: 'stock', x: 0, y: 0, z: 1, offset: [0, 0, 0] },
    stock: {
      kind: 'prepared',
      xLow: 0,
      xHigh: 0,
      yLow: 0,
      yHigh: 0,
      zLow: 0,
      zHigh: 0,
      diameter: 50,
      barAxis: 'z',
      margin: 0,
      solid: null,
    },
    holding: { vise: null, keepOuts: [] },
    workOffset,
    clearance: 25,
    retract: 2,
  };
}

/** A copy as the start of the next setup: it takes what the one before leaves, on the next work offset. */
export function copySetup(setup: Setup, id: string, attitude: Attitude = setup.attitude): Setup {
  const next = at(
    WORK_OFFSETS,
    Math.min(WORK_OFFSETS.length - 1, WORK_OFFSETS.indexOf(setup.workOffset) + 1),
  );
  const isSame = attitude === setup.attitude;
  return {
    ...setup,
    id,
    name: isSame ? `${setup.name} again`.slice(0, 60) : attitudeName(attitude),
    attitude,
    stock: { ...setup.stock, kind: 'left-over' },
    // Clamps stand where they stood only while the part stands as it stood.
    holding: isSame ? setup.holding : { ...setup.holding, keepOuts: [] },
    workOffset: next,
  };
}
