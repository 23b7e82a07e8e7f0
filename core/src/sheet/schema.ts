import { z } from 'zod';

const text = z.string();
const place = z.tuple([z.number(), z.number()]);

/** A part in its setup as one looks at it, mm in program coordinates: to the right and up. */
const viewSchema = z.object({
  /** Which program axes run to the right and up. */
  right: z.enum(['X', 'Y', 'Z']),
  up: z.enum(['X', 'Y', 'Z']),
  /** Edges of the part that are seen, each a run of places: x, y, x, y … */
  lines: z.array(z.array(z.number())),
  stock: z.tuple([place, place]),
  keepOuts: z.array(z.object({ name: text, box: z.tuple([place, place]) })),
  /** Where tags stand. */
  tags: z.array(z.object({ label: text, at: place })),
});
export type SheetView = z.infer<typeof viewSchema>;

const sheetToolSchema = z.object({
  number: z.number().int().nullable(),
  kind: text,
  description: text,
  diameter: text,
  flute: text,
  stickOut: text,
  makes: text,
  seconds: z.number(),
  /** Half of its outline without the holder, from the tip: height and radius, mm. */
  outline: z.array(place),
});
export type SheetTool = z.infer<typeof sheetToolSchema>;

/** Everything that the floor needs to know of one setup, in words and lines; lengths that are text are in the job's unit. */
export const floorSheetSchema = z.object({
  format: z.literal('yellow-pin/floor-sheet@1'),
  job: text,
  /** The setup's id in the plan, and its name, which others may have as well. */
  setupId: text,
  setup: text,
  /** Which of the job's setups it is, from 1, and of how many. */
  number: z.number().int().positive(),
  of: z.number().int().positive(),
  units: z.enum(['mm', 'inch']),
  machine: text,
  material: text,
  attitude: text,
  workOffset: text,
  zero: text,
  clearance: text,
  stock: text,
  /** What is sawn off for it; null where it comes prepared or is what the setup before left. */
  saw: text.nullable(),
  holding: text,
  /** All feeds run at that share. */
  feedPercent: z.number(),
  seconds: z.number(),
  files: z.array(z.object({ name: text, lines: z.number().int(), sha256: z.string().nullable() })),
  top: viewSchema,
  front: viewSchema,
  tools: z.array(sheetToolSchema),
  holes: z.array(z.object({ label: text, callout: text, x: text, y: text, z: text, depth: text })),
  /** What the operator must know of operations: offsets to change, work by hand. */
  toKnow: z.array(z.object({ what: text, text })),
  handEdits: z.array(text),
  accepted: z.array(z.object({ message: text, reason: text })),
  notMade: z.array(text),
});
export type FloorSheet = z.infer<typeof floorSheetSchema>;
