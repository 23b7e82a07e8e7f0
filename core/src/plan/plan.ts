import { z } from 'zod';
import { acceptedSchema } from '../proof/accepted.ts';
import { sectionEditsSchema } from '../code/edits/schema.ts';
import { calloutSchema, MOST_LETTERS, parseCallout } from '../callout/callout.ts';
import { correctionSchema } from '../corrections/schema.ts';
import { methodOperationSchema } from '../methods/schema.ts';
import { drawingDepthsSchema } from '../drawing/depths.ts';
import { visitSchema } from '../order/ways.ts';
import { threadSchema } from '../threads/thread.ts';
import { toolSchema } from '../tools/schema.ts';
import {
  attitudeFor,
  MOST_SETUPS,
  newSetup,
  setupSchema,
  sideDirection,
  SIDES,
  type Side,
} from '../setup/setup.ts';

/** Longest name that a plan holds: ids, keys, words chosen from a list. */
const MOST_NAME = 200;
/** Sizes, and tools in an order, that a plan holds at most: far more than any part has. */
const MOST_SIZES = 5000;
const MOST_VISITS = 500;
/** The whole plan as JSON, bytes: what a server takes. */
export const MOST_PLAN_BYTES = 4_000_000;

/** A record of at most so many entries with names of sane length. */
const bounded = <T extends z.ZodType>(value: T, most: number) =>
  z
    .record(z.string().max(MOST_NAME), value)
    .refine((r) => Object.keys(r).length <= most, `holds more than ${most} entries`);
const name = z.string().max(MOST_NAME);

/** A number somebody typed in place of the one worked out; the key is the operation kind's parameter. */
export const overridesSchema = bounded(z.union([z.number(), name, z.boolean()]), 50);

export const sizeDecisionSchema = z.object({
  /** As typed; empty when nothing was. */
  callout: z.string().max(MOST_LETTERS).optional(),
  /** What it says, in mm: what the print says is what is cut. */
  print: calloutSchema.optional(),
  thread: threadSchema.nullable().optional(),
  /** Depth of full thread, mm; of a plain hole in documents of before. */
  threadDepth: z.number().positive().optional(),
  /** Id of the method that was chosen; without one the best that applies is taken. */
  method: z.string().max(60).optional(),
  /** Its operations, where they were changed for this size: added, taken out, swapped or moved. */
  operations: z.array(methodOperationSchema).min(1).max(20).optional(),
  /** In which order its holes are gone to; nearest next where nothing is said. */
  visit: visitSchema.optional(),
  /** Operation → id of the tool that was chosen for it. */
  tools: bounded(name, 50).optional(),
  /** Left out on purpose, with the reason. */
  leftOut: z.string().max(200).optional(),
  /** Operation kind → typed parameters. */
  overrides: bounded(overridesSchema, 50).default({}),
});
export type SizeDecision = z.infer<typeof sizeDecisionSchema>;

/** A wider break is a chamfer of its own, mm. */
export const MOST_EDGE_BREAK = 10;

/** The format that is written; formats of before are read. */
export const PLAN_FORMAT = 'yellow-pin/plan@3';

const planShape = z.object({
  format: z.literal(PLAN_FORMAT),
  units: z.enum(['mm', 'inch']),
  materialId: name,
  machineId: name,
  /** Only this solid of the file; null: all of them. */
  solid: z.number().int().nonnegative().nullable().default(null),
  /** Of a file with several solids: the programmer said that all of them are made together. */
  allSolids: z.boolean().default(false),
  setups: z.array(setupSchema).min(1).max(MOST_SETUPS),
  /** What the programmer changed about the recognised features, in the order in which it was done. */
  corrections: z.array(correctionSchema).max(2000).default([]),
  /** Depths typed for a 2D drawing; null for solids. */
  drawing: drawingDepthsSchema.nullable().default(null),
  /** Feature size key → what was decided. */
  sizes: bounded(sizeDecisionSchema, MOST_SIZES),
  /** Setup id → order of tools by hand, as visits; those not named follow in the usual order. */
  toolOrders: bounded(z.array(name).max(MOST_VISITS), 12).default({}),
  /** Setup id → visits of tools before which its program goes on in another file. */
  splits: bounded(z.array(name).max(MOST_VISITS), 12).default({}),
  /** Tools that this job has beside the shop's list. */
  tools: z.array(toolSchema).max(200).default([]),
  /** Tool id → number on which a tool from the drawer stands in the magazine for this job. */
  loaded: bounded(z.number().int().positive(), 500).default({}),
  /** Findings that somebody has looked at and takes as they are, each with the reason. */
  accepted: z.array(acceptedSchema).max(300).default([]),
  /** Setup id → edits by hand on its posted program. */
  handEdits: bounded(z.array(sectionEditsSchema).max(500), 12).default({}),
  /** Width by which all sharp edges are to be broken that nothing else is said of (ISO 13715), across the top, mm; null: as they are. */
  edgeBreak: z.number().positive().max(MOST_EDGE_BREAK).nullable().default(null),
  /** Profile options that this job sets for itself. */
  codeOptions: z
    .object({
      lineNumbers: z.boolean().optional(),
      /** All feeds at this share, for a first part; taps turn slower by as much. */
      feedPercent: z.number().min(5).max(100).optional(),
      commentStyle: z.enum(['parentheses', 'semicolon', 'none']).optional(),
    })
    .default({}),
});

/** Everything the programmer decides about a job. One document; every save is a new revision. Documents of before are brought up to date. */
export const planSchema = z.preprocess(upgrade, planShape);
export type Plan = z.infer<typeof planShape>;

function upgrade(document: unknown): unknown {
  return toPlan3(toPlan2(document));
}

const isFormat = (document: unknown, format: string): document is Record<string, unknown> =>
  typeof document === 'object' && document !== null && (document as { format?: unknown }).format === format;

/** plan@1 had one of six sides up, zero on a box and two kinds of stock. */
function toPlan2(document: unknown): unknown {
  if (!isFormat(document, 'yellow-pin/plan@1') || !Array.isArray(document['setups'])) return document;
  const setups = (document['setups'] as unknown[]).map((setup) => {
    // What is no setup of that format stays as it is: the schema says which it is.
    if (typeof setup !== 'object' || setup === null || !SIDES.includes((setup as { up: Side }).up))
      return setup;
    const { up, zero, stock, ...rest } = setup as Record<string, unknown>;
    const { state, ...allowances } = (stock ?? {}) as Record<string, unknown>;
    return {
      ...rest,
      attitude: attitudeFor(sideDirection(up as Side)),
      zero: { kind: 'box', ...(zero as object) },
      stock: { ...allowances, kind: state },
    };
  });
  return { ...document, format: 'yellow-pin/plan@2', setups };
}

/** plan@2 had one order of tools for all setups, and of a callout kept its thread and one depth only. */
function toPlan3(document: unknown): unknown {
  if (!isFormat(document, 'yellow-pin/plan@2')) return document;
  const { toolOrder, ...rest } = document;
  const setups = Array.isArray(document['setups']) ? (document['setups'] as { id?: unknown }[]) : [];
  const order = Array.isArray(toolOrder) && toolOrder.length > 0 ? toolOrder : null;
  const toolOrders = order ? Object.fromEntries(setups.map((s) => [String(s?.id), order])) : {};
  const unit = document['units'] === 'inch' ? 'inch' : 'mm';
  const sizes = Object.fromEntries(
    Object.entries((document['sizes'] ?? {}) as Record<string, unknown>).map(([key, size]) => [
      key,
      typeof size === 'object' && size !== null ? withPrint(size as Record<string, unknown>, unit) : size,
    ]),
  );
  return { ...rest, format: PLAN_FORMAT, sizes, toolOrders };
}

function withPrint(size: Record<string, unknown>, unit: 'mm' | 'inch'): Record<string, unknown> {
  if (typeof size['callout'] !== 'string' || size['print'] !== undefined) return size;
  try {
    return { ...size, print: parseCallout(size['callout'], unit) };
  } catch {
    // What was typed stays as it is; what it says beyond thread and depth was not obeyed then either.
    return size;
  }
}

export function newPlan(units: Plan['units'], materialId: string, machineId: string): Plan {
  return {
    format: PLAN_FORMAT,
    units,
    materialId,
    machineId,
    solid: null,
    allSolids: false,
    setups: [newSetup('s1', 'top up', '+Z')],
    corrections: [],
    drawing: null,
    sizes: {},
    toolOrders: {},
    splits: {},
    tools: [],
    loaded: {},
    accepted: [],
    handEdits: {},
    edgeBreak: null,
    codeOptions: {},
  };
}
