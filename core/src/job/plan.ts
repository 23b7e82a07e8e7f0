import { z } from 'zod';
import { correctionSchema } from '../corrections/schema.ts';
import { drawingDepthsSchema } from '../drawing/depths.ts';
import { threadSchema } from '../threads/thread.ts';
import { newSetup, setupSchema, sideDirection, attitudeFor, type Side } from './setup.ts';

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

const planShape = z.object({
  format: z.literal('yellow-pin/plan@2'),
  units: z.enum(['mm', 'inch']),
  materialId: z.string(),
  machineId: z.string(),
  /** Only this solid of the file; null: all of them. */
  solid: z.number().int().nonnegative().nullable().default(null),
  setups: z.array(setupSchema).min(1).max(12),
  /** What the programmer changed about the recognised features, in the order in which it was done. */
  corrections: z.array(correctionSchema).max(2000).default([]),
  /** Depths typed for a 2D drawing; null for solids. */
  drawing: drawingDepthsSchema.nullable().default(null),
  /** Feature size key → what was decided. */
  sizes: z.record(z.string(), sizeDecisionSchema),
  /** Order of tools by hand: tool ids; those not named follow in the usual order. */
  toolOrder: z.array(z.string()).default([]),
  /** Profile options that this job sets for itself. */
  codeOptions: z.object({ lineNumbers: z.boolean().optional(), commentStyle: z.enum(['parentheses', 'semicolon']).optional() }).default({}),
});

/** Everything the programmer decides about a job. One document; every save is a new revision. Documents of before are brought up to date. */
export const planSchema = z.preprocess(upgrade, planShape);
export type Plan = z.infer<typeof planShape>;

/** plan@1 had one of six sides up, zero on a box and two kinds of stock. */
function upgrade(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || (document as { format?: unknown }).format !== 'yellow-pin/plan@1') return document;
  const old = document as { setups?: unknown };
  if (!Array.isArray(old.setups)) return document;
  const setups = (old.setups as Record<string, unknown>[]).map(({ up, zero, stock, ...rest }) => {
    const { state, ...allowances } = (stock ?? {}) as Record<string, unknown>;
    return { ...rest, attitude: attitudeFor(sideDirection(up as Side)), zero: { kind: 'box', ...(zero as object) }, stock: { ...allowances, kind: state } };
  });
  return { ...document, format: 'yellow-pin/plan@2', setups };
}

export function newPlan(units: Plan['units'], materialId: string, machineId: string): Plan {
  return {
    format: 'yellow-pin/plan@2',
    units,
    materialId,
    machineId,
    solid: null,
    setups: [newSetup('s1', 'top up', '+Z')],
    corrections: [],
    drawing: null,
    sizes: {},
    toolOrder: [],
    codeOptions: {},
  };
}
