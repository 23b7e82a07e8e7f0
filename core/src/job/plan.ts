import { z } from 'zod';
import { threadSchema } from '../threads/thread.ts';

export const SIDES = ['+Z', '-Z', '+X', '-X', '+Y', '-Y'] as const;
export const sideSchema = z.enum(SIDES);
export type Side = z.infer<typeof sideSchema>;

const place = z.union([z.literal(-1), z.literal(0), z.literal(1)]);

export const zeroSchema = z.object({
  of: z.enum(['stock', 'part']),
  /** Along the setup's X, Y, Z: -1 low side, 0 middle, 1 high side. */
  x: place,
  y: place,
  z: place,
});
export type Zero = z.infer<typeof zeroSchema>;

export const stockSchema = z.object({
  /** `prepared`: outer faces and terraces are milled already. `block`: metal up to the stock's top everywhere. */
  state: z.enum(['prepared', 'block']),
  /** Allowances on the six sides of the part's box, in the setup's own directions, mm. */
  xLow: z.number().min(0).max(500),
  xHigh: z.number().min(0).max(500),
  yLow: z.number().min(0).max(500),
  yHigh: z.number().min(0).max(500),
  zLow: z.number().min(0).max(500),
  zHigh: z.number().min(0).max(500),
});
export type Stock = z.infer<typeof stockSchema>;

export const setupSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(60),
  up: sideSchema,
  zero: zeroSchema,
  stock: stockSchema,
  workOffset: z.enum(['G54', 'G55', 'G56', 'G57', 'G58', 'G59']),
  /** Above the highest of part and stock, mm. */
  clearance: z.number().positive().max(500),
  /** Above each hole's entry, mm. */
  retract: z.number().positive().max(50),
});
export type Setup = z.infer<typeof setupSchema>;

/** A number somebody typed in place of the one worked out; the key is the operation kind's parameter. */
export const overridesSchema = z.record(z.string(), z.union([z.number(), z.string(), z.boolean()]));

export const sizeDecisionSchema = z.object({
  /** As typed; empty when nothing was. */
  callout: z.string().max(200).optional(),
  thread: threadSchema.nullable().optional(),
  /** Depth of full thread, mm. */
  threadDepth: z.number().positive().optional(),
  /** Left out on purpose, with the reason. */
  leftOut: z.string().max(200).optional(),
  /** Operation kind → typed parameters. */
  overrides: z.record(z.string(), overridesSchema).default({}),
});
export type SizeDecision = z.infer<typeof sizeDecisionSchema>;

/** Everything the programmer decides about a job. One document; every save is a new revision. */
export const planSchema = z.object({
  format: z.literal('yellow-pin/plan@1'),
  units: z.enum(['mm', 'inch']),
  materialId: z.string(),
  machineId: z.string(),
  /** Only this solid of the file; null: all of them. */
  solid: z.number().int().nonnegative().nullable().default(null),
  setups: z.array(setupSchema).min(1).max(6),
  /** Feature size key → what was decided. */
  sizes: z.record(z.string(), sizeDecisionSchema),
  /** Order of tools by hand: tool ids; those not named follow in the usual order. */
  toolOrder: z.array(z.string()).default([]),
  /** Profile options that this job sets for itself. */
  codeOptions: z.object({ lineNumbers: z.boolean().optional(), commentStyle: z.enum(['parentheses', 'semicolon']).optional() }).default({}),
});
export type Plan = z.infer<typeof planSchema>;

export function newSetup(id: string, name: string, up: Side, workOffset: Setup['workOffset'] = 'G54'): Setup {
  return {
    id,
    name,
    up,
    zero: { of: 'stock', x: 0, y: 0, z: 1 },
    stock: { state: 'prepared', xLow: 0, xHigh: 0, yLow: 0, yHigh: 0, zLow: 0, zHigh: 0 },
    workOffset,
    clearance: 25,
    retract: 2,
  };
}

export function newPlan(units: Plan['units'], materialId: string, machineId: string): Plan {
  return { format: 'yellow-pin/plan@1', units, materialId, machineId, solid: null, setups: [newSetup('s1', 'top up', '+Z')], sizes: {}, toolOrder: [], codeOptions: {} };
}
